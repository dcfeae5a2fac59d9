import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { Mapping } from "~/formats/table/mapping";
import { unitsFor } from "~/formats/table/numbers";
import { msg, type Phrase, unitText } from "~/core/text";
import type { OpenedTable, TableStage, TargetView } from "~/protocol/table-import";
import { colors, fonts } from "../../../theme/theme";
import { Sheet } from "../../../ui/sheet";
import { useSay } from "../../../words/text";
import type { Table } from "./use-table";

interface ColumnsSheetProps {
  readonly stages: readonly TableStage[];
  readonly opened: OpenedTable;
  readonly mapping: Mapping;
  readonly table: Table;
}

const orderWords: Readonly<Record<Mapping["dates"], Phrase>> = {
  ymd: msg`year, month, day`,
  dmy: msg`day, month, year`,
  mdy: msg`month, day, year`,
};

/** What the table means: of which method its rows are trials, and what each column stands for. */
export function ColumnsSheet({ stages, opened, mapping, table }: ColumnsSheetProps) {
  const say = useSay();
  const chosen =
    stages.find((one) => one.methodId === mapping.methodId && one.stageKey === mapping.stageKey) ?? null;
  return (
    <Sheet component="section" aria-labelledby="table-columns" sx={{ display: "grid", gap: 2, minWidth: 0 }}>
      <Typography id="table-columns" variant="h2">
        {say`2. What its columns are`}
      </Typography>
      <Autocomplete
        options={stages}
        value={chosen}
        getOptionLabel={({ method, stage }) => `${method}: ${stage}`}
        isOptionEqualToValue={(a, b) => a.methodId === b.methodId && a.stageKey === b.stageKey}
        getOptionKey={({ methodId, stageKey }) => `${methodId}/${stageKey}`}
        onChange={(_event, next) => next && void table.choose(next.methodId, next.stageKey)}
        renderInput={(params) => (
          <TextField {...params} label={say`Each row is a trial of`} placeholder={say`method and stage`} />
        )}
      />
      {table.targets.length > 0 && (
        <>
          <Columns opened={opened} mapping={mapping} targets={table.targets} change={table.change} />
          <Choices opened={opened} mapping={mapping} change={table.change} />
          <Fixed mapping={mapping} targets={table.targets} change={table.change} />
        </>
      )}
    </Sheet>
  );
}

interface PartProps {
  readonly mapping: Mapping;
  readonly change: Table["change"];
}

/** The first rows, and above each column what it stands for. */
function Columns({
  opened,
  mapping,
  targets,
  change,
}: PartProps & { readonly opened: OpenedTable; readonly targets: readonly TargetView[] }) {
  const say = useSay();
  const rows = mapping.headings ? opened.preview.slice(1) : opened.preview;
  const set = (at: number, use: Mapping["columns"][number]) =>
    change({ columns: mapping.columns.map((old, i) => (i === at ? use : old)) });
  return (
    <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label={say`First rows of the table`}>
      <Box
        component="table"
        sx={{
          borderCollapse: "collapse",
          "& th, & td": {
            textAlign: "left",
            p: 0.75,
            borderBottom: `1px solid ${colors.line}`,
            minWidth: 150,
          },
          "& td": { fontFamily: fonts.reading, whiteSpace: "nowrap" },
          "& th": { verticalAlign: "top" },
        }}
      >
        <thead>
          <tr>
            {mapping.columns.map((use, i) => (
              <th key={i} scope="col">
                <ColumnHead
                  name={mapping.headings ? (opened.preview[0]?.[i] ?? "") : say`Column ${i + 1}`}
                  use={use}
                  targets={targets}
                  onUse={(next) => set(i, next)}
                />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr key={i}>
              {row.map((cell, j) => (
                <td key={j} style={mapping.columns[j] ? {} : { color: colors.inkSoft }}>
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

interface ColumnHeadProps {
  readonly name: string;
  readonly use: Mapping["columns"][number];
  readonly targets: readonly TargetView[];
  readonly onUse: (use: Mapping["columns"][number]) => void;
}

function ColumnHead({ name, use, targets, onUse }: ColumnHeadProps) {
  const say = useSay();
  const target = targets.find(({ key }) => key === use?.target);
  const units = target && target.unit !== "" ? unitsFor(target.unit) : [];
  const choose = (key: string) => {
    const next = targets.find((one) => one.key === key);
    onUse(next ? { target: next.key, unit: next.unit } : null);
  };
  return (
    <Box sx={{ display: "grid", gap: 0.75 }}>
      <span>{name}</span>
      <TextField
        select
        size="small"
        label={say`stands for`}
        value={target ? target.key : ""}
        onChange={(event) => choose(event.target.value)}
        slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
      >
        <MenuItem value="">{say`left out`}</MenuItem>
        {targets.map(({ key, label }) => (
          <MenuItem key={key} value={key}>
            {say(label)}
          </MenuItem>
        ))}
      </TextField>
      {target && units.length > 1 && (
        <TextField
          select
          size="small"
          label={say`in`}
          value={use?.unit ?? target.unit}
          onChange={(event) => onUse({ target: target.key, unit: event.target.value })}
        >
          {units.map((unit) => (
            <MenuItem key={unit} value={unit}>
              {say(unitText(unit))}
            </MenuItem>
          ))}
        </TextField>
      )}
      {target && units.length === 1 && (
        <Typography variant="body2" color="textSecondary">
          {say`in ${unitText(units[0] ?? "")}`}
        </Typography>
      )}
    </Box>
  );
}

/** How its cells are written. */
function Choices({ opened, mapping, change }: PartProps & { readonly opened: OpenedTable }) {
  const say = useSay();
  const dateColumn = mapping.columns.findIndex((use) => use?.target === "date");
  const orders = dateColumn === -1 ? [] : (opened.orders[dateColumn] ?? []);
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 3, rowGap: 1.5, alignItems: "center" }}>
      <FormControlLabel
        control={
          <Checkbox checked={mapping.headings} onChange={(_event, headings) => change({ headings })} />
        }
        label={say`The first row names the columns`}
      />
      <TextField
        select
        size="small"
        label={say`Decimals stand behind a`}
        value={mapping.decimal}
        sx={{ width: 190 }}
        onChange={(event) => change({ decimal: event.target.value as Mapping["decimal"] })}
      >
        <MenuItem value="point">{say`point: 20.10`}</MenuItem>
        <MenuItem value="comma">{say`comma: 20,10`}</MenuItem>
      </TextField>
      {dateColumn !== -1 && (
        <TextField
          select
          size="small"
          label={say`Dates are`}
          value={mapping.dates}
          sx={{ width: 260 }}
          error={orders.length === 0}
          helperText={
            orders.length > 1
              ? say`These dates can be read in more than one way: check this.`
              : orders.length === 0
                ? say`Not all of these cells are dates.`
                : undefined
          }
          onChange={(event) => change({ dates: event.target.value as Mapping["dates"] })}
        >
          {(["ymd", "dmy", "mdy"] as const).map((order) => (
            <MenuItem key={order} value={order}>
              {say(orderWords[order])}
            </MenuItem>
          ))}
        </TextField>
      )}
      <FormControlLabel
        control={<Checkbox checked={mapping.zeros} onChange={(_event, zeros) => change({ zeros })} />}
        label={say`Put back zeros that the spreadsheet dropped: 20.1 is 20.10`}
      />
    </Box>
  );
}

/** What is the same for all rows, where no column says it. */
function Fixed({ mapping, targets, change }: PartProps & { readonly targets: readonly TargetView[] }) {
  const say = useSay();
  const used = new Set(mapping.columns.map((use) => use?.target));
  const open = targets.filter(({ key, per }) => per === "run" && key !== "person" && !used.has(key));
  if (open.length === 0) return null;
  return (
    <Box sx={{ display: "grid", gap: 1 }}>
      <Typography variant="h3">{say`The same for all rows`}</Typography>
      <Box
        sx={{
          display: "grid",
          gap: 1.5,
          gridTemplateColumns: "repeat(auto-fill, minmax(min(100%, 240px), 1fr))",
        }}
      >
        {open.map(({ key, label, unit, needed }) => (
          <TextField
            key={key}
            size="small"
            type={key === "date" ? "date" : "text"}
            label={unit === "" ? say(label) : say`${label}, ${unitText(unit)}`}
            value={mapping.fixed[key] ?? ""}
            helperText={needed ? say`needed for a result` : undefined}
            onChange={(event) => change({ fixed: { ...mapping.fixed, [key]: event.target.value } })}
            slotProps={{ inputLabel: { shrink: true } }}
          />
        ))}
      </Box>
    </Box>
  );
}

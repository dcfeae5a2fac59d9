import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { Mapping } from "~/formats/table/mapping";
import { msg, type Phrase, unitText } from "~/core/text";
import type { OpenedTable, TargetView } from "~/protocol/table-import";
import { useSay } from "../../../words/text";
import type { Table } from "./use-table";

interface PartProps {
  readonly mapping: Mapping;
  readonly change: Table["change"];
}

const orderWords: Readonly<Record<Mapping["dates"], Phrase>> = {
  ymd: msg`year, month, day`,
  dmy: msg`day, month, year`,
  mdy: msg`month, day, year`,
};

/** How its cells are written. */
export function CellChoices({ opened, mapping, change }: PartProps & { readonly opened: OpenedTable }) {
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
export function FixedValues({
  mapping,
  targets,
  change,
}: PartProps & { readonly targets: readonly TargetView[] }) {
  const say = useSay();
  const used = new Set(mapping.columns.map((use) => use?.target));
  const open = targets.filter(
    ({ key, per, usual }) => (per === "run" || usual !== "") && key !== "person" && !used.has(key),
  );
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
        {open.map(({ key, label, unit, needed, byMethod }) => (
          <TextField
            key={key}
            size="small"
            type={key === "date" ? "date" : "text"}
            label={unit === "" ? say(label) : say`${label}, ${unitText(unit)}`}
            value={mapping.fixed[key] ?? ""}
            helperText={
              byMethod
                ? say`${byMethod} by the method, if left empty`
                : needed
                  ? say`needed for a result`
                  : undefined
            }
            onChange={(event) => change({ fixed: { ...mapping.fixed, [key]: event.target.value } })}
            slotProps={{ inputLabel: { shrink: true } }}
          />
        ))}
      </Box>
    </Box>
  );
}

import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { Mapping } from "~/formats/table/mapping";
import { unitsFor } from "~/formats/table/numbers";
import { unitText } from "~/core/text";
import type { OpenedTable, TargetView } from "~/protocol/table-import";
import { colors, fonts } from "../../../theme/theme";
import { useSay } from "../../../words/text";
import type { Table } from "./use-table";

interface ColumnTableProps {
  readonly opened: OpenedTable;
  readonly mapping: Mapping;
  readonly targets: readonly TargetView[];
  readonly change: Table["change"];
}

/** The first rows, and above each column what it stands for. */
export function ColumnTable({ opened, mapping, targets, change }: ColumnTableProps) {
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
  const fits = use !== null && units.includes(use.unit);
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
      {target && units.length > 0 && (
        <TextField
          select
          size="small"
          label={say`in`}
          value={fits ? use.unit : ""}
          error={!fits}
          helperText={fits ? undefined : say`“${use?.unit ?? ""}” does not fit: choose the unit.`}
          onChange={(event) => onUse({ target: target.key, unit: event.target.value })}
        >
          {units.map((unit) => (
            <MenuItem key={unit} value={unit}>
              {say(unitText(unit))}
            </MenuItem>
          ))}
        </TextField>
      )}
    </Box>
  );
}

import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { Fragment } from "react";
import { meterOf } from "~/core/inputs";
import type { CurveStage } from "~/core/method";
import { type SheetStage, withUnit } from "~/core/paper";
import { joined, unitText } from "~/core/text";
import { colors, fonts } from "../../theme/theme";
import { useSay } from "../../words/text";
import { conditionWords } from "../stages/shared/conditions";

/** A line to write on, or around a cell. */
export const line = `1px solid ${colors.lineStrong}`;

/** Something to be written on a line. */
export function Blank({ label, text = "" }: { readonly label: string; readonly text?: string }) {
  return (
    <Box sx={{ display: "flex", flex: "1 1 auto", minWidth: 150, gap: 0.75, alignItems: "baseline" }}>
      <Box component="span" sx={{ whiteSpace: "nowrap" }}>
        {label}
      </Box>
      <Box
        sx={{
          flexGrow: 1,
          minWidth: 70,
          borderBottom: line,
          minHeight: "1.6em",
          fontFamily: fonts.reading,
          whiteSpace: "nowrap",
        }}
      >
        {text}
      </Box>
    </Box>
  );
}

/** One stage of a data sheet: its conditions, and tables to be filled in by hand. */
export function StageOnPaper({ stage, number }: { readonly stage: SheetStage; readonly number: number }) {
  const say = useSay();
  const { title, definition, once, onceWritten, columns } = stage;
  if (once.length + columns.length === 0) return null;
  const conditions = (definition.conditions ?? []).map(conditionWords);
  return (
    <Box component="section" aria-label={title} sx={{ mt: 2, breakInside: "avoid" }}>
      <Typography variant="h3" sx={{ color: colors.ink, fontSize: "1.05em" }}>
        {number}. {title}
      </Typography>
      {conditions.length > 0 && (
        <Box sx={{ fontSize: "0.9em" }}>{say`Conditions: ${joined(conditions, "; ")}`}</Box>
      )}
      {once.length > 0 && (
        <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 3, rowGap: 0.5, mt: 0.75 }}>
          {once.map((column) => (
            <Blank key={column.key} label={say(withUnit(column))} text={onceWritten.get(column.key) ?? ""} />
          ))}
          <Blank label={say`Time`} />
        </Box>
      )}
      {columns.length > 0 && <RowsOnPaper stage={stage} />}
      {definition.kind === "curve" && <PairsOnPaper definition={definition} />}
    </Box>
  );
}

/** Pairs of a curve on paper: so many beside each other, and so many below. */
const [pairsAcross, pairsDown] = [4, 12];

/** Room for the points of one curve, pair by pair; they are pasted when the sheet is entered. */
function PairsOnPaper({ definition }: { readonly definition: CurveStage }) {
  const say = useSay();
  const input = definition.inputs.find((one) => one.is === "curve");
  if (!input) return null;
  const { label, unit } = meterOf(input);
  const across = Array.from({ length: pairsAcross }, (_, i) => i);
  return (
    <Box
      sx={{ overflowX: "auto", mt: 1 }}
      tabIndex={0}
      role="group"
      aria-label={say`${definition.title}, points of one curve`}
    >
      <Box component="table" sx={ruled}>
        <thead>
          <tr>
            {across.map((i) => (
              <Fragment key={i}>
                <th scope="col">{say`Burette, ${unitText("mL")}`}</th>
                <th scope="col">{unit === "" ? say(label) : say`${label}, ${unitText(unit)}`}</th>
              </Fragment>
            ))}
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: pairsDown }, (_, row) => (
            <tr key={row}>
              {across.map((i) => (
                <Fragment key={i}>
                  <td />
                  <td />
                </Fragment>
              ))}
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

function RowsOnPaper({ stage: { title, columns, rows } }: { readonly stage: SheetStage }) {
  const say = useSay();
  return (
    <Box sx={{ overflowX: "auto", mt: 1 }} tabIndex={0} role="group" aria-label={say`${title}, row by row`}>
      <Box component="table" sx={ruled}>
        <thead>
          <tr>
            <th scope="col">{say`Flask`}</th>
            {columns.map((column) => (
              <th key={column.key} scope="col">
                {say(withUnit(column))}
              </th>
            ))}
            <Box component="th" scope="col" sx={{ width: "11%" }}>
              {say`Time`}
            </Box>
            <Box component="th" scope="col" sx={{ width: "16%" }}>
              {say`Remarks`}
            </Box>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.key}>
              <td>{say(row.name)}</td>
              {columns.map(({ key }) => (
                <td key={key}>{row.written.get(key) ?? row.offered.get(key) ?? ""}</td>
              ))}
              <td />
              <td />
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

/** A table with lines all around, to be written in by hand. */
const ruled = {
  width: 1,
  borderCollapse: "collapse",
  "& th, & td": { border: line, px: 0.75, py: 0.25, textAlign: "left" },
  "& th": { fontWeight: 600, fontSize: "0.86em", verticalAlign: "bottom" },
  "& td": { height: 34, fontFamily: fonts.reading },
} as const;

import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { Fragment, useState } from "react";
import { Link } from "react-router";
import { authority } from "~/catalog/parts/safety";
import { meterOf } from "~/core/inputs";
import type { CurveStage, Method } from "~/core/method";
import { dataSheet, type SheetStage, withUnit } from "~/core/paper";
import type { HouseRules } from "~/core/rules";
import type { RunRecord } from "~/core/run";
import { numberIn } from "../../ui/number-in";
import { noPrint, Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { conditionWords } from "../stages/shared/conditions";
import { colors, fonts } from "../../theme/theme";
import { useSay } from "../../words/text";
import { joined, unitText } from "~/core/text";

interface SheetPageProps {
  method: Method;
  rules: HouseRules;
  /** The run that the sheet is for; null for a class that follows the method. */
  record: RunRecord | null;
}

/** A class has no more benches than this. */
const mostBenches = 40;

const line = `1px solid ${colors.lineStrong}`;

/** The data sheet of a run, or of a method for a class, to print: one for each bench, on pages of its own. */
export function SheetPage({ method, rules, record }: SheetPageProps) {
  const say = useSay();
  const [benches, setBenches] = useState("1");
  const count = Math.min(mostBenches, Math.max(1, Math.floor(numberIn(benches) ?? 1)));
  const stages = dataSheet(method, rules, record);
  const back = record ? `/runs/${record.id}` : `/methods/${method.id}`;
  return (
    <Page
      width={980}
      title={
        <Box component="span" sx={noPrint}>
          {say`Data sheet`}
        </Box>
      }
      note={
        <Box component="span" sx={noPrint}>
          {say`For benches without a screen. Enter the readings in the run later, with the times written here.`}
        </Box>
      }
      actions={
        <>
          <Button variant="contained" onClick={() => window.print()}>
            {say`Print`}
          </Button>
          {record && (
            <Button component={Link} to={`${back}/paper`} variant="outlined">
              {say`Enter from paper`}
            </Button>
          )}
          <Button component={Link} to={back} variant="outlined">
            {record ? say`Back to the run` : say`Back to the method`}
          </Button>
        </>
      }
    >
      <TextField
        label={say`Benches`}
        value={benches}
        onChange={(event) => setBenches(event.target.value)}
        helperText={say`A sheet for each, ${mostBenches} at most`}
        sx={{ width: 220, mb: 2, ...noPrint }}
      />
      <Box sx={{ display: "grid", gap: 2 }}>
        {Array.from({ length: count }, (_, i) => (
          <OneSheet
            key={i}
            method={method}
            record={record}
            stages={stages}
            bench={count > 1 ? say`bench ${i + 1}` : (record?.bench ?? "")}
          />
        ))}
      </Box>
    </Page>
  );
}

interface OneSheetProps {
  readonly method: Method;
  readonly record: RunRecord | null;
  readonly stages: readonly SheetStage[];
  readonly bench: string;
}

function OneSheet({ method, record, stages, bench }: OneSheetProps) {
  const say = useSay();
  return (
    <Sheet
      component="section"
      aria-label={bench === "" ? say`Data sheet` : say`Data sheet of ${bench}`}
      sx={{
        "@media print": { border: 0, p: 0, breakAfter: "page", fontSize: "10.5pt" },
        "&:last-of-type": { "@media print": { breakAfter: "auto" } },
      }}
    >
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "baseline", columnGap: 2 }}>
        <Typography variant="h2" sx={{ flexGrow: 1 }}>
          {record?.title ?? method.title}
        </Typography>
        <Typography color="textSecondary">
          {record ? method.title : say`version ${method.version}`}
        </Typography>
      </Box>
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 3, rowGap: 0.5, my: 1 }}>
        <Blank label={say`Sample`} text={record?.sample ?? ""} />
        <Blank label={say`Bench`} text={bench} />
        <Blank label={say`Name`} />
        <Blank label={say`Date`} />
      </Box>
      {stages.map((stage, i) => (
        <StageOnPaper key={stage.key} stage={stage} number={i + 1} />
      ))}
      <Box sx={{ borderTop: line, mt: 2, pt: 1, fontSize: "0.88em" }}>
        <div>
          {say`Record readings in ink, with the time. Cross out mistakes with a single line; never erase.`}
        </div>
        <Box sx={{ mt: 0.5 }}>
          <b>{say`Safety:`}</b>{" "}
          {[...method.hazards.filter((words) => words !== authority), authority].join(" ")}
        </Box>
      </Box>
    </Sheet>
  );
}

/** Something to be written on a line. */
function Blank({ label, text = "" }: { readonly label: string; readonly text?: string }) {
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

function StageOnPaper({ stage, number }: { readonly stage: SheetStage; readonly number: number }) {
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

import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import { authority } from "~/catalog/parts/safety";
import type { Method } from "~/core/method";
import { dataSheet, type SheetStage } from "~/core/paper";
import type { HouseRules } from "~/core/rules";
import type { RunRecord } from "~/core/run";
import { numberIn } from "../../ui/number-in";
import { noPrint, Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";
import { Blank, line, StageOnPaper } from "./stage-on-paper";

interface SheetPageProps {
  method: Method;
  rules: HouseRules;
  /** The run that the sheet is for; null for a class that follows the method. */
  record: RunRecord | null;
}

/** A class has no more benches than this. */
const mostBenches = 40;

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

import "~/core/stages/engines";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import {
  type ConcentrationText,
  concentrationOf,
  concentrationText,
  howWords,
} from "~/protocol/concentration";
import { type SolutionState, type AssignmentView, type Related, type SolutionView } from "~/protocol/shelf";
import { type Working, workingOf } from "~/core/working";
import { prettyFormula } from "~/core/chemistry";
import { makingKey } from "~/core/prepare";
import { evaluateRun } from "~/core/evaluate";
import type { RunRecord } from "~/core/run";
import { colors, fonts } from "../../theme/theme";
import { Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { When } from "../../ui/when";
import { Step } from "../working/step";
import { EditBottle } from "./edit-bottle";
import { useSay } from "../../words/text";
import { unitText } from "~/core/text";

interface BottlePageProps {
  solution: SolutionView;
  assignments: readonly AssignmentView[];
  making: RunRecord | null;
  standsOn: readonly Related[];
  carries: readonly Related[];
}

/** One bottle: its concentration and where that comes from, what it rests on, what depends on it. */
export function BottlePage({ solution, assignments, making, standsOn, carries }: BottlePageProps) {
  const say = useSay();
  const { id, code, name, formula, current, state } = solution;
  const shown = current && concentrationOf(current);
  const evaluation = making && evaluateRun(making);
  const working = making && evaluation && workingOf(making, evaluation, makingKey, null);
  return (
    <Page
      title={name}
      note={
        <>
          <span style={{ fontFamily: fonts.reading }}>{code}</span> {say`· ${prettyFormula(formula)} · made`}{" "}
          <When at={solution.madeAt} /> {say`by ${solution.madeBy || say`nobody named`}`}
        </>
      }
      actions={
        <>
          <Button component={Link} to={`/shelf/labels?ids=${id}`} variant="contained">
            {say`Label`}
          </Button>
          <Button component={Link} to={`/shelf/lineage?of=${id}`} variant="outlined">
            {say`Lineage`}
          </Button>
          <Button component={Link} to="/shelf" variant="outlined">
            {say`Back to the shelf`}
          </Button>
        </>
      }
    >
      <Box
        sx={{
          display: "grid",
          gap: 2,
          alignItems: "start",
          gridTemplateColumns: { xs: "minmax(0,1fr)", md: "minmax(0,1fr) 400px" },
        }}
      >
        <Box sx={{ display: "grid", gap: 2, minWidth: 0 }}>
          <ConcentrationSheet solution={solution} current={current} shown={shown} state={state} />
          {working && <HowMade working={working} />}
          {assignments.length > 1 && <History assignments={assignments} />}
        </Box>
        <Box sx={{ display: "grid", gap: 2 }}>
          <Relatives title={say`Rests on`} none={say`nothing else of the shelf`} lines={standsOn} />
          <Relatives title={say`Depends on it`} none={say`nothing yet`} lines={carries} />
          <EditBottle key={id} solution={solution} />
        </Box>
      </Box>
    </Page>
  );
}

interface ConcentrationSheetProps {
  readonly solution: SolutionView;
  readonly current: AssignmentView | null;
  readonly shown: ConcentrationText | null;
  readonly state: SolutionState;
}

function ConcentrationSheet({ solution, current, shown, state }: ConcentrationSheetProps) {
  const say = useSay();
  return (
    <Sheet component="section" aria-label={say`Concentration`} sx={{ p: 2.5 }}>
      <Typography color="textSecondary">
        {solution.form === "solid" ? say`Purity` : say`Concentration`}
        {current && <>, {say(howWords[current.how])}</>}
      </Typography>
      <Box
        data-testid="concentration"
        sx={{ fontFamily: fonts.reading, fontSize: "2.1rem", lineHeight: 1.2 }}
      >
        {shown ? (
          <>
            {shown.value}{" "}
            <span style={{ fontSize: "1.15rem" }}>
              {shown.plusMinus && `± ${shown.plusMinus} `}
              {say(unitText(shown.unit))}
            </span>
          </>
        ) : (
          say`not known yet`
        )}
      </Box>
      {current && (
        <Typography color="textSecondary">
          {say`${shown?.meaning ? say`± is ${shown.meaning}. ` : ""}Given`} <When at={current.at} as="time" />{" "}
          {say`by ${current.person || say`nobody named`}`}
          {current.runId && (
            <>
              {say`, by the run`}{" "}
              <Link to={`/runs/${current.runId}?stage=${current.stageKey ?? ""}`}>{current.runTitle}</Link>
            </>
          )}
          .
        </Typography>
      )}
      {state !== "in use" && (
        <Typography
          sx={{ mt: 1, fontWeight: 700, color: state === "used up" ? colors.ink : colors.amberDeep }}
        >
          {state === "used up" ? say`It is used up.` : say`Past its date: restandardize before use.`}
        </Typography>
      )}
      {solution.hazards && <Typography sx={{ mt: 1 }}>{say`Hazards: ${solution.hazards}.`}</Typography>}
      {solution.note && <Typography sx={{ mt: 0.5 }}>{solution.note}</Typography>}
    </Sheet>
  );
}

function HowMade({ working }: { readonly working: Working }) {
  const say = useSay();
  return (
    <Sheet component="section" aria-label={say`How it was made`} sx={{ p: 2.5 }}>
      <Typography variant="h2" sx={{ mb: 1.5 }}>
        {say`How it was made`}
      </Typography>
      <Box component="ol" sx={{ listStyle: "none", m: 0, p: 0, display: "grid", gap: 2.25 }}>
        {working.steps.map((step, i) => (
          <Step key={step.id} step={step} number={i + 1} workingHref={() => ""} />
        ))}
      </Box>
    </Sheet>
  );
}

function History({ assignments }: { readonly assignments: readonly AssignmentView[] }) {
  const say = useSay();
  return (
    <Sheet component="section" aria-label={say`History`}>
      <Typography variant="h2">{say`What it was before`}</Typography>
      <Box component="ol" sx={{ listStyle: "none", p: 0, my: 0.5 }}>
        {assignments.map((a) => (
          <Box component="li" key={a.id} sx={{ borderTop: `1px solid ${colors.line}`, py: 0.75 }}>
            <span style={{ fontFamily: fonts.reading }}>{say(concentrationText(a))}</span>,{" "}
            {say(howWords[a.how])}, <When at={a.at} as="time" />
            {a.runId && (
              <>
                , <Link to={`/runs/${a.runId}`}>{a.runTitle}</Link>
              </>
            )}
          </Box>
        ))}
      </Box>
      <Typography variant="body2" color="textSecondary">
        {say`Finished runs keep the concentration they were calculated with.`}
      </Typography>
    </Sheet>
  );
}

interface RelativesProps {
  title: string;
  none: string;
  lines: readonly Related[];
}

function Relatives({ title, none, lines }: RelativesProps) {
  const say = useSay();
  return (
    <Sheet component="section" aria-label={title}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        {title}
      </Typography>
      {lines.length === 0 && <Typography color="textSecondary">{none}</Typography>}
      {lines.map((line) => (
        <Box key={line.id} sx={{ py: 0.5 }}>
          <Link to={line.to}>{line.title}</Link>
          <Box sx={{ fontFamily: fonts.reading, fontSize: "0.95rem" }}>{say(line.fact)}</Box>
        </Box>
      ))}
    </Sheet>
  );
}

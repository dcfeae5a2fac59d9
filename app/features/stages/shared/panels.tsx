import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import { type Shown, plusMinusWords, type TitrationEvaluation } from "~/core/stages";
import type { CombinedResult, Share } from "~/core/judgement";
import { toSignificant, unitOf, withUnit } from "~/core/quantity";
import type { ComputedStage } from "~/core/method";
import { listed } from "~/core/text";
import type { RunRecord } from "~/core/run";
import { cursorTarget } from "../../../entry/cursor";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { BeadRail, type RailBead } from "../../../ui/bead-rail";
import { together, unbroken } from "../../../ui/number-text";
import { Sheet } from "../../../ui/sheet";
import { conditionWords } from "./conditions";
import { Footing, Implausible, WholeNumber } from "./footing";
import { ShelveButton } from "./shelve";

/** Do the trials agree? The beads, the verdict with its reason, and what closes the set. */
export function AgreementPanel({ stage }: { stage: TitrationEvaluation }) {
  const { trials, agreement, verdict } = stage;
  const beads = trials.flatMap((t): RailBead[] => {
    if (t.compared === null || t.missing) return [];
    const role = t.record.struck
      ? "struck"
      : t.record.kind === "rough"
        ? "rough"
        : agreement.members.includes(t.id)
          ? "member"
          : "other";
    return [{ id: t.id, name: t.name, value: t.compared, role }];
  });
  return (
    <Sheet component="section" aria-labelledby="agree-title">
      <Typography id="agree-title" variant="h2" sx={{ mb: 0.5 }}>
        Do they agree?
      </Typography>
      {beads.length > 0 && (
        <>
          <BeadRail
            beads={beads}
            collars={agreement.windows}
            label={agreement.label}
            decimals={agreement.decimals}
          />
          <Typography
            variant="caption"
            color="textSecondary"
            sx={{ display: "block", textAlign: "center", mb: 0.5 }}
          >
            {agreement.label}
          </Typography>
        </>
      )}
      <Typography data-testid="verdict" sx={verdict.state === "impossible" ? { color: colors.brick } : {}}>
        {unbroken(verdict.reason)}
      </Typography>
      {verdict.state !== "agreed" && (
        <Typography data-testid="next-trial" sx={{ fontWeight: 700, mt: 0.5 }}>
          {unbroken(verdict.next)}
        </Typography>
      )}
    </Sheet>
  );
}

interface ResultPanelProps {
  stage: TitrationEvaluation;
  /** True once what is saved closes the set. */
  closed: boolean;
  next: { key: string; title: string } | null;
  /** Flasks that are begun, or stand, and are not titrated yet. */
  left: number;
}

/** The result so far with its ± and its largest share; the way on when the set is closed. */
export function ResultPanel({ stage, closed, next, left }: ResultPanelProps) {
  const { record, locked } = useRunInHand();
  const { shown, combined, shares, definition } = stage;
  const [largest] = shares;
  return (
    <Sheet
      component="section"
      aria-labelledby="result-title"
      sx={closed ? { borderColor: colors.teal, borderWidth: 2 } : {}}
    >
      <Typography id="result-title" variant="h2">
        {definition.result.name}
        {closed ? "" : ", so far"}
      </Typography>
      {shown && combined ? (
        <ResultFacts stage={stage} shown={shown} combined={combined} record={record} largest={largest} />
      ) : (
        <Typography color="textSecondary" sx={{ mt: 0.5 }}>
          {noResultWords(stage)}
        </Typography>
      )}
      <Implausible stage={stage} />
      <Box sx={{ display: "grid", gap: 1, mt: 1.5 }}>
        {closed && left > 0 && !locked && (
          <Typography role="status" sx={{ color: colors.amberDeep, fontWeight: 600 }}>
            {left === 1 ? "One flask is" : `${left} flasks are`} still waiting to be titrated.
          </Typography>
        )}
        {closed && next && (
          <Button
            component={Link}
            to={`?stage=${next.key}`}
            variant={left > 0 ? "outlined" : "contained"}
            size="large"
            preventScrollReset
            {...(left > 0 ? {} : cursorTarget)}
          >
            Go on: {next.title}
          </Button>
        )}
        {shown && (
          <Button component={Link} to={`working?stage=${stage.key}`} relative="path" variant="outlined">
            Show the working
          </Button>
        )}
        {closed && <ShelveButton stage={stage} record={record} />}
      </Box>
    </Sheet>
  );
}

interface ResultFactsProps {
  readonly stage: TitrationEvaluation;
  readonly shown: Shown;
  readonly combined: CombinedResult;
  readonly record: RunRecord;
  readonly largest: Share | undefined;
}

function ResultFacts({ stage, shown, combined, record, largest }: ResultFactsProps) {
  return (
    <>
      <WholeNumber stage={stage} />
      <Box
        data-testid="result"
        sx={{ display: "flex", alignItems: "baseline", columnGap: 1, flexWrap: "wrap", mt: 0.5 }}
      >
        <Box
          component="span"
          sx={{ fontFamily: fonts.reading, fontSize: "1.9rem", fontWeight: 500, lineHeight: 1.15 }}
        >
          {shown.value}
        </Box>
        <Box component="span" sx={{ fontFamily: fonts.reading, fontSize: "1rem" }}>
          {shown.plusMinus === "0" ? "" : `± ${shown.plusMinus}`} {shown.unit}
        </Box>
      </Box>
      <Typography variant="body2" sx={{ mt: 0.5, color: colors.inkSoft }}>
        {combined.count === 1 ? "from one trial" : `mean of ${combined.count}`},{" "}
        {plusMinusWords[record.houseRules.plusMinus]}
        {combined.count > 1 &&
          `; s = ${spreadText(stage)}, ${toSignificant(100 * combined.relativeStandardDeviation, 2)} % of it`}
        .{" "}
        {largest &&
          `Largest contribution to the ±: ${lower(largest.label)} (${Math.round(largest.part * 100)} %)${stage.improvement ? `; ${stage.improvement.remedy}` : ""}.`}
      </Typography>
      {stage.also.map(({ definition: { symbol, name }, shown: other }) => (
        <Typography key={symbol} variant="body2" sx={{ mt: 0.5 }}>
          {name}: <span style={{ fontFamily: fonts.reading }}>{other.text}</span>
          {other.nearestWhole !== undefined && ` (nearest whole number ${other.nearestWhole})`}
        </Typography>
      ))}
      <Footing stage={stage} />
      {stage.acceptance && !stage.verdict.tellsAcceptance && (
        <Typography sx={{ mt: 0.75, fontWeight: 600 }}>{together(stage.acceptance.text)}</Typography>
      )}
    </>
  );
}

/** The standard deviation of the trials' results, in the result's unit. */
function spreadText({ combined, definition }: TitrationEvaluation): string {
  const { unit } = definition.result;
  const s = (combined?.standardDeviation ?? 0) / unitOf(unit).factor;
  return withUnit(toSignificant(s, 2), unit);
}

/** Why there is no result: nothing counts yet, or trials that disagree, with what each of them gives. */
function noResultWords({ problem, agreement, trials, definition }: TitrationEvaluation): string {
  if (problem) return `${problem}.`;
  const { state } = agreement;
  if (state !== "apart" && state !== "rivals") return "Appears with the first complete trial that counts.";
  const each = trials.flatMap((t) => (t.eligible && t.shownResult ? [t.shownResult.value] : []));
  return `None while the trials disagree: they give ${withUnit(listed(each), definition.result.unit)}.`;
}

const lower = (label: string) =>
  /^[A-Z][a-z]/.test(label) ? label.charAt(0).toLowerCase() + label.slice(1) : label;

/** Cautions of the stage: what can hurt, and what about the readings should be known. */
export function CautionPanel({ definition }: { definition: ComputedStage }) {
  return (
    <Sheet
      component="section"
      aria-labelledby="caution-title"
      sx={{ borderLeft: `6px solid ${colors.amber}` }}
    >
      <Typography id="caution-title" variant="h2" sx={{ color: colors.amberDeep, mb: 0.5 }}>
        Safety
      </Typography>
      {definition.cautions.map((caution) => (
        <Typography key={caution} sx={{ mb: 0.5 }}>
          {together(caution)}
        </Typography>
      ))}
      <Box component="details" sx={{ mt: 0.5, "& summary": { cursor: "pointer", fontWeight: 650, py: 0.5 } }}>
        <summary>How it is done</summary>
        <Reagents definition={definition} />
        <Box component="ol" sx={{ pl: 2.5, my: 0.5 }}>
          {definition.steps.map((step) => (
            <li key={step}>{step}</li>
          ))}
          {definition.kind === "titration" && <li>{definition.persistence}</li>}
        </Box>
        <Typography variant="body2" color="textSecondary">
          Follow the safety data sheets, your institution’s rules and local waste law; they come before this
          text.
        </Typography>
      </Box>
    </Sheet>
  );
}

/** What is added, how exactly, and when; and what must hold meanwhile. */
function Reagents({ definition: { reagents = [], conditions = [] } }: { definition: ComputedStage }) {
  if (reagents.length + conditions.length === 0) return null;
  return (
    <Box component="ul" aria-label="Reagents and conditions" sx={{ pl: 2.5, my: 0.5 }}>
      {reagents.map(({ name, amount, exact, when }) => (
        <li key={`${name} ${when}`}>
          {name}, {amount} ({exact ? "exact" : "about"}), {when}
        </li>
      ))}
      {conditions.map((condition) => (
        <li key={condition.what}>{conditionWords(condition)}</li>
      ))}
    </Box>
  );
}

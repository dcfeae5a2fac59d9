import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link, useNavigate } from "react-router";
import { type Shown, plusMinusWords, type TitrationEvaluation } from "~/core/stages";
import type { CombinedResult, Share } from "~/core/judgement";
import { toSignificant, unitOf, withUnit, printedUnit } from "~/core/quantity";
import type { ComputedStage } from "~/core/method";
import { listed, msg, type Phrase, unitText, uncapitalized, joined } from "~/core/text";
import type { RunRecord } from "~/core/run";
import { cursorTarget, useCursor } from "../../../entry/cursor";
import { isTaken } from "../../../live/post";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { BeadRail, type RailBead } from "../../../ui/bead-rail";
import { together, unbroken } from "../../../ui/number-text";
import { Sheet } from "../../../ui/sheet";
import { conditionWords } from "./conditions";
import { Footing, Implausible, WholeNumber } from "./footing";
import { ShelveButton } from "./shelve";
import { useSay } from "../../../words/text";

/** Do the trials agree? The beads, the verdict with its reason, and what closes the set. */
export function AgreementPanel({ stage }: { stage: TitrationEvaluation }) {
  const say = useSay();
  const { trials, agreement, verdict } = stage;
  const off = madeAndOff(stage);
  const beads = trials.flatMap((t): RailBead[] => {
    if (t.compared === null || t.missing) return [];
    const role = t.record.struck
      ? "struck"
      : t.record.kind === "rough"
        ? "rough"
        : agreement.members.includes(t.id)
          ? "member"
          : "other";
    return [{ id: t.id, name: say(t.name), value: t.compared, role }];
  });
  return (
    <Sheet component="section" aria-labelledby="agree-title">
      <Typography id="agree-title" variant="h2" sx={{ mb: 0.5 }}>
        {say`Do they agree?`}
      </Typography>
      {beads.length > 0 && (
        <>
          <BeadRail
            beads={beads}
            collars={agreement.windows}
            label={say(agreement.label)}
            decimals={agreement.decimals}
          />
          <Typography
            variant="caption"
            color="textSecondary"
            sx={{ display: "block", textAlign: "center", mb: 0.5 }}
          >
            {say(agreement.label)}
          </Typography>
        </>
      )}
      <Typography data-testid="verdict" sx={verdict.state === "impossible" ? { color: colors.brick } : {}}>
        {unbroken(say(verdict.reason))}
      </Typography>
      {verdict.state !== "agreed" && (
        <Typography data-testid="next-trial" sx={{ fontWeight: 700, mt: 0.5 }}>
          {unbroken(say(verdict.next))}
        </Typography>
      )}
      {off && <WhenOff {...off} />}
    </Sheet>
  );
}

/** The stage that made what is titrated, where its result is off and something is to be done; null where nothing is. */
function madeAndOff({ acceptance, definition }: TitrationEvaluation) {
  const decision = acceptance?.against === "value" ? acceptance.decision : null;
  const { expected } = definition;
  return decision === null || decision === "accept" || !expected || !("stage" in expected)
    ? null
    : { decision, made: expected.stage };
}

interface WhenOffProps {
  readonly decision: "titrate again" | "make anew";
  readonly made: string;
}

/** What to do with a dilution that is off: titrate again what was kept of it, or make it anew. */
function WhenOff({ decision, made }: WhenOffProps) {
  const say = useSay();
  const { send, locked } = useRunInHand();
  const navigate = useNavigate();
  const toNext = useCursor();
  if (locked) return null;
  const anew = () =>
    void send({ intent: "make-anew", stageKey: made }).then(
      (answer) => isTaken(answer) && navigate(`?stage=${made}`, { preventScrollReset: true }),
    );
  return (
    <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", mt: 1 }}>
      <Button variant={decision === "titrate again" ? "contained" : "outlined"} onClick={toNext}>
        {say`Titrate what is kept`}
      </Button>
      <Button variant={decision === "make anew" ? "contained" : "outlined"} onClick={anew}>
        {say`Make it anew`}
      </Button>
    </Box>
  );
}

interface ResultPanelProps {
  stage: TitrationEvaluation;
  /** True once what is saved closes the set. */
  closed: boolean;
  next: { key: string; title: Phrase } | null;
  /** Flasks that are begun, or stand, and are not titrated yet. */
  left: number;
}

/** The result so far with its ± and the largest contribution to it; the next step once the set is closed. */
export function ResultPanel({ stage, closed, next, left }: ResultPanelProps) {
  const say = useSay();
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
        {closed ? "" : say`, so far`}
      </Typography>
      {shown && combined ? (
        <ResultFacts stage={stage} shown={shown} combined={combined} record={record} largest={largest} />
      ) : (
        <Typography color="textSecondary" sx={{ mt: 0.5 }}>
          {say(noResultWords(stage))}
        </Typography>
      )}
      <Implausible stage={stage} />
      <Box sx={{ display: "grid", gap: 1, mt: 1.5 }}>
        {closed && left > 0 && !locked && (
          <Typography role="status" sx={{ color: colors.amberDeep, fontWeight: 600 }}>
            {say`${left === 1 ? say`One flask is` : say`${left} flasks are`} still waiting to be titrated.`}
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
            {say`Go on: ${next.title}`}
          </Button>
        )}
        {shown && (
          <Button component={Link} to={`working?stage=${stage.key}`} relative="path" variant="outlined">
            {say`Show the working`}
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
  const say = useSay();
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
          {shown.plusMinus === "0" ? "" : `± ${shown.plusMinus}`} {say(unitText(shown.unit))}
        </Box>
      </Box>
      <Typography variant="body2" sx={{ mt: 0.5, color: colors.inkSoft }}>
        {say`${combined.count === 1 ? say`from one trial` : say`mean of ${combined.count}`}, ${plusMinusWords[record.houseRules.plusMinus]}`}
        {combined.count > 1 &&
          say`; s = ${spreadText(stage)}, ${toSignificant(100 * combined.relativeStandardDeviation, 2)} % of it`}
        .{" "}
        {largest &&
          say`Largest contribution to the ±: ${uncapitalized(largest.label)} (${Math.round(largest.part * 100)} %)${stage.improvement ? say`; ${stage.improvement.remedy}` : ""}.`}
      </Typography>
      {stage.also.map(({ definition: { symbol, name }, shown: other }) => (
        <Typography key={symbol} variant="body2" sx={{ mt: 0.5 }}>
          {say(name)}: <span style={{ fontFamily: fonts.reading }}>{say(other.text)}</span>
          {other.nearestWhole !== undefined && say` (nearest whole number ${other.nearestWhole})`}
        </Typography>
      ))}
      <Footing stage={stage} />
      {stage.acceptance && !stage.verdict.tellsAcceptance && (
        <Typography sx={{ mt: 0.75, fontWeight: 600 }}>{together(say(stage.acceptance.text))}</Typography>
      )}
    </>
  );
}

/** The standard deviation of the trials' results, in the result's unit. */
function spreadText({ combined, definition }: TitrationEvaluation): Phrase {
  const { unit } = definition.result;
  const s = (combined?.standardDeviation ?? 0) / unitOf(unit).factor;
  return withUnit(toSignificant(s, 2), unit);
}

/** Why there is no result: nothing counts yet, or trials that disagree, with what each of them gives. */
function noResultWords({ problem, agreement, trials, definition }: TitrationEvaluation): Phrase {
  if (problem) return msg`${problem}.`;
  const { state } = agreement;
  if (state !== "apart" && state !== "rivals") return msg`Appears with the first complete trial that counts.`;
  const each = trials.flatMap((t) => (t.eligible && t.shownResult ? [t.shownResult.value] : []));
  return msg`None while the trials disagree: they give ${joined([listed(each), unitText(printedUnit(definition.result.unit))], " ")}.`;
}

/** Cautions of the stage: its hazards, and what should be known about the readings. */
export function CautionPanel({ definition }: { definition: ComputedStage }) {
  const say = useSay();
  return (
    <Sheet
      component="section"
      aria-labelledby="caution-title"
      sx={{ borderLeft: `6px solid ${colors.amber}` }}
    >
      <Typography id="caution-title" variant="h2" sx={{ color: colors.amberDeep, mb: 0.5 }}>
        {say`Safety`}
      </Typography>
      {definition.cautions.map((caution) => (
        <Typography key={caution} sx={{ mb: 0.5 }}>
          {together(caution)}
        </Typography>
      ))}
      <Box component="details" sx={{ mt: 0.5, "& summary": { cursor: "pointer", fontWeight: 650, py: 0.5 } }}>
        <summary>{say`How it is done`}</summary>
        <Reagents definition={definition} />
        <Box component="ol" sx={{ pl: 2.5, my: 0.5 }}>
          {definition.steps.map((step) => (
            <li key={step}>{step}</li>
          ))}
          {definition.kind === "titration" && <li>{definition.persistence}</li>}
        </Box>
        <Typography variant="body2" color="textSecondary">
          {say`Follow the safety data sheets, your institution’s rules and local waste law; they come before this text.`}
        </Typography>
      </Box>
    </Sheet>
  );
}

/** What is added, how exactly, and when; and what must hold meanwhile. */
function Reagents({ definition: { reagents = [], conditions = [] } }: { definition: ComputedStage }) {
  const say = useSay();
  if (reagents.length + conditions.length === 0) return null;
  return (
    <Box component="ul" aria-label={say`Reagents and conditions`} sx={{ pl: 2.5, my: 0.5 }}>
      {reagents.map(({ name, amount, exact, when }) => (
        <li key={`${name} ${when}`}>
          {name}, {amount} ({exact ? say`exact` : say`about`}), {when}
        </li>
      ))}
      {conditions.map((condition) => (
        <li key={condition.what}>{say(conditionWords(condition))}</li>
      ))}
    </Box>
  );
}

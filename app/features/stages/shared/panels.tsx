import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import { type Shown, plusMinusWords, type TitrationEvaluation } from "~/core/stages";
import type { CombinedResult, Share } from "~/core/judgement";
import { toSignificant, unitOf, withUnit, printedUnit } from "~/core/quantity";
import { listed, msg, type Phrase, unitText, uncapitalized, joined } from "~/core/text";
import type { RunRecord } from "~/core/run";
import { cursorTarget } from "../../../entry/cursor";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { together, unbroken } from "../../../ui/number-text";
import { Sheet } from "../../../ui/sheet";
import { AgreementRail } from "./agreement-rail";
import { Footing, Implausible, WholeNumber } from "./footing";
import { ShelveButton } from "./shelve";
import { madeAndOff, WhenOff } from "./when-off";
import { useSay } from "../../../words/text";

/** Do the trials agree? The beads, the verdict with its reason, and what closes the set. */
export function AgreementPanel({ stage }: { stage: TitrationEvaluation }) {
  const say = useSay();
  const { verdict } = stage;
  const off = madeAndOff(stage);
  return (
    <Sheet component="section" aria-labelledby="agree-title">
      <Typography id="agree-title" variant="h2" sx={{ mb: 0.5 }}>
        {say`Do they agree?`}
      </Typography>
      <AgreementRail stage={stage} />
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

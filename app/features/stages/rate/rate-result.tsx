import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { toSignificant } from "~/core/quantity";
import { plusMinusWords, type RateEvaluation, type RunEvaluation } from "~/core/stages";
import { sentence, together } from "../../../ui/number-text";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { Sheet } from "../../../ui/sheet";
import { Accepted, Footing, Implausible } from "../shared/footing";
import { WayOn } from "../photometer/way-on";
import { useSay } from "../../../words/text";

interface RateResultProps {
  stage: RateEvaluation;
  evaluation: RunEvaluation;
}

/** The rate constant over all kinetic runs, the order in the excess reagent, and the next step. */
export function RateResult({ stage, evaluation }: RateResultProps) {
  const say = useSay();
  const run = useRunInHand();
  const { shown, combined, dependence, definition, problem } = stage;
  return (
    <Sheet
      component="section"
      aria-label={say`Result`}
      sx={stage.done ? { borderColor: colors.teal, borderWidth: 2 } : {}}
    >
      <Typography data-testid="next-reading" sx={{ fontWeight: 700, color: colors.tealDeep, mb: 0.5 }}>
        {together(sentence(say(stage.next)))}
      </Typography>
      <Typography color="textSecondary">{definition.result.name}</Typography>
      <Box data-testid="result" sx={{ fontFamily: fonts.reading, fontSize: "1.6rem", lineHeight: 1.25 }}>
        {say(shown?.text ?? "–")}
      </Box>
      {shown && combined && (
        <Typography variant="body2" color="textSecondary">
          {say`${combined.count === 1 ? say`from one kinetic run` : say`mean of ${combined.count} kinetic runs`}, ± is ${plusMinusWords[run.record.houseRules.plusMinus]}.`}
        </Typography>
      )}
      {stage.also.map(({ definition: { symbol, name }, shown: other }) => (
        <Typography key={symbol}>
          {say(name)}: <span style={{ fontFamily: fonts.reading }}>{say(other.text)}</span>
        </Typography>
      ))}
      {combined && combined.count > 1 && (
        <Typography variant="body2" color="textSecondary">
          {say`s = ${toSignificant(100 * combined.relativeStandardDeviation, 2)} % of the mean.`}
        </Typography>
      )}
      <Footing stage={stage} />
      <Accepted stage={stage} />
      <Implausible stage={stage} />
      {problem && <Typography sx={{ color: colors.brick }}>{say(problem)}.</Typography>}
      {dependence && (
        <Typography data-testid="dependence" sx={{ mt: 1 }}>
          {say(dependence.ok ? dependence.value.text : say`${dependence.problem.message}.`)}
        </Typography>
      )}
      {shown && <WayOn stage={stage} evaluation={evaluation} />}
    </Sheet>
  );
}

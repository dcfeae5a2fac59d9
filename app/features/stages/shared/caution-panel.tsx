import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ComputedStage } from "~/core/method";
import { stepsOf, takenIn, wayOf } from "~/core/inputs";
import { dilutionOf, isAdapted, type RunRecord } from "~/core/run";
import { useRunInHand } from "../../../entry/run-context";
import { colors } from "../../../theme/theme";
import { uncapitalized } from "~/core/text";
import { together } from "../../../ui/number-text";
import { Sheet } from "../../../ui/sheet";
import { useSay } from "../../../words/text";
import { conditionWords } from "./conditions";

/** Cautions of the stage: its hazards, and what should be known about the readings. */
export function CautionPanel({ definition }: { definition: ComputedStage }) {
  const say = useSay();
  const { record } = useRunInHand();
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
          {isAdapted(record, definition.key, "undiluted") && !tellsDilution(record, definition.key) && (
            <li>{say`Not diluted in this run: take the sample as it is, and leave out the dilution.`}</li>
          )}
          {measuredOtherwise(record, definition).map(({ symbol, label, way }) => (
            <li key={symbol}>{say`In this run, whatever the steps say: ${uncapitalized(label)}, ${way}.`}</li>
          ))}
          {stepsOf(definition.steps, definition.inputs).map((step, i) => (
            <li key={i}>{say(step)}</li>
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

/** Whether the steps of the method say by themselves what is diluted, so that nothing of it is left in them where nothing is. */
const tellsDilution = ({ method }: RunRecord, key: string): boolean => {
  const own = method.stages.find((stage) => stage.key === key);
  const dilution = own && dilutionOf(own);
  return own !== undefined && own.steps.some((step) => takenIn(step) === dilution?.taken.symbol);
};

/** What is measured in another way than the method says, as it is chosen in the run, and that the steps do not tell by themselves. */
const measuredOtherwise = ({ choices = [] }: RunRecord, { key, steps }: ComputedStage) =>
  choices.flatMap((choice) => {
    if (choice.stageKey !== key || !("input" in choice)) return [];
    const { symbol, label } = choice.input;
    if (steps.some((step) => takenIn(step) === symbol)) return [];
    const way = wayOf(choice.input);
    return way === null ? [] : [{ symbol, label, way }];
  });

/** What is added, how exactly, and when; and what must hold meanwhile. */
function Reagents({ definition: { reagents = [], conditions = [] } }: { definition: ComputedStage }) {
  const say = useSay();
  if (reagents.length + conditions.length === 0) return null;
  return (
    <Box component="ul" aria-label={say`Reagents and conditions`} sx={{ pl: 2.5, my: 0.5 }}>
      {reagents.map(({ name, amount, exact, when }) => (
        <li key={`${name} ${when}`}>
          {name}, {say({ message: amount })} ({exact ? say`exact` : say`about`}), {when}
        </li>
      ))}
      {conditions.map((condition) => (
        <li key={condition.what}>{say(conditionWords(condition))}</li>
      ))}
    </Box>
  );
}

import { trialWords } from "~/core/record";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { toSignificant, withUnit } from "~/core/quantity";
import type { SampleEvaluation } from "~/core/stages";
import { capitalized } from "~/core/text";
import { sentence, together } from "../../../ui/number-text";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { ReadingChip, type ReadingTarget } from "../photometer/reading-dialog";
import { useSay } from "../../../words/text";

interface FlaskProps {
  sample: SampleEvaluation;
  unit: string;
  symbol: string;
  onOpen: (target: ReadingTarget) => void;
  onTakeUp: () => void;
  onStrike: () => void;
}

/** One flask of the unknown: its readings, what was read off, and what to know about it. */
export function SampleFlask({ sample, unit, symbol, onOpen, onTakeUp, onStrike }: FlaskProps) {
  const say = useSay();
  const { locked } = useRunInHand();
  const { readings, off, record, shownResult, cautions, problem } = sample;
  const words = trialWords(sample.record, "flask");
  const name = capitalized(words);
  const taken = sample.fields
    .filter(({ field, present }) => present && !field.many)
    .map(({ field, present }) => say(withUnit(present?.text ?? "", field.unit)))
    .join(", ");
  return (
    <Box sx={{ borderTop: `1px solid ${colors.line}`, pt: 0.75, "&:first-of-type": { borderTop: 0, pt: 0 } }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, flexWrap: "wrap" }}>
        <Box sx={{ fontWeight: 700, textDecoration: record.struck ? "line-through" : "none" }}>
          {say(name)}
        </Box>
        <Box sx={{ color: colors.inkSoft, flexGrow: 1 }}>{taken}</Box>
        {!locked && (
          <>
            <Button size="small" onClick={onTakeUp} sx={{ minWidth: 0 }}>
              {say`read again`}
            </Button>
            <Button
              size="small"
              onClick={onStrike}
              sx={{ minWidth: 0 }}
              aria-label={record.struck ? say`Restore ${words}` : say`Strike out ${words}`}
            >
              {record.struck ? say`restore` : say`strike`}
            </Button>
          </>
        )}
      </Box>
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 0.5 }}>
        {readings.map((reading) => (
          <ReadingChip
            key={reading.id}
            reading={reading}
            off={false}
            onOpen={() => onOpen({ reading, flask: say(words), trialId: sample.id, symbol })}
          />
        ))}
        {off && (
          <Box sx={{ fontFamily: fonts.reading, color: colors.pinkDeep, fontWeight: 600 }}>
            → {say(withUnit(toSignificant(off.x, 4), unit || "1"))}
          </Box>
        )}
        {shownResult && <Box sx={{ color: colors.inkSoft }}>{say`so ${shownResult.text}`}</Box>}
      </Box>
      {record.struck && (
        <Box sx={{ color: colors.amberDeep, fontSize: "0.9rem" }}>
          {say`struck out: ${record.struck.reason}`}
        </Box>
      )}
      {problem && <Box sx={{ color: colors.brick }}>{together(sentence(say(problem)))}</Box>}
      {!record.struck &&
        cautions.map(({ message }) => (
          <Alert key={say(message)} severity="warning" sx={{ py: 0, mt: 0.5 }}>
            {together(sentence(say(message)))}
          </Alert>
        ))}
    </Box>
  );
}

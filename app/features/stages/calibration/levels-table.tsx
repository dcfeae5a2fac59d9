import { withUnit } from "~/core/quantity";
import Box from "@mui/material/Box";
import { type CalibrationEvaluation, type LevelEvaluation, seriesWords } from "~/core/stages";
import type { ReadingView } from "~/core/record";
import { useRunInHand } from "../../../entry/run-context";
import { colors } from "../../../theme/theme";
import { type ReadingTarget } from "../photometer/reading-dialog";
import { LevelRow, BlankRow, AheadRow, TableHead, TakeUp, Chips } from "./level-rows";
import { useSay } from "../../../words/text";
import { type Phrase, joined } from "~/core/text";

interface LevelsTableProps {
  stage: CalibrationEvaluation;
  /** Id of the flask in hand; "blank" for the blank. */
  inHand: string;
  symbols: { readonly reading: string; readonly blank: string | null };
  onTakeUp: (which: string) => void;
  onOpen: (target: ReadingTarget) => void;
  onStrike: (level: LevelEvaluation) => void;
  onRestore: (level: LevelEvaluation) => void;
}

/** What was typed for a flask, with its unit. */
export function takenWords(level: LevelEvaluation): Phrase {
  return joined(
    level.fields
      .filter(({ field, present }) => present && !field.many && field.kind !== "absorbance.again")
      .map(({ field, present }) => withUnit(present?.text ?? "", field.unit)),
    ", ",
  );
}

/** Every flask with its readings, from dilute to strong; each reading opens to be corrected or struck out. */
export function LevelsTable(props: LevelsTableProps) {
  const say = useSay();
  const { locked } = useRunInHand();
  const { stage, inHand, symbols, onTakeUp, onOpen, onStrike, onRestore } = props;
  const { levels, blanks, ahead, line, definition } = stage;
  const off = new Set(line?.points.filter((p) => p.off).map((p) => p.readingId));
  const unit = definition.axis.unit === "1" ? "" : definition.axis.unit;
  const ownAxis = levels.some((l) => l.fields.some(({ field }) => field.symbol === definition.axis.symbol));
  const chips = (readings: readonly ReadingView[], flask: string, trialId: string | null, symbol: string) => (
    <Chips readings={readings} off={off} onOpen={onOpen} flask={flask} trialId={trialId} symbol={symbol} />
  );
  const takeUp = (which: string, words: string) =>
    locked ? words : <TakeUp onTakeUp={onTakeUp} which={which} inHand={inHand} words={words} />;
  return (
    <Box sx={{ overflowX: "auto" }} tabIndex={0} role="group" aria-label={say`Standards and their readings`}>
      <Box
        component="table"
        sx={{
          width: 1,
          borderCollapse: "collapse",
          "& th": { textAlign: "left", fontSize: "0.85rem", color: colors.inkSoft, px: 0.75, pb: 0.5 },
        }}
      >
        <TableHead ownAxis={ownAxis} unit={unit} />
        <tbody>
          {symbols.blank !== null && (
            <BlankRow
              takeUp={takeUp("blank", say`blank`)}
              chips={chips(blanks, say`the blank`, null, symbols.blank)}
              ownAxis={ownAxis}
            />
          )}
          {levels.map((level) => (
            <LevelRow
              key={level.id}
              level={level}
              takeUp={takeUp(level.id, say(takenWords(level) || level.name))}
              chips={chips(level.readings, say(level.name), level.id, symbols.reading)}
              ownAxis={ownAxis}
              onRestore={onRestore}
              onStrike={onStrike}
            />
          ))}
          {ahead.map((value) => (
            <AheadRow
              key={value}
              takeUp={takeUp(`ahead:${value}`, say(seriesWords(definition, value)))}
              ownAxis={ownAxis}
            />
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { toDecimals, toSignificant } from "~/core/quantity";
import { type CalibrationEvaluation, type LevelEvaluation, seriesWords } from "~/core/stages";
import type { ReadingView } from "~/core/record";
import { colors, fonts } from "../../../theme/theme";
import { ReadingChip, type ReadingTarget } from "../photometer/reading-dialog";

interface LevelsTableProps {
  stage: CalibrationEvaluation;
  /** Id of the flask in hand; "blank" for the blank. */
  inHand: string;
  symbols: { readonly reading: string; readonly blank: string | null };
  locked: boolean;
  onTakeUp: (which: string) => void;
  onOpen: (target: ReadingTarget) => void;
  onStrike: (level: LevelEvaluation) => void;
  onRestore: (level: LevelEvaluation) => void;
}

const cell = { py: 0.6, px: 0.75, verticalAlign: "top", borderTop: `1px solid ${colors.line}` } as const;

/** A column that a phone does without. */
const onWide = { display: { xs: "none", sm: "table-cell" } } as const;

/** What was typed for a flask, with its unit. */
export function takenWords(level: LevelEvaluation): string {
  return level.fields
    .filter(({ field, present }) => present && !field.many && field.kind !== "absorbance.again")
    .map(({ field, present }) => `${present?.text ?? ""}${field.unit === "" ? "" : ` ${field.unit}`}`)
    .join(", ");
}

/** Every flask with its readings, from dilute to strong; each reading opens to be corrected or struck out. */
export function LevelsTable(props: LevelsTableProps) {
  const { stage, inHand, symbols, locked, onTakeUp, onOpen, onStrike, onRestore } = props;
  const { levels, blanks, ahead, line, definition } = stage;
  const off = new Set(line?.points.filter((p) => p.off).map((p) => p.readingId));
  const unit = definition.axis.unit === "1" ? "" : definition.axis.unit;
  const ownAxis = levels.some((l) => l.fields.some(({ field }) => field.symbol === definition.axis.symbol));
  const chips = (readings: readonly ReadingView[], flask: string, trialId: string | null, symbol: string) => (
    <Box sx={{ display: "flex", flexWrap: "wrap" }}>
      {readings.map((reading) => (
        <ReadingChip
          key={reading.id}
          reading={reading}
          off={off.has(reading.id)}
          locked={locked}
          onOpen={() => onOpen({ reading, flask, trialId, symbol })}
        />
      ))}
    </Box>
  );
  const takeUp = (which: string, words: string) =>
    locked ? (
      words
    ) : (
      <Button
        size="small"
        onClick={() => onTakeUp(which)}
        aria-pressed={inHand === which}
        sx={{
          minWidth: 0,
          px: 0.75,
          textAlign: "left",
          fontFamily: fonts.reading,
          fontWeight: inHand === which ? 700 : 500,
          whiteSpace: "nowrap",
        }}
      >
        {inHand === which ? "▸ " : ""}
        {words}
      </Button>
    );
  return (
    <Box sx={{ overflowX: "auto" }} tabIndex={0} role="group" aria-label="Standards and their readings">
      <Box
        component="table"
        sx={{
          width: 1,
          borderCollapse: "collapse",
          "& th": { textAlign: "left", fontSize: "0.85rem", color: colors.inkSoft, px: 0.75, pb: 0.5 },
        }}
      >
        <thead>
          <tr>
            <th scope="col">Flask</th>
            {!ownAxis && (
              <Box component="th" scope="col" sx={onWide}>
                {unit || "amount"}
              </Box>
            )}
            <th scope="col">Readings</th>
            <th scope="col">Mean</th>
          </tr>
        </thead>
        <tbody>
          {symbols.blank !== null && (
            <tr>
              <Box component="td" sx={cell}>
                {takeUp("blank", "blank")}
              </Box>
              {!ownAxis && <Box component="td" sx={{ ...cell, ...onWide }} />}
              <Box component="td" sx={cell}>
                {chips(blanks, "the blank", null, symbols.blank)}
              </Box>
              <Box component="td" sx={cell} />
            </tr>
          )}
          {levels.map((level) => {
            const words = takenWords(level) || level.name;
            const struck = level.record.struck;
            return (
              <Box component="tr" key={level.id} sx={{ opacity: level.leftOut ? 0.8 : 1 }}>
                <Box component="td" sx={cell}>
                  {takeUp(level.id, words)}
                  {level.record.label && (
                    <Box sx={{ fontSize: "0.85rem", px: 0.75 }}>{level.record.label}</Box>
                  )}
                  {level.leftOut && (
                    <Box sx={{ fontSize: "0.82rem", color: colors.amberDeep, px: 0.75 }}>{level.leftOut}</Box>
                  )}
                </Box>
                {!ownAxis && (
                  <Box component="td" sx={{ ...cell, ...onWide, fontFamily: fonts.reading, pt: 1.1 }}>
                    {level.x === null ? "–" : toSignificant(level.x, 4)}
                  </Box>
                )}
                <Box component="td" sx={cell}>
                  {chips(level.readings, level.name, level.id, symbols.reading)}
                  {level.again !== null && (
                    <Box sx={{ fontSize: "0.85rem", color: colors.inkSoft, px: 0.6 }}>
                      once more: <span style={{ fontFamily: fonts.reading }}>{level.again.toFixed(3)}</span>
                    </Box>
                  )}
                </Box>
                <Box
                  component="td"
                  sx={{ ...cell, fontFamily: fonts.reading, pt: 1.1, whiteSpace: "nowrap" }}
                >
                  {level.mean === null ? "" : toDecimals(level.mean, level.readings.length > 1 ? 4 : 3)}
                  {!locked && level.readings.length > 0 && (
                    <Button
                      size="small"
                      sx={{ minWidth: 0, px: 0.5, ml: 0.5, fontSize: "0.82rem" }}
                      onClick={() => (struck ? onRestore(level) : onStrike(level))}
                      aria-label={`${struck ? "Restore" : "Strike out"} ${level.name}, all its readings`}
                    >
                      {struck ? "restore" : "strike"}
                    </Button>
                  )}
                </Box>
              </Box>
            );
          })}
          {ahead.map((value) => (
            <tr key={value}>
              <Box component="td" sx={{ ...cell, color: colors.inkSoft }}>
                {takeUp(`ahead:${value}`, seriesWords(definition, value))}
              </Box>
              {!ownAxis && <Box component="td" sx={{ ...cell, ...onWide }} />}
              <Box component="td" sx={{ ...cell, color: colors.inkSoft, pt: 1.1 }}>
                not read yet
              </Box>
              <Box component="td" sx={cell} />
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

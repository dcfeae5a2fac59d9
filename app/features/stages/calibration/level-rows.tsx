import type { ReactNode } from "react";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { toDecimals, toSignificant } from "~/core/quantity";
import { type LevelEvaluation } from "~/core/stages";
import type { ReadingView } from "~/core/record";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { ReadingChip, type ReadingTarget } from "../photometer/reading-dialog";
import { useSay } from "../../../words/text";
import { unitText } from "~/core/text";

const cell = { py: 0.6, px: 0.75, verticalAlign: "top", borderTop: `1px solid ${colors.line}` } as const;

/** A column that a phone does without. */
const onWide = { display: { xs: "none", sm: "table-cell" } } as const;

interface LevelRowProps {
  readonly level: LevelEvaluation;
  readonly takeUp: ReactNode;
  readonly chips: ReactNode;
  readonly ownAxis: boolean;
  readonly onRestore: (level: LevelEvaluation) => void;
  readonly onStrike: (level: LevelEvaluation) => void;
}

export function LevelRow({ level, takeUp, chips, ownAxis, onRestore, onStrike }: LevelRowProps) {
  const say = useSay();
  const { locked } = useRunInHand();
  const { struck } = level.record;
  return (
    <Box component="tr" sx={{ opacity: level.leftOut ? 0.8 : 1 }}>
      <Box component="td" sx={cell}>
        {takeUp}
        {level.record.label && <Box sx={{ fontSize: "0.85rem", px: 0.75 }}>{level.record.label}</Box>}
        {level.leftOut && (
          <Box sx={{ fontSize: "0.82rem", color: colors.amberDeep, px: 0.75 }}>{say(level.leftOut)}</Box>
        )}
      </Box>
      {!ownAxis && (
        <Box component="td" sx={{ ...cell, ...onWide, fontFamily: fonts.reading, pt: 1.1 }}>
          {level.x === null ? "–" : toSignificant(level.x, 4)}
        </Box>
      )}
      <Box component="td" sx={cell}>
        {chips}
        {level.again !== null && (
          <Box sx={{ fontSize: "0.85rem", color: colors.inkSoft, px: 0.6 }}>
            {say`recheck:`} <span style={{ fontFamily: fonts.reading }}>{level.again.toFixed(3)}</span>
          </Box>
        )}
      </Box>
      <Box component="td" sx={{ ...cell, fontFamily: fonts.reading, pt: 1.1, whiteSpace: "nowrap" }}>
        {level.mean === null ? "" : toDecimals(level.mean, level.readings.length > 1 ? 4 : 3)}
        {!locked && level.readings.length > 0 && (
          <Button
            size="small"
            sx={{ minWidth: 0, px: 0.5, ml: 0.5, fontSize: "0.82rem" }}
            onClick={() => (struck ? onRestore(level) : onStrike(level))}
            aria-label={say`${struck ? say`Restore` : say`Strike out`} ${level.name}, all its readings`}
          >
            {struck ? say`restore` : say`strike`}
          </Button>
        )}
      </Box>
    </Box>
  );
}

interface BlankRowProps {
  readonly takeUp: ReactNode;
  readonly chips: ReactNode;
  readonly ownAxis: boolean;
}

export function BlankRow({ takeUp, chips, ownAxis }: BlankRowProps) {
  return (
    <tr>
      <Box component="td" sx={cell}>
        {takeUp}
      </Box>
      {!ownAxis && <Box component="td" sx={{ ...cell, ...onWide }} />}
      <Box component="td" sx={cell}>
        {chips}
      </Box>
      <Box component="td" sx={cell} />
    </tr>
  );
}

export function AheadRow({ takeUp, ownAxis }: { takeUp: ReactNode; ownAxis: boolean }) {
  const say = useSay();
  return (
    <tr>
      <Box component="td" sx={{ ...cell, color: colors.inkSoft }}>
        {takeUp}
      </Box>
      {!ownAxis && <Box component="td" sx={{ ...cell, ...onWide }} />}
      <Box component="td" sx={{ ...cell, color: colors.inkSoft, pt: 1.1 }}>
        {say`not read yet`}
      </Box>
      <Box component="td" sx={cell} />
    </tr>
  );
}

export function TableHead({ ownAxis, unit }: { readonly ownAxis: boolean; readonly unit: string }) {
  const say = useSay();
  return (
    <thead>
      <tr>
        <th scope="col">{say`Flask`}</th>
        {!ownAxis && (
          <Box component="th" scope="col" sx={onWide}>
            {unit === "" ? say`amount` : say(unitText(unit))}
          </Box>
        )}
        <th scope="col">{say`Readings`}</th>
        <th scope="col">{say`Mean`}</th>
      </tr>
    </thead>
  );
}

interface TakeUpProps {
  readonly onTakeUp: (which: string) => void;
  readonly which: string;
  readonly inHand: string;
  readonly words: string;
}

export function TakeUp({ onTakeUp, which, inHand, words }: TakeUpProps) {
  return (
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
}

interface ChipsProps {
  readonly readings: readonly ReadingView[];
  readonly off: Set<string>;
  readonly onOpen: (target: ReadingTarget) => void;
  readonly flask: string;
  readonly trialId: string | null;
  readonly symbol: string;
}

export function Chips({ readings, off, onOpen, flask, trialId, symbol }: ChipsProps) {
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap" }}>
      {readings.map((reading) => (
        <ReadingChip
          key={reading.id}
          reading={reading}
          off={off.has(reading.id)}
          onOpen={() => onOpen({ reading, flask, trialId, symbol })}
        />
      ))}
    </Box>
  );
}

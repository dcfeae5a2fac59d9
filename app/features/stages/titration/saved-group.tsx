import { differenceOf, decimalsOfInput, type Field } from "~/core/inputs";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { inUnit, toDecimals, withUnit } from "~/core/quantity";
import { type HouseRules } from "~/core/rules";
import { fieldKey, inputOf } from "~/core/method";
import type { Observation } from "~/core/record";
import type { TitrationEvaluation, TrialEvaluation } from "~/core/stages";
import { colors, fonts } from "../../../theme/theme";
import { useRunInHand } from "../../../entry/run-context";
import { useSay } from "../../../words/text";
import { unitText } from "~/core/text";

/** What a group of fields comes to so far: the mass, or the titer; null for a single reading. */
export function soFar(
  stage: TitrationEvaluation,
  trial: TrialEvaluation | null,
  symbol: string,
  rules: HouseRules,
) {
  const input = inputOf(stage.definition, symbol);
  const difference = input && differenceOf(input);
  if (!input || !difference?.soFar) return null;
  const { unit, soFar: label, saved = label } = difference;
  const q = trial?.symbols.get(symbol);
  const decimals = decimalsOfInput(input, rules) ?? 2;
  return { label, saved, value: q ? toDecimals(inUnit(q, unit), decimals) : null, unit };
}

interface SavedGroupProps {
  readings: readonly { readonly field: Field; readonly observation: Observation | null }[];
  total: ReturnType<typeof soFar>;
  onCorrect: (field: Field) => void;
}

/** Readings that are all saved draw together into one line, so that the eye lands on what is to be read next. */
export function SavedGroup({ readings, total, onCorrect }: SavedGroupProps) {
  const say = useSay();
  const { waiting } = useRunInHand();
  const waits = readings.some(({ observation }) => observation && waiting.has(observation.id));
  const number = { fontFamily: fonts.reading, fontSize: "1.15rem", color: colors.ink } as const;
  return (
    <Box
      sx={{
        display: "flex",
        flexWrap: "wrap",
        alignItems: "center",
        columnGap: 2.5,
        bgcolor: waits ? colors.amberPale : colors.tealWash,
        border: `1px solid ${colors.line}`,
        borderRadius: "12px",
        px: 1.75,
        py: 0.75,
        color: colors.inkSoft,
      }}
    >
      {readings.map(({ field, observation }) => (
        <Box key={fieldKey(field)} sx={{ display: "flex", alignItems: "center", columnGap: 1 }}>
          <span>{say(field.label)}</span>
          <Button
            size="small"
            onClick={() => onCorrect(field)}
            aria-label={say`${field.label} ${observation?.value ?? ""}, saved, correct`}
            sx={{
              ...number,
              px: 0.5,
              minWidth: 0,
              textDecoration: "underline dotted",
              textUnderlineOffset: 5,
            }}
          >
            {observation?.value}
          </Button>
          {total ? null : say(unitText(field.unit))}
        </Box>
      ))}
      {total && (
        <Box sx={{ display: "flex", alignItems: "center", columnGap: 1 }}>
          <span>{say(total.saved)}</span>
          <Box component="span" sx={{ ...number, fontWeight: 700 }}>
            {say(withUnit(total.value ?? "", total.unit))}
          </Box>
        </Box>
      )}
      <Box
        component="span"
        sx={{ ml: "auto", color: waits ? colors.amberDeep : colors.tealDeep, fontSize: "0.92rem" }}
      >
        {waits ? say`… waiting` : say`✓ saved`}
      </Box>
    </Box>
  );
}

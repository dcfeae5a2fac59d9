import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import { Link } from "react-router";
import type { FieldState, TrialEvaluation } from "~/core/stages";
import { fieldKey } from "~/core/method";
import { isDraft } from "~/core/change";
import { useRunInHand } from "../../../entry/run-context";
import { colors } from "../../../theme/theme";
import type { CorrectionTarget } from "../shared/correct-dialog";
import { useSay } from "../../../words/text";
import { unitText } from "~/core/text";

interface ReadingCellProps {
  state: FieldState | undefined;
  trial: TrialEvaluation;
  onCorrect: (target: CorrectionTarget) => void;
}

/** One reading as typed: what was corrected struck through above what holds now, which opens to be corrected. */
export function ReadingCell({ state, trial, onCorrect }: ReadingCellProps) {
  const say = useSay();
  const { locked } = useRunInHand();
  if (!state) return null;
  const { present, history, field } = state;
  const old = history.filter((o) => o.id !== present?.id && o.text !== "");
  return (
    <>
      {old.map((o) => (
        <Box key={o.id} component="s" sx={{ display: "block", color: colors.inkSoft }}>
          {o.text}
        </Box>
      ))}
      {present ? (
        isDraft(present) || locked ? (
          <Box component="span" sx={{ color: locked ? "inherit" : colors.inkSoft }}>
            {present.value}
          </Box>
        ) : (
          <ButtonBase
            onClick={() => onCorrect({ trialId: trial.id, fieldKey: fieldKey(field) })}
            aria-label={say`${field.label} ${present.value ?? ""}, correct`}
            sx={{
              font: "inherit",
              px: 0.5,
              mx: -0.5,
              minHeight: 28,
              borderRadius: "6px",
              "&:hover": { bgcolor: colors.tealPale },
            }}
          >
            {present.value}
          </ButtonBase>
        )
      ) : (
        "…"
      )}
    </>
  );
}

interface ResultCellProps {
  text: string;
  unit: string;
  trial: TrialEvaluation;
  workingHref: string;
}

/** A trial's result, which opens into its working once it is saved. */
export function ResultCell({ text, unit, trial, workingHref }: ResultCellProps) {
  const say = useSay();
  if (text === "" || trial.fields.some((f) => f.present && isDraft(f.present))) return text;
  return (
    <Box
      component={Link}
      to={workingHref}
      aria-label={say`${text} ${unitText(unit)}, working of ${trial.words}`}
      sx={{ color: "inherit", textDecorationColor: colors.lineStrong, textUnderlineOffset: 3 }}
    >
      {text}
    </Box>
  );
}

import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { type RulesEffect, effectsOfRules } from "~/core/evaluate";
import type { HouseRules } from "~/core/rules";
import type { RunRecord } from "~/core/run";
import { colors } from "../../theme/theme";
import { numbersOut } from "../../ui/number-text";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";

interface RulesPreviewProps {
  /** Open runs to try the rules on. */
  runs: readonly RunRecord[];
  chosen: RunRecord | null;
  onChoose: (id: string) => void;
  /** The rules as the form stands; null while something in it is wrong. */
  rules: HouseRules | null;
}

/** What the rules would change in an open run, at once and before anything is saved. */
export function RulesPreview({ runs, chosen, onChoose, rules }: RulesPreviewProps) {
  const say = useSay();
  const effects = chosen && rules ? effectsOfRules(chosen, rules) : [];
  const stages = [...new Set(effects.map((e) => e.stage))];
  return (
    <Sheet component="section" aria-labelledby="preview-title" sx={{ borderTop: `4px solid ${colors.teal}` }}>
      <Typography id="preview-title" variant="h2" sx={{ mb: 1 }}>
        {say`Effect on open runs`}
      </Typography>
      {runs.length === 0 ? (
        <Typography color="textSecondary">
          {say`With a run in progress, the effect of new rules on it is shown here.`}
        </Typography>
      ) : (
        <>
          {runs.length > 1 && (
            <TextField
              select
              id="preview-run"
              label={say`In the run`}
              value={chosen?.id ?? ""}
              onChange={(event) => onChoose(event.target.value)}
              sx={{ mb: 1.5 }}
              fullWidth
              slotProps={{ htmlInput: { "aria-label": say`In the run` } }}
            >
              {runs.map((run) => (
                <MenuItem key={run.id} value={run.id}>
                  {run.title}
                </MenuItem>
              ))}
            </TextField>
          )}
          <Box role="status" data-testid="rules-effects">
            {rules === null ? (
              <Typography color="textSecondary">{say`Fix the marked fields first.`}</Typography>
            ) : effects.length === 0 ? (
              <Typography color="textSecondary">
                {say`Nothing in`} {runs.length === 1 ? chosen?.title : say`this run`} {say`would change.`}
              </Typography>
            ) : (
              stages.map((stage) => <StageEffects key={stage} stage={stage} effects={effects} />)
            )}
          </Box>
        </>
      )}
    </Sheet>
  );
}

function StageEffects({ stage, effects }: { readonly stage: string; readonly effects: RulesEffect[] }) {
  const say = useSay();
  return (
    <Box sx={{ mb: 1.5 }}>
      <Typography sx={{ fontWeight: 700 }}>{stage}</Typography>
      {effects
        .filter((e) => e.stage === stage)
        .map(({ what, from, to }) => (
          <Box key={say(what)} sx={{ mt: 0.75, pl: 1.25, borderLeft: `3px solid ${colors.line}` }}>
            <Typography variant="body2" color="textSecondary">
              {say(what)}
            </Typography>
            <Box
              sx={{
                color: colors.inkSoft,
                textDecoration: "line-through",
                textDecorationColor: colors.lineStrong,
              }}
            >
              {numbersOut(say(from))}
            </Box>
            <Box sx={{ fontWeight: 600 }}>{numbersOut(say(to))}</Box>
          </Box>
        ))}
    </Box>
  );
}

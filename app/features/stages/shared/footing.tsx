import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { type ComputedEvaluation, footingWords } from "~/core/stages";
import { colors } from "../../../theme/theme";
import { unbroken } from "../../../ui/number-text";
import { useSay } from "../../../words/text";

/** What a result rests on that nobody stated, and what is not counted in its ±. */
export function Footing({ stage }: { stage: ComputedEvaluation }) {
  const say = useSay();
  const words = footingWords(stage);
  if (words === "") return null;
  return (
    <Typography variant="body2" data-testid="footing" sx={{ mt: 0.5, color: colors.amberDeep }}>
      {unbroken(say(words))}
    </Typography>
  );
}

/** How a result compares with what it is held against. */
export function Accepted({ stage }: { stage: ComputedEvaluation }) {
  const say = useSay();
  return stage.acceptance ? (
    <Typography sx={{ mt: 0.75, fontWeight: 600 }}>{unbroken(say(stage.acceptance.text))}</Typography>
  ) : null;
}

/** Results that cannot be, or for which the method does not hold, each with where to look first; and those withheld. */
export function Implausible({ stage }: { stage: ComputedEvaluation }) {
  const say = useSay();
  return (
    <>
      {stage.implausible.map(({ symbol, text, look, outside }) => (
        <Alert
          key={symbol + say(text)}
          severity={outside === "impossible" ? "error" : "warning"}
          data-testid="implausible"
          sx={{ mt: 1 }}
        >
          <Box sx={{ fontWeight: 600 }}>{unbroken(say(text))}.</Box>
          {look.length > 0 && (
            <>
              {say`Check first:`}
              <Box component="ol" sx={{ m: 0, pl: 2.5 }}>
                {look.slice(0, 4).map((words) => (
                  <li key={say(words)}>{say(words)}</li>
                ))}
              </Box>
            </>
          )}
        </Alert>
      ))}
      {stage.withheld.map(({ name, why }) => (
        <Typography key={say(name)} variant="body2" sx={{ mt: 0.5 }}>
          {say`${name} is not given: ${why}.`}
        </Typography>
      ))}
    </>
  );
}

/** The nearest whole number of a count, which is what such a method is for; nothing where none is near. */
export function WholeNumber({ stage }: { stage: ComputedEvaluation }) {
  const say = useSay();
  const whole = stage.shown?.nearestWhole;
  if (whole === undefined) return null;
  return (
    <Box sx={{ display: "flex", alignItems: "baseline", gap: 1 }} data-testid="whole-number">
      <Box
        component="span"
        sx={{ fontSize: "2.6rem", fontWeight: 700, lineHeight: 1.1, color: colors.tealDeep }}
      >
        {whole}
      </Box>
      <span>{say`nearest whole number`}</span>
    </Box>
  );
}

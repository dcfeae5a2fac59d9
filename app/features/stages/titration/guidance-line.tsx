import Box from "@mui/material/Box";
import type { Field } from "~/core/inputs";
import type { Guidance } from "~/core/stages";
import { colors } from "../../../theme/theme";
import { numbersOut } from "../../../ui/number-text";
import { useSay } from "../../../words/text";

/** Where to expect the end point and where to slow down, or what is missing for that. */
export function GuidanceLine(props: {
  guidance: Guidance | null;
  missing: Field | null;
  closed: boolean;
  /** True where something but the titer of this flask is still to be read, and then more will be known. */
  first: boolean;
}) {
  const say = useSay();
  const { guidance, missing, closed, first } = props;
  const text = guidance
    ? guidance.text
    : missing && first
      ? missing.kind.startsWith("mass")
        ? say`Weigh the solid first; the expected end point follows from the mass.`
        : say`Measure out the sample first; the expected end point follows from the volume.`
      : say`End point unknown. Run a quick rough titration first.`;
  const stop = !closed && guidance !== null && !guidance.roomLeft;
  return (
    <Box
      role="status"
      sx={{
        bgcolor: stop ? colors.amberPale : closed || !guidance ? colors.tealWash : colors.pinkPale,
        color: stop ? colors.amberDeep : colors.ink,
        borderRadius: "10px",
        px: 1.75,
        py: 1.25,
        fontSize: "1.05rem",
        lineHeight: 1.4,
        fontWeight: stop ? 700 : 400,
      }}
    >
      {closed
        ? say`The set is closed. You can add another trial; it is judged with the others.`
        : numbersOut(say(text))}
    </Box>
  );
}

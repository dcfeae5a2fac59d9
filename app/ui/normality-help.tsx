import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { molPerL, typedNormality } from "~/core/method";
import { colors } from "../theme/theme";
import { useSay } from "../words/text";

/** Equivalents that a mole of a titrant has in one reaction or another. Common practice, no source. */
const usual = [1, 2, 3, 4, 5, 6];

interface NormalityHelpProps {
  /** What is typed in the field above. */
  readonly text: string;
  /** Equivalents in a mole, where a method says them; null where it depends on what the solution is used for. */
  readonly equivalents: number | null;
  readonly onTake: (molPerL: string) => void;
}

/** Where a concentration is typed as a normality: what that is in mol/L, to be taken by one key. */
export function NormalityHelp({ text, equivalents, onTake }: NormalityHelpProps) {
  const say = useSay();
  const normal = typedNormality(text);
  if (normal === null) return null;
  const offered = (equivalents === null ? usual : [equivalents]).map((z) => ({
    z,
    value: molPerL(normal, z),
  }));
  return (
    <Box
      role="group"
      aria-label={say`${normal} N in mol/L`}
      sx={{ mt: 0.5, px: 1.25, py: 1, bgcolor: colors.tealWash, borderRadius: "8px", fontSize: "0.92rem" }}
    >
      {equivalents === null
        ? say`${normal} N in mol/L depends on the reaction. Equivalents in one mole:`
        : say`${normal} N in mol/L, by the equivalents of this method:`}
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, mt: 0.5 }}>
        {offered.map(({ z, value }) => (
          <Button key={z} size="small" variant="outlined" onClick={() => onTake(value)}>
            {say`${z}: ${value}`}
          </Button>
        ))}
      </Box>
    </Box>
  );
}

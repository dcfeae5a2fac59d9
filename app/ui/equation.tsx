import "katex/contrib/mhchem";
import Box from "@mui/material/Box";
import { equationMhchem, prettyEquation } from "~/core/chemistry";
import { Tex } from "./tex";

interface EquationLineProps {
  source: string;
  large?: boolean;
  small?: boolean;
}

/** The two sides of an equation, the arrow with the first: it breaks there where the line is too short. */
function sidesOf(source: string): string[] {
  const whole = equationMhchem(source);
  const [left, right] = whole.replace(/^\\ce\{|\}$/g, "").split(" -> ");
  return left !== undefined && right !== undefined ? [`\\ce{${left} ->}`, `\\ce{${right}}`] : [whole];
}

/** A chemical equation as a textbook sets it; the source is one that parses. */
export function EquationLine({ source, large = false, small = false }: EquationLineProps) {
  return (
    <Box
      role="img"
      tabIndex={0}
      aria-label={prettyEquation(source)}
      sx={{
        display: "flex",
        flexWrap: "wrap",
        // A side that is too long by itself can still be moved.
        overflowX: "auto",
        overflowY: "hidden",
        columnGap: 0.75,
        py: 0.25,
        fontSize: large ? "1.25rem" : small ? "0.8rem" : "1.02rem",
        maxWidth: 1,
      }}
    >
      {sidesOf(source).map((side) => (
        <Tex key={side} tex={side} />
      ))}
    </Box>
  );
}

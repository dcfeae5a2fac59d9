import "katex/contrib/mhchem";
import Box from "@mui/material/Box";
import { prettyEquation } from "~/core/chemistry";
import { equationSides } from "./equation-sides";
import { Tex } from "./tex";

interface EquationLineProps {
  source: string;
  large?: boolean;
  small?: boolean;
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
      {equationSides(source).map((side) => (
        <Tex key={side} tex={side} />
      ))}
    </Box>
  );
}

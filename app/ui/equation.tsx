import "katex/contrib/mhchem";
import Box from "@mui/material/Box";
import { equationMhchem, prettyEquation } from "~/core/chemistry";
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
        overflowX: "auto",
        overflowY: "hidden",
        py: 0.25,
        fontSize: large ? "1.25rem" : small ? "0.8rem" : "1.02rem",
        maxWidth: 1,
      }}
    >
      <Tex tex={equationMhchem(source)} />
    </Box>
  );
}

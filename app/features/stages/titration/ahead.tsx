import Box from "@mui/material/Box";
import type { Reagent } from "~/core/method";
import { colors } from "../../../theme/theme";
import { together } from "../../../ui/number-text";
import { useSay } from "../../../words/text";

const amount = ({ name, amount: much, when }: Reagent) => `${name}, ${much} (${when})`;

/** What goes into the flask before the titration: what now, and what only at the last moment. */
export function ReagentsAhead({ reagents }: { reagents: readonly Reagent[] }) {
  const say = useSay();
  if (reagents.length === 0) return null;
  const rows = [
    { head: say`Add now`, of: reagents.filter((r) => !r.last) },
    { head: say`At the last moment`, of: reagents.filter((r) => r.last) },
  ].filter(({ of }) => of.length > 0);
  return (
    <Box
      component="dl"
      aria-label={say`Reagents`}
      sx={{
        m: 0,
        display: "grid",
        gridTemplateColumns: { xs: "1fr", sm: "auto 1fr" },
        columnGap: 1.5,
        rowGap: 0.25,
        fontSize: "0.95rem",
      }}
    >
      {rows.map(({ head, of }) => (
        <Box key={head} sx={{ display: "contents" }}>
          <Box component="dt" sx={{ fontWeight: 700, color: colors.inkSoft, whiteSpace: "nowrap" }}>
            {head}
          </Box>
          <Box component="dd" sx={{ m: 0 }}>
            {together(of.map(amount).join("; "))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

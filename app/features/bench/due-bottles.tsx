import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import type { SolutionView } from "~/protocol/shelf";
import { colors } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { When } from "../../ui/when";
import { useSay } from "../../words/text";

/** What must be restandardized before it is used; nothing where nothing is due. */
export function DueBottles({ due }: { due: readonly SolutionView[] }) {
  const say = useSay();
  if (due.length === 0) return null;
  return (
    <Sheet component="section" aria-labelledby="due-title" sx={{ borderLeft: `6px solid ${colors.amber}` }}>
      <Typography id="due-title" variant="h2" sx={{ color: colors.amberDeep }}>
        {say`Restandardize`}
      </Typography>
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {due.map(({ id, code, name, restandardizeBy, state }) => (
          <Box component="li" key={id} sx={{ mt: 0.75 }}>
            <Link to={`/shelf/${id}`}>
              {code} {name}
            </Link>
            <Box component="span" sx={{ display: "block", color: colors.inkSoft, fontSize: "0.92rem" }}>
              {state === "past its date" ? say`overdue since ` : say`due `}
              {restandardizeBy && <When at={`${restandardizeBy}T12:00:00`} />}
            </Box>
          </Box>
        ))}
      </Box>
    </Sheet>
  );
}

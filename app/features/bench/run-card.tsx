import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import type { RunListItem } from "~/protocol/answers";
import { colors } from "../../theme/theme";
import { Chain } from "../../ui/chain";
import { unbroken } from "../../ui/number-text";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";

/** One run in progress: its chain, and what to do next. */
export function RunCard({ run }: { run: RunListItem }) {
  const say = useSay();
  const { id, title, sample, bench, summary } = run;
  return (
    <Sheet
      component="article"
      aria-label={title}
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 244px" },
        columnGap: 2.5,
        rowGap: 1.5,
      }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 1.5, alignItems: "baseline", mb: 1 }}>
          <Typography variant="h2">{title}</Typography>
          <Typography color="textSecondary">
            {[sample, bench, say(summary.state)].filter(Boolean).join(", ")}
          </Typography>
        </Box>
        <Chain beads={summary.chain} compact />
      </Box>
      <Box
        sx={{
          borderLeft: { md: `1px solid ${colors.line}` },
          pl: { md: 2.5 },
          display: "flex",
          flexDirection: "column",
          alignItems: "flex-start",
          justifyContent: "space-between",
          gap: 1,
        }}
      >
        <Box>
          <Typography variant="caption" color="textSecondary">
            {say`Next`}
          </Typography>
          <Typography sx={{ fontWeight: 700, lineHeight: 1.35 }}>{unbroken(say(summary.next))}</Typography>
        </Box>
        <Button
          component={Link}
          to={`/runs/${id}`}
          variant="outlined"
          aria-label={say`Go to the run ${title}`}
        >
          {say`Go to the run`}
        </Button>
      </Box>
    </Sheet>
  );
}

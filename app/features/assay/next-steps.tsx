import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import type { CalibrationEvaluation } from "~/core/run";
import { colors } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";

/** What comes next, in words, with the cautions that stand in the way and the way on. */
export function NextSteps({
  stage,
  next,
  children,
}: {
  stage: CalibrationEvaluation;
  next: { key: string; title: string } | null;
  children: React.ReactNode;
}) {
  return (
    <Sheet
      component="section"
      aria-label="What comes next"
      sx={{ display: "grid", gap: 1, order: { xs: 2, md: 0 } }}
    >
      <Typography
        data-testid="next-reading"
        sx={{ fontWeight: 700, fontSize: "1.05rem", color: colors.tealDeep }}
      >
        {stage.next}.
      </Typography>
      {stage.cautions.map(({ message }) => (
        <Alert key={message} severity="warning" sx={{ py: 0 }}>
          {message}.
        </Alert>
      ))}
      {(stage.done || stage.shown) && (
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
          {next && (
            <Button
              component={Link}
              to={`?stage=${next.key}`}
              variant={stage.done ? "contained" : "outlined"}
              preventScrollReset
            >
              Go on: {next.title}
            </Button>
          )}
          {children}
        </Box>
      )}
    </Sheet>
  );
}

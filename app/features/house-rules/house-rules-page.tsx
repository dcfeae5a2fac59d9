import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Form, useNavigation } from "react-router";
import type { HouseRules } from "~/core/run";
import { BenchRules } from "./bench-rules";
import type { FormProblems } from "./form.server";
import { JudgingRules } from "./judging-rules";

interface HouseRulesPageProps {
  rules: HouseRules;
  problems: FormProblems;
  saved: boolean | undefined;
}

/** The conventions of the lab. Runs that have begun keep the rules with which they began. */
export function HouseRulesPage({ rules, problems, saved }: HouseRulesPageProps) {
  const busy = useNavigation().state === "submitting";
  return (
    <Box component="main" sx={{ maxWidth: 1080, mx: "auto", px: { xs: 2, sm: 3 }, py: 2.5 }}>
      <Typography variant="h1">House rules</Typography>
      <Typography color="textSecondary" sx={{ mb: 2 }}>
        How this lab reads and judges. Runs already begun keep the rules they began with.
      </Typography>
      <Form method="post" noValidate>
        <Box
          sx={{
            columnCount: { xs: 1, md: 2 },
            columnGap: 2,
          }}
        >
          <JudgingRules rules={rules} problems={problems} />
          <BenchRules rules={rules} problems={problems} />
        </Box>
        <Box sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap", mt: 2.5 }}>
          <Button type="submit" variant="contained" size="large" disabled={busy}>
            Save house rules
          </Button>
          <Box role="status">
            {saved && <Alert severity="success">Saved. Runs begun from now on follow them.</Alert>}
            {problems.form && <Alert severity="error">{problems.form}</Alert>}
            {!problems.form && Object.keys(problems).length > 0 && (
              <Alert severity="error">Not saved yet: look at the fields marked above.</Alert>
            )}
          </Box>
        </Box>
      </Form>
    </Box>
  );
}

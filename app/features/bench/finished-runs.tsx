import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { Form, Link, useSubmit } from "react-router";
import type { RunSearchResult } from "~/protocol/answers";
import { colors, fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { When } from "../../ui/when";

/** Finished runs with their results, newest first, searched by title, sample or bench. */
export function FinishedRuns({ query, finished }: { query: string; finished: RunSearchResult }) {
  const submit = useSubmit();
  const { runs, total } = finished;
  return (
    <Sheet component="section" aria-labelledby="finished-title">
      <Typography id="finished-title" variant="h2" sx={{ mb: 1.25 }}>
        Finished
      </Typography>
      <Form
        method="get"
        role="search"
        onChange={(event) => void submit(event.currentTarget, { replace: true, preventScrollReset: true })}
      >
        <TextField
          name="q"
          size="small"
          defaultValue={query}
          label="Search title, sample or bench"
          type="search"
          autoComplete="off"
        />
      </Form>
      {runs.length === 0 && (
        <Typography color="textSecondary" sx={{ mt: 1.5 }}>
          {query
            ? `No finished run holds “${query}”.`
            : "Finished runs and their results come to stand here."}
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: "none", m: 0, mt: 0.5, p: 0 }}>
        {runs.map((run) => (
          <FinishedRun key={run.id} run={run} />
        ))}
      </Box>
      {total > runs.length && (
        <Typography variant="caption" color="textSecondary">
          {runs.length} of {total} shown: search for the others.
        </Typography>
      )}
    </Sheet>
  );
}

function FinishedRun({ run }: { run: RunSearchResult["runs"][number] }) {
  const { id, title, sample, bench, status, finishedAt, summary } = run;
  return (
    <Box
      component="li"
      sx={{ py: 1.1, borderTop: `1px solid ${colors.line}`, "&:first-of-type": { borderTop: 0 } }}
    >
      <Box
        component={Link}
        to={`/runs/${id}`}
        sx={{
          color: colors.ink,
          fontWeight: 700,
          textDecoration: "none",
          "&:hover": { textDecoration: "underline" },
        }}
      >
        {title}
      </Box>
      {summary.result && (
        <Box sx={{ fontFamily: fonts.reading, fontSize: "1.02rem" }}>{summary.result.text}</Box>
      )}
      <Typography variant="caption" color="textSecondary">
        {[sample, bench].filter(Boolean).map((part) => `${part}, `)}
        {status === "archived" ? "archived" : finishedAt && <When at={finishedAt} />}
      </Typography>
    </Box>
  );
}

import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { Form, Link, useSubmit } from "react-router";
import type { RunSearchResult } from "~/protocol/answers";
import { colors, fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { When } from "../../ui/when";
import { useSay } from "../../words/text";

interface FinishedRunsProps {
  query: string;
  /** True where those that were archived are listed. */
  archived: boolean;
  finished: RunSearchResult;
}

/** Finished runs with their results, newest first, searched by title, sample or bench. */
export function FinishedRuns({ query, archived, finished }: FinishedRunsProps) {
  const say = useSay();
  const submit = useSubmit();
  const { runs, total } = finished;
  return (
    <Sheet component="section" aria-labelledby="finished-title">
      <Typography id="finished-title" variant="h2" sx={{ mb: 1.25 }}>
        {archived ? say`Archived` : say`Finished`}
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
          label={say`Search title, sample or bench`}
          type="search"
          autoComplete="off"
        />
        <FormControlLabel
          control={<Checkbox name="archived" value="yes" size="small" defaultChecked={archived} />}
          label={say`archived runs`}
          sx={{ mt: 0.25 }}
        />
      </Form>
      {runs.length === 0 && (
        <Typography color="textSecondary" sx={{ mt: 1.5 }}>
          {query
            ? say`No ${archived ? say`archived` : say`finished`} run matches “${query}”.`
            : archived
              ? say`No run is archived.`
              : say`Finished runs and their results appear here.`}
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: "none", m: 0, mt: 0.5, p: 0 }}>
        {runs.map((run) => (
          <FinishedRun key={run.id} run={run} />
        ))}
      </Box>
      {total > runs.length && (
        <Typography variant="caption" color="textSecondary">
          {say`${runs.length} of ${total} shown. Search to find the rest.`}
        </Typography>
      )}
    </Sheet>
  );
}

function FinishedRun({ run }: { run: RunSearchResult["runs"][number] }) {
  const say = useSay();
  const { id, title, sample, bench, status, finishedAt, summary, methodId } = run;
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
        <Box sx={{ fontFamily: fonts.reading, fontSize: "1.02rem" }}>{say(summary.result.text)}</Box>
      )}
      <Typography variant="caption" color="textSecondary">
        {[sample, bench].filter(Boolean).map((part) => `${part}, `)}
        <Link
          to={`/?start=${methodId}&again=${id}`}
          style={{ float: "right" }}
          aria-label={say`Same again: ${title}`}
        >
          {say`Same again`}
        </Link>
        {status === "archived" ? say`archived` : finishedAt && <When at={finishedAt} />}
      </Typography>
    </Box>
  );
}

import { type SubmitFunction, Form, Link, useSubmit } from "react-router";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { type LabTrailLine, trailSubjects } from "~/formats/trail";
import { Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { TrailTable } from "../trail/trail-table";
import { useSay } from "../../words/text";

interface LabTrailPageProps {
  lines: readonly LabTrailLine[];
  query: string;
  about: string;
  /** The number of the last line where there are older ones. */
  older: number | null;
}

/** Where a line leads, by what it is about. */
function subjectLink({ about, subjectId, subject }: LabTrailLine) {
  const to =
    about === "run" && subjectId
      ? `/runs/${subjectId}`
      : about === "bottle" && subjectId
        ? `/shelf/${subjectId}`
        : about === "method" && subjectId
          ? `/methods/${subjectId}`
          : about === "house rules"
            ? "/house-rules"
            : "/lab";
  return <Link to={to}>{subject || about}</Link>;
}

const address = (changes: Readonly<Record<string, string>>) => {
  const kept = Object.entries(changes).filter(([, value]) => value !== "");
  return new URLSearchParams(kept).toString();
};

/** Everything that was ever done in this lab, in one list. */
export function LabTrailPage({ lines, query, about, older }: LabTrailPageProps) {
  const say = useSay();
  const submit = useSubmit();
  const exported = (format: string) => `/trail/export?${address({ format, q: query, about })}`;
  return (
    <Page
      title={say`Trail of the lab`}
      note={say`Runs, bottles, methods, house rules and backups, newest first. Nothing here can be changed.`}
      width={1480}
      actions={
        <>
          <Button component="a" href={exported("csv")} download variant="outlined">
            {say`Export as CSV`}
          </Button>
          <Button component="a" href={exported("json")} download variant="outlined">
            {say`Export as JSON`}
          </Button>
        </>
      }
    >
      <Form
        role="search"
        onChange={(event) => void submit(event.currentTarget, { replace: true, preventScrollReset: true })}
      >
        <Box
          sx={{
            display: "flex",
            gap: 1.5,
            flexWrap: "wrap",
            mb: 1.5,
            "& > *": { flex: "1 1 200px", maxWidth: 380 },
          }}
        >
          <TextField name="q" label={say`Search the trail`} defaultValue={query} />
          <AboutChoice about={about} submit={submit} query={query} />
        </Box>
      </Form>
      {lines.length === 0 ? (
        <Sheet>
          {query || about ? say`Nothing in the trail matches.` : say`Nothing has been done in this lab yet.`}
        </Sheet>
      ) : (
        <TrailTable lines={lines} place={{ head: say`Of`, of: subjectLink }} />
      )}
      {older !== null && (
        <Typography sx={{ mt: 1.5 }}>
          <Link to={`?${address({ q: query, about, before: String(older) })}`}>{say`Older lines`}</Link>
        </Typography>
      )}
    </Page>
  );
}

interface AboutChoiceProps {
  readonly about: string;
  readonly submit: SubmitFunction;
  readonly query: string;
}

function AboutChoice({ about, submit, query }: AboutChoiceProps) {
  const say = useSay();
  return (
    <TextField
      select
      name="about"
      label={say`About`}
      defaultValue={about}
      onChange={(event) =>
        void submit({ q: query, about: event.target.value }, { replace: true, preventScrollReset: true })
      }
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
    >
      <MenuItem value="">{say`everything`}</MenuItem>
      {trailSubjects.map((subject) => (
        <MenuItem key={subject} value={subject}>
          {subject}
        </MenuItem>
      ))}
    </TextField>
  );
}

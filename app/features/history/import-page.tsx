import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link, useFetcher } from "react-router";
import { counted, listed, type Phrase } from "~/core/text";
import { sayWho } from "~/protocol/answers";
import { type ImportAnswer, type IncomingView, mostImported } from "~/protocol/incoming";
import { FileButton } from "../../ui/file-button";
import { Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { useWhoWhy, Who, type WhoWhyState } from "../../ui/who-why";
import { useSay } from "../../words/text";
import { IncomingRuns } from "./incoming-runs";

const megabyte = 1024 * 1024;

/** Runs that are selected at first: new, unaltered, and with results that follow from their readings. */
const unobjectionable = ({ runs }: IncomingView) =>
  runs
    .filter(
      ({ state, findings, differences }) => state === "new" && findings.length + differences.length === 0,
    )
    .map(({ id }) => id);

/** The chosen file, the outcome of its check, and the runs to import. */
function useImport() {
  const fetcher = useFetcher<ImportAnswer>();
  const [file, setFile] = useState<File | null>(null);
  const [chosen, setChosen] = useState<readonly string[] | null>(null);
  const [problem, setProblem] = useState<Phrase | null>(null);
  const send = (texts: Readonly<Record<string, string>>, of: File) => {
    const form = new FormData();
    for (const [name, text] of Object.entries(texts)) form.set(name, text);
    form.set("file", of);
    void fetcher.submit(form, { method: "post", encType: "multipart/form-data", action: "/history/import" });
  };
  const answer = fetcher.state === "idle" ? fetcher.data : undefined;
  const view = fetcher.data?.status === "looked" ? fetcher.data.view : null;
  return {
    ...{ file, answer, view, problem, setProblem, setChosen, send },
    busy: fetcher.state !== "idle",
    chosen: chosen ?? (view ? unobjectionable(view) : []),
    look: (of: File) => {
      setFile(of);
      setChosen(null);
      setProblem(null);
      send({ intent: "look" }, of);
    },
  };
}

/** Imports runs, methods and bottles from a file, after a check. */
export function ImportPage() {
  const say = useSay();
  const { file, answer, view, problem, setProblem, chosen, setChosen, send, look, busy } = useImport();
  const by = useWhoWhy();
  const choose = (of: File | undefined) => {
    if (!of) return;
    if (of.size > mostImported)
      setProblem(
        say`${of.name} is ${Math.ceil(of.size / megabyte)} MB; the limit is ${mostImported / megabyte} MB`,
      );
    else look(of);
  };
  const take = () => {
    if (by.person.trim() === "") return setProblem(sayWho);
    setProblem(null);
    by.remember();
    if (file) send({ intent: "take", person: by.person.trim(), runs: chosen.join(",") }, file);
  };
  const nothing = view && view.methods + view.bottles === 0 && chosen.length === 0;
  return (
    <Page
      width={1000}
      title={say`Import`}
      note={say`A run record (JSON) or a lab archive (ZIP). Nothing is imported until you have seen the check.`}
      actions={
        <>
          <Button component={Link} to="/history/import/table" variant="outlined">
            {say`Import a table (CSV, XLSX) …`}
          </Button>
          <Button component={Link} to="/history" variant="outlined">
            {say`Back to the history`}
          </Button>
        </>
      }
    >
      <Box sx={{ display: "grid", gap: 2 }}>
        <FilePicker file={file} again={view !== null} busy={busy} choose={choose} />
        <Box role="status">
          {busy && <Alert severity="info">{say`Checking and recalculating …`}</Alert>}
          {problem && <Alert severity="error">{say(problem)}.</Alert>}
          {answer?.status === "refused" && <Alert severity="error">{say(answer.message)}.</Alert>}
          {answer?.status === "taken" && (
            <Alert
              severity="success"
              action={<Button component={Link} to="/history">{say`To the history`}</Button>}
            >
              {say`Imported: ${listed([counted(answer.runs, "run"), counted(answer.methods, "method"), counted(answer.bottles, "bottle")])}.`}
            </Alert>
          )}
        </Box>
        {view && !busy && (
          <>
            <Found view={view} />
            <IncomingRuns runs={view.runs} chosen={chosen} onChoose={setChosen} />
            <TakeBar by={by} problem={problem} count={chosen.length} nothing={nothing === true} take={take} />
          </>
        )}
      </Box>
    </Page>
  );
}

interface FilePickerProps {
  readonly file: File | null;
  readonly again: boolean;
  readonly busy: boolean;
  readonly choose: (file: File | undefined) => void;
}

/** A file is chosen, or dropped. */
function FilePicker({ file, again, busy, choose }: FilePickerProps) {
  const say = useSay();
  return (
    <Sheet
      component="section"
      aria-label={say`File`}
      onDragOver={(event: React.DragEvent) => event.preventDefault()}
      onDrop={(event: React.DragEvent) => {
        event.preventDefault();
        choose(event.dataTransfer.files[0]);
      }}
      sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap" }}
    >
      <FileButton
        variant={again ? "outlined" : "contained"}
        size="large"
        disabled={busy}
        label={say`File to import`}
        accept=".json,.zip,application/json,application/zip"
        onFile={choose}
      >
        {again ? say`Another file …` : say`Choose a file …`}
      </FileButton>
      <Typography color="textSecondary">{file ? file.name : say`or drop it here`}</Typography>
    </Sheet>
  );
}

interface TakeBarProps {
  readonly by: WhoWhyState;
  readonly problem: Phrase | null;
  readonly count: number;
  readonly nothing: boolean;
  readonly take: () => void;
}

/** Who imports it, and the button. */
function TakeBar({ by, problem, count, nothing, take }: TakeBarProps) {
  const say = useSay();
  return (
    <Sheet
      component="section"
      aria-label={say`Import`}
      sx={{ display: "flex", gap: 2, flexWrap: "wrap", alignItems: "flex-start" }}
    >
      <Box sx={{ width: 260 }}>
        <Who by={by} problem={problem === sayWho ? sayWho : undefined} />
      </Box>
      <Button variant="contained" size="large" onClick={take} disabled={nothing}>
        {nothing ? say`Nothing to import` : say`Import ${counted(count, "run")}`}
      </Button>
    </Sheet>
  );
}

/** What else a file holds, and what is wrong with it as a whole. */
function Found({ view }: { readonly view: IncomingView }) {
  const say = useSay();
  const { findings, unusable, methods, bottles } = view;
  return (
    <>
      {findings.length > 0 && (
        <Alert severity="warning">
          {say`The archive failed verification:`}
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {findings.slice(0, 20).map((finding, i) => (
              <li key={i}>{say(finding)}</li>
            ))}
          </Box>
        </Alert>
      )}
      {unusable.map(({ name, problems }) => (
        <Alert key={name} severity="error">
          {say`${name} cannot be imported:`}
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {problems.map((words, i) => (
              <li key={i}>{say(words)}</li>
            ))}
          </Box>
        </Alert>
      ))}
      {methods + bottles > 0 && (
        <Typography color="textSecondary">
          {say`It also holds ${listed([counted(methods, "method"), counted(bottles, "bottle")])}. New ones are imported too; the house rules of this lab stay.`}
        </Typography>
      )}
    </>
  );
}

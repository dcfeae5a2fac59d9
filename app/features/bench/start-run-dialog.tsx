import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { type FormEvent, type ReactNode, type RefObject, useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import type { MethodChoice } from "~/protocol/answers";
import { readSampleList } from "~/protocol/sample-list";
import { KnownStages, type StartProblem, useKnownStages } from "./known-stages";
import { MethodSearch } from "./method-search";
import { Samples } from "./sample-list";
import { useSelectOffered } from "../../entry/select-offered";
import { useSay } from "../../words/text";
import { uncapitalized } from "~/core/text";

/** What a new run begins with: the method of a page, or what an earlier run had. */
export interface Beginning {
  readonly methodId: string;
  readonly bench: string;
  /** The run that the new one is like; empty where there is none. */
  readonly like: string;
}

interface StartRunDialogProps {
  methods: readonly MethodChoice[];
  beginning: Beginning | null;
  onClose: () => void;
}

/** A title for a run that nobody has named: "R-9, water hardness". */
export function proposedTitle(method: MethodChoice | null, sample: string): string {
  if (!method) return "";
  const what = method.title;
  const named = sample.trim();
  return (named === "" ? what : `${named}, ${what.charAt(0).toLowerCase()}${what.slice(1)}`).slice(0, 120);
}

/** The one short dialog that begins a run. */
export function StartRunDialog({ methods, beginning, onClose }: StartRunDialogProps) {
  const say = useSay();
  const fetcher = useFetcher<StartProblem>();
  const [method, setMethod] = useState(methods.find((m) => m.id === beginning?.methodId) ?? null);
  const [sample, setSample] = useState("");
  const [bench, setBench] = useState(beginning?.bench ?? "");
  const [ownTitle, setOwnTitle] = useState<string | null>(null);
  const [missing, setMissing] = useState<"method" | "title" | null>(null);
  // Several at once: the list of samples as it is typed; null for one run.
  const [list, setList] = useState<string | null>(null);
  const [tried, setTried] = useState(false);
  // Of several, each has its sample before what they have in common.
  const proposed = list === null ? proposedTitle(method, sample) : uncapitalized(proposedTitle(method, ""));
  const title = ownTitle ?? say(proposed);
  const form = useRef<HTMLFormElement>(null);
  const knownStages = useKnownStages(method, beginning?.like ?? "");
  const setWaiting = useHeldUp(form, knownStages.ready);

  const check = (event: FormEvent<HTMLFormElement>) => {
    const what = method === null ? "method" : title.trim() === "" ? "title" : null;
    const { rows, problems } = readSampleList(list ?? "");
    const wrong = what !== null || (list !== null && (problems.length > 0 || rows.length === 0));
    setMissing(what);
    setTried(true);
    setWaiting(!wrong && !knownStages.ready);
    if (wrong || !knownStages.ready) event.preventDefault();
  };

  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="start-title">
      <fetcher.Form method="post" action="/?index" onSubmit={check} noValidate ref={form}>
        <DialogTitle id="start-title">{say`Start a run`}</DialogTitle>
        <DialogContent>
          <Stack spacing={2} sx={{ pt: 1 }}>
            <input type="hidden" name="intent" value="start" />
            <input type="hidden" name="methodId" value={method?.id ?? ""} />
            <input type="hidden" name="like" value={beginning?.like ?? ""} />
            <MethodSearch
              methods={methods}
              method={method}
              missing={missing === "method"}
              onChoose={setMethod}
            />
            <Samples
              {...{ list, setList, sample, setSample, bench, setBench, tried }}
              unit={knownStages.unit}
              first={method !== null}
            />
            <TitleField
              title={title}
              proposed={ownTitle === null}
              missing={missing === "title"}
              onChange={setOwnTitle}
            />
            <KnownStages {...knownStages} problem={fetcher.data} />
          </Stack>
        </DialogContent>
        <Foot busy={fetcher.state !== "idle"} onClose={onClose}>
          <Button onClick={() => setList(list === null ? "" : null)} sx={{ mr: "auto" }}>
            {list === null ? say`Several …` : say`One run only`}
          </Button>
        </Foot>
      </fetcher.Form>
    </Dialog>
  );
}

/** What was sent before it was there which stages can be known goes once that is there. */
function useHeldUp(form: RefObject<HTMLFormElement | null>, ready: boolean) {
  const [waiting, setWaiting] = useState(false);
  useEffect(() => {
    if (!waiting || !ready) return;
    // Not within the event that was held up: a form is not submitted while it is.
    const later = setTimeout(() => form.current?.requestSubmit());
    return () => clearTimeout(later);
  }, [form, waiting, ready]);
  return setWaiting;
}

interface FootProps {
  readonly busy: boolean;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

function Foot({ busy, onClose, children }: FootProps) {
  const say = useSay();
  return (
    <DialogActions sx={{ px: 3, pb: 2 }}>
      {children}
      <Button onClick={onClose} color="secondary">
        {say`Cancel`}
      </Button>
      <Button type="submit" variant="contained" disabled={busy}>
        {say`Start`}
      </Button>
    </DialogActions>
  );
}

interface TitleFieldProps {
  readonly title: string;
  /** True while nobody has typed one. */
  readonly proposed: boolean;
  readonly missing: boolean;
  readonly onChange: (title: string) => void;
}

function TitleField({ title, proposed, missing, onChange }: TitleFieldProps) {
  const say = useSay();
  const selects = useSelectOffered(proposed && title !== "");
  return (
    <TextField
      name="title"
      label={say`Title`}
      value={title}
      onChange={(event) => onChange(event.target.value)}
      error={missing}
      helperText={missing ? say`Give the run a title so you can find it again` : say`shown on the bench`}
      slotProps={{ htmlInput: { maxLength: 120, ...selects } }}
    />
  );
}

import Alert from "@mui/material/Alert";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { type FormEvent, type ReactNode, type RefObject, useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import { prettyEquation } from "~/core/chemistry";
import type { MethodChoice } from "~/protocol/answers";
import type { KnowableStage } from "~/protocol/known";
import type { KnownStage } from "~/protocol/requests";
import { readSampleList } from "~/protocol/sample-list";
import { SampleList } from "./sample-list";
import { KnownStageField } from "../known/known-stage-field";
import { useSelectOffered } from "../../entry/select-offered";
import { colors } from "../../theme/theme";
import { familyTitles } from "../methods/families";
import { useSay } from "../../words/text";
import { msg, type Phrase, uncapitalized } from "~/core/text";

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

const atMost = { htmlInput: { maxLength: 120 } } as const;

/** The one short dialog that begins a run. */
export function StartRunDialog({ methods, beginning, onClose }: StartRunDialogProps) {
  const say = useSay();
  const fetcher = useFetcher<StartProblem>();
  const [method, setMethod] = useState(methods.find((m) => m.id === beginning?.methodId) ?? null);
  const [sample, setSample] = useState("");
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
              {...{ list, setList, sample, setSample, tried }}
              unit={knownStages.unit}
              bench={beginning?.bench}
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

/** Why the server did not begin a run, and the stage that it is about. */
interface StartProblem {
  readonly message: Phrase;
  readonly stageKey?: string;
}

interface KnownStagesProps extends ReturnType<typeof useKnownStages> {
  readonly problem: StartProblem | undefined;
}

function KnownStages({ stages, knownNow, choose, problem }: KnownStagesProps) {
  const say = useSay();
  return (
    <>
      <input type="hidden" name="known" value={JSON.stringify(knownNow.filter(Boolean))} />
      {stages.map((stage, i) => (
        <KnownStageField
          key={stage.key}
          stage={stage}
          known={knownNow[i] ?? null}
          problem={problem?.stageKey === stage.key ? problem.message : null}
          onChange={(known) => choose(stage.key, known)}
        />
      ))}
      {problem && problem.stageKey === undefined && <Alert severity="error">{say(problem.message)}</Alert>}
    </>
  );
}

/** The stages of a method that may be known already, and how they are: as is usual, until somebody says otherwise. */
function useKnownStages(method: MethodChoice | null, like: string) {
  const { load, data } = useFetcher<{ methodId: string; stages: KnowableStage[]; unit: string }>();
  const [chosen, setChosen] = useState<Readonly<Record<string, KnownStage | null>>>({});
  const id = method?.id;
  useEffect(() => {
    if (id !== undefined) void load(`/start/${id}?like=${like}`);
  }, [id, like, load]);
  const ready = data?.methodId === id;
  const stages = ready ? (data?.stages ?? []) : [];
  // By method too: another one that is chosen begins as is usual.
  const of = (key: string) => `${id ?? ""} ${key}`;
  const knownNow = stages.map(({ key, usual }) => (of(key) in chosen ? (chosen[of(key)] ?? null) : usual));
  const choose = (key: string, known: KnownStage | null) =>
    setChosen((now) => ({ ...now, [of(key)]: known }));
  return { stages, knownNow, choose, ready, unit: ready ? (data?.unit ?? "") : "" };
}

interface SamplesProps extends OneSampleProps {
  readonly list: string | null;
  readonly setList: (list: string | null) => void;
  readonly unit: string;
  readonly tried: boolean;
}

/** One sample and who titrates it, or a list of them. */
function Samples({ list, setList, unit, tried, ...one }: SamplesProps) {
  if (list === null) return <OneSample {...one} />;
  return <SampleList text={list} unit={unit} tried={tried} onChange={setList} />;
}

interface OneSampleProps {
  readonly sample: string;
  readonly setSample: (sample: string) => void;
  readonly bench: string | undefined;
  /** True where the cursor stands here at first. */
  readonly first: boolean;
}

function OneSample({ sample, setSample, bench, first }: OneSampleProps) {
  const say = useSay();
  return (
    <>
      <TextField
        name="sample"
        label={say`Sample`}
        autoFocus={first}
        value={sample}
        onChange={(event) => setSample(event.target.value)}
        helperText={say`its name or number`}
        slotProps={atMost}
      />
      <TextField name="bench" label={say`Bench or person`} defaultValue={bench} slotProps={atMost} />
    </>
  );
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

interface Option extends MethodChoice {
  readonly group: Phrase;
}

/** Methods in the order in which they are listed: those used last, then the library by family. */
function optionsOf(methods: readonly MethodChoice[]): Option[] {
  const recent = methods
    .filter((m) => m.recent !== null)
    .toSorted((a, b) => (a.recent ?? 0) - (b.recent ?? 0))
    .map((m) => ({ ...m, group: msg`Recent` }));
  const byFamily = Object.entries(familyTitles).flatMap(([family, group]) =>
    methods.filter((m) => m.family === family).map((m) => ({ ...m, group })),
  );
  return [...recent, ...byFamily];
}

interface MethodSearchProps {
  readonly methods: readonly MethodChoice[];
  readonly method: MethodChoice | null;
  readonly missing: boolean;
  readonly onChoose: (method: MethodChoice | null) => void;
}

/** The method, found by its name, a substance or its family. */
function MethodSearch({ methods, method, missing, onChoose }: MethodSearchProps) {
  const say = useSay();
  const [options] = useState(() => optionsOf(methods));
  const chosen = options.find((option) => option.id === method?.id) ?? null;
  return (
    <Autocomplete
      options={options}
      value={chosen}
      onChange={(_event, option) => onChoose(option)}
      groupBy={({ group }) => say(group)}
      getOptionLabel={({ title }) => title}
      getOptionKey={({ id, group }) => `${say(group)} ${id}`}
      isOptionEqualToValue={(a, b) => a.id === b.id && a.group === b.group}
      filterOptions={(all, { inputValue }) => {
        const words = inputValue.toLowerCase().split(/\s+/).filter(Boolean);
        const found = all.filter((m) => words.every((word) => m.words.includes(word)));
        if (words.length === 0) return found;
        // Once something is typed, a method is listed once.
        const seen = new Set<string>();
        return found.filter(({ id }) => !seen.has(id) && seen.add(id));
      }}
      autoHighlight
      openOnFocus
      noOptionsText={say`No method found. Try a substance, such as NaOH.`}
      renderGroup={({ key, group, children }) => (
        <li key={key} role="presentation">
          <Box
            role="presentation"
            sx={{ px: 2, pt: 1, color: colors.inkSoft, fontWeight: 700, fontSize: "0.9rem" }}
          >
            {group}
          </Box>
          <Box component="ul" role="group" aria-label={group} sx={{ p: 0 }}>
            {children}
          </Box>
        </li>
      )}
      renderOption={({ key: _, ...props }, option) => (
        <Box component="li" key={`${say(option.group)} ${option.id}`} {...props} sx={{ minHeight: 44 }}>
          <Box sx={{ minWidth: 0 }}>
            <Box sx={{ lineHeight: 1.3 }}>{option.title}</Box>
            <Box
              sx={{ color: colors.inkSoft, fontSize: "0.9rem", overflow: "hidden", textOverflow: "ellipsis" }}
            >
              {prettyEquation(option.equation)}
            </Box>
          </Box>
        </Box>
      )}
      renderInput={(params) => (
        <TextField
          {...params}
          label={say`Method`}
          placeholder={say`name or substance`}
          autoFocus={method === null}
          error={missing}
          helperText={missing ? say`Choose a method` : method?.purpose}
        />
      )}
    />
  );
}

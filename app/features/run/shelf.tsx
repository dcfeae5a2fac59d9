import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import dayjs from "dayjs";
import { createContext, useContext, useState } from "react";
import { Link, useRevalidator } from "react-router";
import { substanceOf } from "~/catalog/substances";
import {
  type ComputedEvaluation,
  type FieldState,
  type Input,
  type RunRecord,
  uncapitalized,
} from "~/core/run";
import { concentrationText } from "~/formats/concentration";
import { howWords, type RunShelf, type SolutionView } from "~/formats/shelf";
import { colors, fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { When } from "../../ui/when";
import { FormDialog, ReasonField } from "./correct-dialog";
import type { Send } from "./use-run";

export const ShelfContext = createContext<RunShelf>({
  bottles: [],
  shelved: [],
  newer: [],
  recomputations: [],
});

/** Bottles that an input can be taken from. */
export const bottlesFor = (input: Input, { bottles }: RunShelf): SolutionView[] =>
  (input.is === "given" || input.is === "purity") && input.of !== undefined
    ? bottles.filter(
        (b) => b.formula === input.of && b.current?.unit === (input.is === "purity" ? "%" : input.unit),
      )
    : [];

interface TakeDialogProps {
  input: Input;
  bottles: readonly SolutionView[];
  stageKey: string;
  /** True where something was read already: then a reason is needed. */
  replaces: boolean;
  send: Send;
  onClose: () => void;
}

/** Picks a bottle of the shelf: its concentration comes with its ±. */
export function TakeDialog({ input, bottles, stageKey, replaces, send, onClose }: TakeDialogProps) {
  const [chosen, setChosen] = useState(bottles[0]?.id ?? "");
  const [reason, setReason] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const bottle = bottles.find((b) => b.id === chosen);
  const submit = () => {
    if (!bottle?.current) return setProblem("Choose a bottle");
    if (replaces && reason.trim() === "") return setProblem("Say why another one is taken");
    void send({
      intent: "take",
      stageKey,
      symbol: input.symbol,
      assignmentId: bottle.current.id,
      reason: replaces ? reason.trim() : null,
    }).then((answer) => (answer.status === "done" ? onClose() : setProblem(answer.message)));
  };
  return (
    <FormDialog title={`${input.label}: from the shelf`} submit="Take it" onSubmit={submit} onClose={onClose}>
      <TextField select label="Bottle" value={chosen} onChange={(e) => setChosen(e.target.value)}>
        {bottles.map((b) => (
          <MenuItem key={b.id} value={b.id} sx={{ whiteSpace: "normal" }}>
            {b.code} {b.name}, {b.current && concentrationText(b.current)}
          </MenuItem>
        ))}
      </TextField>
      {bottle?.current && (
        <Typography color="textSecondary">
          {howWords[bottle.current.how]}, <When at={bottle.current.at} />
        </Typography>
      )}
      {bottle?.state === "past its date" && (
        <Alert severity="warning">It is past its date: standardize it anew before you rely on it.</Alert>
      )}
      {replaces && (
        <ReasonField
          value={reason}
          usual={["another bottle", "standardized anew", "wrong bottle chosen"]}
          problem={null}
          onChange={setReason}
        />
      )}
      {problem && <Alert severity="error">{problem}</Alert>}
    </FormDialog>
  );
}

/** From which bottle a value came, where it came from one. */
export function FromBottle({ states, record }: { states: readonly FieldState[]; record: RunRecord }) {
  const id = states.find(({ present }) => present?.assignment)?.present?.assignment;
  const used = id ? record.solutions?.find((s) => s.assignmentId === id) : undefined;
  if (!used) return null;
  return (
    <Box component="span" sx={{ color: colors.inkSoft }}>
      from{" "}
      <Link to={`/shelf/${used.solutionId}`} style={{ color: colors.teal }}>
        {used.code}
      </Link>
      , {howWords[used.how]} <When at={used.at} />
    </Box>
  );
}

/** What a stage has found, to be put on the shelf: to a bottle there, or to a new one. */
export function ShelveButton({
  stage,
  record,
  send,
}: {
  stage: ComputedEvaluation;
  record: RunRecord;
  send: Send;
}) {
  const shelf = useContext(ShelfContext);
  const [open, setOpen] = useState(false);
  const { assigns } = stage.definition.result;
  if (assigns === undefined || !stage.done) return null;
  const put = shelf.shelved.filter((s) => s.stageKey === stage.key).at(-1);
  return (
    <>
      {put && (
        <Typography variant="body2" data-testid={`shelved-${stage.key}`}>
          On the shelf: <Link to={`/shelf/${put.solutionId}`}>{put.code}</Link> {put.name}
        </Typography>
      )}
      <Button
        variant={put ? "text" : "outlined"}
        size={put ? "small" : "medium"}
        sx={put ? { justifySelf: "start" } : {}}
        onClick={() => setOpen(true)}
      >
        {put ? "Put it on the shelf again" : "Put it on the shelf"}
      </Button>
      {open && (
        <ShelveDialog
          stage={stage}
          formula={assigns}
          record={record}
          send={send}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  );
}

/** What this run has fixed and not put on the shelf: said where it is finished. */
export function NotShelved({ stages }: { stages: readonly ComputedEvaluation[] }) {
  const { shelved } = useContext(ShelfContext);
  const waiting = stages.filter(
    (s) =>
      s.done && s.definition.result.assigns !== undefined && !shelved.some((put) => put.stageKey === s.key),
  );
  if (waiting.length === 0) return null;
  const names = waiting.map((s) => uncapitalized(s.definition.result.name)).join("; ");
  return (
    <Box component="span" sx={{ display: "block", color: colors.amberDeep }}>
      Not on the shelf yet: {names}. Put it there above where other runs are to use it.
    </Box>
  );
}

interface ShelveDialogProps {
  stage: ComputedEvaluation;
  formula: string;
  record: RunRecord;
  send: Send;
  onClose: () => void;
}

function ShelveDialog({ stage, formula, record, send, onClose }: ShelveDialogProps) {
  const { bottles } = useContext(ShelfContext);
  const { revalidate } = useRevalidator();
  const own = bottles.filter((b) => b.formula === formula && b.form === "solution");
  const substance = record.method.substances[formula] ?? formula;
  const days = substanceOf(formula)?.restandardizeDays;
  const [solutionId, setSolutionId] = useState(own[0]?.id ?? "");
  const [name, setName] = useState(substance);
  const [by, setBy] = useState(days === undefined ? "" : dayjs().add(days, "day").format("YYYY-MM-DD"));
  const [problem, setProblem] = useState<string | null>(null);
  const submit = () =>
    void send({
      intent: "shelve",
      stageKey: stage.key,
      solutionId: solutionId || null,
      name,
      restandardizeBy: by,
    }).then((answer) => {
      if (answer.status !== "done") return setProblem(answer.message);
      void revalidate();
      onClose();
    });
  return (
    <FormDialog
      title={`${stage.shown?.text ?? ""}: onto the shelf`}
      submit="Put it there"
      onSubmit={submit}
      onClose={onClose}
    >
      <TextField
        select
        label="Bottle"
        value={solutionId}
        onChange={(e) => setSolutionId(e.target.value)}
        helperText="What it was before stays in its history; finished runs keep what they used"
      >
        {own.map((b) => (
          <MenuItem key={b.id} value={b.id} sx={{ whiteSpace: "normal" }}>
            {b.code} {b.name}
            {b.current && `, now ${concentrationText(b.current)}`}
          </MenuItem>
        ))}
        <MenuItem value="">a new bottle of {substance}</MenuItem>
      </TextField>
      {solutionId === "" && <TextField label="Name" value={name} onChange={(e) => setName(e.target.value)} />}
      <TextField
        label="Standardize again by"
        type="date"
        value={by}
        onChange={(e) => setBy(e.target.value)}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      {problem && <Alert severity="error">{problem}</Alert>}
    </FormDialog>
  );
}

/** Bottles that this run used and that have been given another concentration since, and what that would make. */
export function NewerConcentrations({ record, send }: { record: RunRecord; send: Send }) {
  const { newer, recomputations } = useContext(ShelfContext);
  const { revalidate } = useRevalidator();
  const [problem, setProblem] = useState<string | null>(null);
  if (newer.length + recomputations.length === 0) return null;
  const finished = record.status !== "open";
  return (
    <Sheet
      component="section"
      aria-label="Concentrations since"
      sx={{ borderLeft: `6px solid ${colors.amber}` }}
    >
      {newer.map(({ code, solutionId, name, unit, was, now }) => (
        <Typography key={solutionId}>
          <Link to={`/shelf/${solutionId}`}>{code}</Link> {name} has been standardized anew since: {now}{" "}
          {unit}. This run keeps {was} {unit}.
        </Typography>
      ))}
      {newer.length > 0 && finished && (
        <Button
          variant="outlined"
          sx={{ mt: 1 }}
          onClick={() =>
            void send({ intent: "recompute" }).then((answer) => {
              setProblem(answer.status === "done" ? null : answer.message);
              void revalidate();
            })
          }
        >
          Recompute with the newest
        </Button>
      )}
      {problem && <Alert severity="error">{problem}</Alert>}
      {recomputations.map(({ id, at, changes, replaced }) => (
        <Box key={id} sx={{ mt: 1.5 }}>
          <Typography variant="h3">
            Computed again <When at={at} as="time" /> with {uncapitalized(replaced.join("; "))}
          </Typography>
          {changes.length === 0 && <Typography>Nothing changes that is shown.</Typography>}
          {changes.map(({ name, before, after }) => (
            <Typography key={name}>
              {name}: <span style={{ fontFamily: fonts.reading }}>{after}</span> instead of{" "}
              <span style={{ fontFamily: fonts.reading }}>{before}</span>
            </Typography>
          ))}
        </Box>
      ))}
    </Sheet>
  );
}

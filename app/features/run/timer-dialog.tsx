import Box from "@mui/material/Box";
import Chip from "@mui/material/Chip";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { type ComponentProps, useState } from "react";
import { v7 as newId } from "uuid";
import type { TrialEvaluation, ComputedEvaluation } from "~/core/stages";
import { type Wait, usualWaits } from "~/core/method";
import { capitalized, type Phrase } from "~/core/text";
import { useRunInHand } from "../../entry/run-context";
import { isTaken } from "../../live/post";
import { fonts } from "../../theme/theme";
import { numberIn } from "../../ui/number-in";
import { FormDialog } from "../../ui/form-dialog";
import { useSay } from "../../words/text";

interface TimerDialogProps {
  stage: ComputedEvaluation;
  onClose: () => void;
}

/** Sets a timer for the stage or for one of its flasks: what the method asks for is offered, anything else can be typed. */
export function TimerDialog({ stage, onClose }: TimerDialogProps) {
  const say = useSay();
  const { send } = useRunInHand();
  const conditions = stage.definition.conditions ?? [];
  const usual = usualWaits(conditions);
  const flasks = stage.kind === "titration" ? stage.trials.filter((t) => !t.record.struck) : [];
  const [form, setForm] = useState({ what: usual[0]?.what ?? "", minutes: String(usual[0]?.minutes ?? 1) });
  const [flask, setFlask] = useState("");
  const [problem, setProblem] = useState<{ at: "what" | "minutes"; message: Phrase } | null>(null);
  const submit = () => {
    const minutes = numberIn(form.minutes);
    if (form.what.trim() === "") return setProblem({ at: "what", message: say`Say what it is for` });
    if (minutes === null || minutes * 60 < 1 || minutes > 7 * 24 * 60) {
      return setProblem({ at: "minutes", message: say`A time in minutes, as 15 or 0.5` });
    }
    const known = usual.find((u) => u.what === form.what.trim() && u.minutes === minutes);
    const chosen = flasks.find((t) => t.id === flask);
    void send({
      intent: "start-timer",
      id: newId(),
      stageKey: stage.key,
      trialId: chosen?.id ?? null,
      what: form.what.trim(),
      flask: chosen ? say(chosen.words) : "",
      counts: known?.counts ?? "for",
      seconds: minutes * 60,
      strict: known?.strict ?? false,
      inSeconds: null,
    }).then((answer) => {
      if (isTaken(answer)) onClose();
      else setProblem({ at: "what", message: answer.message });
    });
  };
  const field = (name: keyof typeof form, label: string, input: ComponentProps<"input">) => (
    <TextField
      label={label}
      value={form[name]}
      error={problem?.at === name}
      helperText={problem?.at === name ? say(problem.message) : undefined}
      onChange={(event) => setForm({ ...form, [name]: event.target.value })}
      slotProps={{ htmlInput: input }}
    />
  );
  return (
    <FormDialog title={say`Set a timer`} submit={say`Start it`} onSubmit={submit} onClose={onClose}>
      <UsualWaits usual={usual} form={form} setForm={setForm} />
      {field("what", say`What for`, { maxLength: 160 })}
      {field("minutes", say`Minutes`, { inputMode: "decimal", style: { fontFamily: fonts.reading } })}
      {flasks.length > 0 && <FlaskChoice flask={flask} setFlask={setFlask} flasks={flasks} />}
    </FormDialog>
  );
}

interface FlaskChoiceProps {
  readonly flask: string;
  readonly setFlask: (to: string) => void;
  readonly flasks: TrialEvaluation[];
}

function FlaskChoice({ flask, setFlask, flasks }: FlaskChoiceProps) {
  const say = useSay();
  return (
    <TextField
      select
      label={say`For`}
      value={flask}
      onChange={(event) => setFlask(event.target.value)}
      slotProps={{
        inputLabel: { shrink: true },
        select: { displayEmpty: true },
        htmlInput: { "aria-label": say`For` },
      }}
    >
      <MenuItem value="">{say`the whole stage`}</MenuItem>
      {flasks.map((t) => (
        <MenuItem key={t.id} value={t.id}>
          {say(capitalized(t.words))}
        </MenuItem>
      ))}
    </TextField>
  );
}

interface UsualWaitsProps {
  readonly usual: Wait[];
  readonly form: { what: string; minutes: string };
  readonly setForm: (to: { what: string; minutes: string }) => void;
}

function UsualWaits({ usual, form, setForm }: UsualWaitsProps) {
  const say = useSay();
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1 }}>
      {usual.map(({ what, minutes, counts }) => (
        <Chip
          key={what}
          label={say`${what}, ${counts === "within" ? say`within ` : ""}${minutes} min`}
          color={form.what === what ? "primary" : "default"}
          variant={form.what === what ? "filled" : "outlined"}
          onClick={() => setForm({ what, minutes: String(minutes) })}
        />
      ))}
    </Box>
  );
}

import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { v7 as newId } from "uuid";
import { type Stagger, clockText, durationText, planStagger } from "~/core/timing";
import type { Condition } from "~/core/method";
import { useRunInHand } from "../../../entry/run-context";
import { isTaken } from "../../../live/post";
import { colors, fonts } from "../../../theme/theme";
import { numberIn } from "../../../ui/number-in";
import { FormDialog } from "../../../ui/form-dialog";
import { useSay } from "../../../words/text";
import { type Phrase } from "~/core/text";

interface StaggerDialogProps {
  standing: Condition;
  stageKey: string;
  /** The number that the first of them will be called by. */
  first: number;
  onClose: () => void;
}

const minutes = (text: string) => (numberIn(text) ?? NaN) * 60;

/** When to start each of several standing flasks, so that none waits for the burette; sets their timers. */
export function StaggerDialog({ standing, stageKey, first, onClose }: StaggerDialogProps) {
  const say = useSay();
  const { send } = useRunInHand();
  const { form, setForm, plan, setProblem, problem } = useStagger(standing);
  const field = (name: keyof typeof form, label: string) => (
    <TextField
      label={label}
      value={form[name]}
      onChange={(event) => setForm({ ...form, [name]: event.target.value })}
      slotProps={{ htmlInput: { inputMode: "decimal", style: { fontFamily: fonts.reading } } }}
    />
  );
  const submit = () => {
    if (!plan.ok) return setProblem(plan.problem.message);
    const sent = plan.value.flasks.map(({ flask, startAt }) =>
      send({
        intent: "start-timer",
        id: newId(),
        stageKey,
        trialId: newId(),
        what: standing.what,
        flask: say`flask ${first + flask - 1}`,
        counts: "for",
        seconds: minutes(form.standing),
        strict: standing.strict ?? false,
        inSeconds: Math.round(startAt),
      }),
    );
    void Promise.all(sent).then((answers) => {
      const wrong = answers.find((a) => !isTaken(a));
      if (wrong && "message" in wrong) setProblem(wrong.message);
      else onClose();
    });
  };
  return (
    <FormDialog
      title={say`Stagger several flasks`}
      submit={say`Set these timers`}
      onSubmit={submit}
      onClose={onClose}
    >
      <Typography color="textSecondary">
        {say`Each flask stands its time, none waits, and starts and titrations never overlap.`}
      </Typography>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: "1fr 1fr" }}>
        {field("flasks", say`Flasks`)}
        {field("standing", say`Each stands, min`)}
        {field("titration", say`One titration takes, min`)}
        {field("starting", say`Starting one takes, min`)}
        {field("available", say`Time in all, min (if limited)`)}
      </Box>
      <Box role="status">
        {plan.ok ? (
          <StaggerTable plan={plan} first={first} />
        ) : (
          <Box sx={{ color: colors.brick, fontWeight: 600 }}>{say(plan.problem.message)}</Box>
        )}
        {problem !== null && plan.ok && (
          <Box sx={{ color: colors.brick, fontWeight: 600 }}>{say(problem)}</Box>
        )}
      </Box>
    </FormDialog>
  );
}

function StaggerTable({
  plan,
  first,
}: {
  readonly plan: { readonly ok: true; readonly value: Stagger };
  readonly first: number;
}) {
  const say = useSay();
  return (
    <>
      <Box
        component="table"
        sx={{
          width: 1,
          borderCollapse: "collapse",
          "& th, & td": { textAlign: "left", py: 0.5 },
          "& td + td": { fontFamily: fonts.reading },
          "& th": { color: colors.inkSoft, fontWeight: 600 },
        }}
      >
        <thead>
          <tr>
            {["", "start", "titrate", "done"].map((head) => (
              <th key={head} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {plan.value.flasks.map(({ flask, startAt, titrateAt, endAt }) => (
            <tr key={flask}>
              <td>{say`Flask ${first + flask - 1}`}</td>
              <td>{clockText(startAt)}</td>
              <td>{clockText(titrateAt)}</td>
              <td>{clockText(endAt)}</td>
            </tr>
          ))}
        </tbody>
      </Box>
      <Typography sx={{ mt: 1 }}>
        {say`${durationText(plan.value.total)} in all, one start every ${durationText(plan.value.every)}${plan.value.how === "in turn" ? say`, between two titrations` : ""}. Times count from now, in minutes.`}
      </Typography>
    </>
  );
}

function useStagger(standing: Condition) {
  const [form, setForm] = useState({
    flasks: "3",
    standing: String(standing.minutes ?? ""),
    titration: "5",
    starting: "1",
    available: "",
  });
  const [problem, setProblem] = useState<Phrase | null>(null);
  const plan = planStagger({
    flasks: numberIn(form.flasks) ?? NaN,
    standing: minutes(form.standing),
    titration: minutes(form.titration),
    starting: minutes(form.starting),
    available: form.available.trim() === "" ? null : minutes(form.available),
  });
  return { form, setForm, plan, setProblem, problem };
}

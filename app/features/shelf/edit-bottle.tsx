import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { useFetcher } from "react-router";
import type { EditSolution, FormProblems, SolutionView } from "~/protocol/shelf";
import { type WhoWhyState, useWhoWhy, WhoWhy } from "../../ui/who-why";
import { Sheet } from "../../ui/sheet";
import { TextInput } from "../../ui/text-input";
import { useFormState } from "./use-form";
import { useSay } from "../../words/text";
import { unitText } from "~/core/text";

interface Answer {
  readonly problems: FormProblems;
}

const none: FormProblems = {};

/** What is told of a bottle beside its concentration, to change; what somebody else saved meanwhile is told, not overwritten. */
export function EditBottle({ solution }: { solution: SolutionView }) {
  const say = useSay();
  const fetcher = useFetcher<Answer>();
  const problems = fetcher.data?.problems ?? none;
  const { set, values, field } = useBottleForm(solution, problems);
  const by = useWhoWhy();
  const [usedUp, setUsedUp] = useState(solution.state === "used up");
  // The revision that was looked at: it moves on only when this form has been answered.
  const [revision, setRevision] = useState(solution.revision);
  const [answered, setAnswered] = useState(fetcher.data);
  if (fetcher.data !== answered && fetcher.state === "idle") {
    setAnswered(fetcher.data);
    setRevision(solution.revision);
    // What was saved has its reason: the next change has one of its own.
    if (fetcher.data && Object.keys(fetcher.data.problems).length === 0) set({ reason: "" });
  }
  const save = () => {
    const request = editOf(revision, values, usedUp, by);
    by.remember();
    void fetcher.submit(JSON.stringify(request), { method: "post", encType: "application/json" });
  };
  const saved = fetcher.state === "idle" && fetcher.data && Object.keys(problems).length === 0;
  return (
    <Sheet component="section" aria-label={say`Edit this bottle`}>
      <Typography variant="h2" sx={{ mb: 1.5 }}>
        {say`Keep it up to date`}
      </Typography>
      <Box sx={{ display: "grid", gap: 1.75 }}>
        <TextInput label={say`Name on the label`} field={field("name")} />
        <TextInput label={say`Left, ${unitText(solution.amountUnit)}`} field={field("amountLeft")} number />
        <TextInput label={say`Restandardize by`} field={field("restandardizeBy")} type="date" />
        <TextInput label={say`Hazard words`} field={field("hazards")} />
        <TextInput label={say`Note`} field={field("note")} multiline />
        <FormControlLabel
          control={<Checkbox checked={usedUp} onChange={(event) => setUsedUp(event.target.checked)} />}
          label={say`Used up`}
        />
        <WhoWhy
          state={{ ...by, reason: values.reason ?? "", setReason: field("reason").change }}
          problems={{
            person: by.person.trim() === "" ? problems.person : undefined,
            reason: field("reason").problem,
          }}
          why={say`What changed, and why`}
        />
        {problems.form && <StandsNow problems={problems} revision={revision} solution={solution} />}
        <Box sx={{ display: "flex", gap: 1.5, alignItems: "center" }}>
          <Button variant="contained" onClick={save} disabled={fetcher.state !== "idle"}>
            {say`Save`}
          </Button>
          <Box role="status">{saved ? say`Saved.` : ""}</Box>
        </Box>
      </Box>
    </Sheet>
  );
}

interface StandsNowProps {
  readonly problems: FormProblems;
  readonly revision: number;
  readonly solution: SolutionView;
}

function StandsNow({ problems, revision, solution }: StandsNowProps) {
  const say = useSay();
  return (
    <Alert severity="warning">
      {problems.form && say(problems.form)}
      {revision === solution.revision && (
        <>
          {say`: now it says ${solution.name}`}
          {solution.amountLeft !== null &&
            say`, ${Number(solution.amountLeft)} ${unitText(solution.amountUnit)} left`}
          .
        </>
      )}
    </Alert>
  );
}

function editOf(
  revision: number,
  values: Readonly<Record<string, string>>,
  usedUp: boolean,
  by: WhoWhyState,
): EditSolution {
  return {
    intent: "edit",
    revision,
    name: values.name ?? "",
    amountLeft: values.amountLeft ?? "",
    restandardizeBy: values.restandardizeBy ?? "",
    hazards: values.hazards ?? "",
    note: values.note ?? "",
    usedUp,
    person: by.person,
    reason: values.reason ?? "",
  };
}

function useBottleForm(solution: SolutionView, problems: FormProblems) {
  const { values, field, set } = useFormState(
    {
      name: solution.name,
      amountLeft: solution.amountLeft === null ? "" : String(Number(solution.amountLeft)),
      restandardizeBy: solution.restandardizeBy ?? "",
      hazards: solution.hazards,
      note: solution.note,
      reason: "",
    },
    problems,
  );
  return { set, values, field };
}

import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMemo, useState } from "react";
import { Link, useFetcher } from "react-router";
import { rulesPresets } from "~/catalog/rules/presets";
import { type HouseRules, type RuleGroup, ruleGroups, type RuleTexts, textsOfRules } from "~/core/rules";
import type { RunRecord } from "~/core/run";
import { pageMargins } from "../../ui/page";
import { WhoWhy, useWhoWhy } from "../../ui/who-why";
import { Sheet } from "../../ui/sheet";
import { type FormProblems, rulesOfTexts } from "./form";
import { RuleField } from "./rule-field";
import { Presets } from "./presets";
import { RulesPreview } from "./rules-preview";
import { useSay } from "../../words/text";

interface HouseRulesPageProps {
  rules: HouseRules;
  /** The one run that these rules are for; null for the lab's. */
  run: RunRecord | null;
  /** Open runs, the one last worked on first. */
  openRuns: readonly RunRecord[];
}

export interface RulesAnswer {
  readonly problems: FormProblems;
  readonly saved: boolean;
}

/** The conventions of the lab, or of one run: each with a line on it, and their effect on open runs beside. */
export function HouseRulesPage({ rules, run, openRuns }: HouseRulesPageProps) {
  const say = useSay();
  const form = useRulesForm(rules, run, openRuns);
  return (
    <Box component="main" sx={pageMargins}>
      <Typography variant="h1">
        {say`House rules`}
        {run && say` for ${run.title}`}
      </Typography>
      <Typography color="textSecondary" sx={{ mb: 2 }}>
        {run ? (
          <>
            {say`For this run alone; the`} <Link to="/house-rules">{say`rules of the lab`}</Link>{" "}
            {say`stay as they are.`} <Link to={`/runs/${run.id}`}>{say`Back to the run`}</Link>
          </>
        ) : (
          say`How this lab takes readings and judges trials. Runs keep the rules they started with; a run can have its own.`
        )}
      </Typography>
      <Presets
        presets={rulesPresets}
        texts={form.texts}
        onChoose={(chosenRules) => form.setTexts(textsOfRules(chosenRules))}
      />
      <Box
        sx={{
          display: "grid",
          gap: 2,
          alignItems: "start",
          gridTemplateColumns: { xs: "minmax(0,1fr)", lg: "minmax(0,1fr) 380px" },
        }}
      >
        <Box sx={{ columnCount: { xs: 1, md: 2 }, columnGap: 2 }}>
          {ruleGroups.map((group) => (
            <Group
              key={say(group.title)}
              group={group}
              texts={form.texts}
              problems={form.problems}
              onChange={form.set}
            />
          ))}
        </Box>
        <Box sx={{ position: { lg: "sticky" }, top: 12, display: "grid", gap: 2 }}>
          <RulesPreview runs={form.runs} chosen={form.chosen} onChoose={form.setTryOn} rules={form.typed} />
          <WhoWhy state={form.by} problems={form.messages} person={run === null} why={say`Why it changes`} />
          <Button
            variant="contained"
            size="large"
            onClick={form.save}
            disabled={form.fetcher.state !== "idle"}
          >
            {run ? say`Save for this run` : say`Save house rules`}
          </Button>
          <SaveOutcome saved={form.saved} run={run} problems={form.problems} />
        </Box>
      </Box>
    </Box>
  );
}

interface SaveOutcomeProps {
  readonly saved: boolean;
  readonly run: RunRecord | null;
  readonly problems: FormProblems;
}

function SaveOutcome({ saved, run, problems }: SaveOutcomeProps) {
  const say = useSay();
  return (
    <Box role="status">
      {saved && (
        <Alert severity="success">
          {run
            ? say`Saved for this run. Undo there takes it back.`
            : say`Saved. Runs begun from now on follow them.`}
        </Alert>
      )}
      {problems.form && <Alert severity="error">{say(problems.form)}</Alert>}
      {!problems.form && Object.keys(problems).length > 0 && (
        <Alert severity="error">{say`Not saved yet: look at the fields marked above.`}</Alert>
      )}
    </Box>
  );
}

function useRulesForm(rules: HouseRules, run: RunRecord | null, openRuns: readonly RunRecord[]) {
  const fetcher = useFetcher<RulesAnswer>();
  const [texts, setTexts] = useState(() => textsOfRules(rules));
  const [tryOn, setTryOn] = useState(run?.id ?? openRuns[0]?.id ?? "");
  const read = useMemo(() => rulesOfTexts(texts), [texts]);
  const typed = "rules" in read ? read.rules : null;
  // What is wrong shows where it is typed; the server, which looks again, has the last word.
  const problems: FormProblems = { ...fetcher.data?.problems, ...("problems" in read ? read.problems : {}) };
  const by = useWhoWhy();
  // What was saved has its reason: the next change has one of its own.
  const [answered, setAnswered] = useState(fetcher.data);
  if (fetcher.data !== answered) {
    setAnswered(fetcher.data);
    if (fetcher.data?.saved) by.setReason("");
  }
  // Beside who and why it stands until something is typed there.
  const messages = {
    person: by.person.trim() === "" ? problems.person : undefined,
    reason: by.reason.trim() === "" ? problems.reason : undefined,
  };
  const runs = run ? [run] : openRuns;
  const chosen = runs.find((r) => r.id === tryOn) ?? runs[0] ?? null;
  const same = typed !== null && JSON.stringify(textsOfRules(typed)) === JSON.stringify(textsOfRules(rules));
  const saved = fetcher.data?.saved === true && same;
  const set = (name: string, value: string) => setTexts((now) => ({ ...now, [name]: value }));
  const save = () => {
    if (!typed) return;
    void fetcher.submit({ ...texts, person: by.person, reason: by.reason }, { method: "post" });
    by.remember();
  };
  return {
    texts,
    setTexts,
    problems,
    set,
    runs,
    chosen,
    setTryOn,
    typed,
    by,
    messages,
    save,
    fetcher,
    saved,
  };
}

interface GroupProps {
  group: RuleGroup;
  texts: RuleTexts;
  problems: FormProblems;
  onChange: (name: string, value: string) => void;
}

/** Rules that belong together, with a line on what they are for. */
function Group({ group: { title, note, fields }, texts, problems, onChange }: GroupProps) {
  const say = useSay();
  return (
    <Sheet component="section" sx={{ p: { xs: 2, sm: 2.5 }, mb: 2, breakInside: "avoid" }}>
      <Typography variant="h2">{say(title)}</Typography>
      <Typography variant="body2" color="textSecondary" sx={{ mb: 2 }}>
        {say(note)}
      </Typography>
      <Box sx={{ display: "grid", gap: 2 }}>
        {fields
          .filter(({ when }) => when === undefined || when(texts))
          .map((definition) => (
            <RuleField
              key={definition.name}
              definition={definition}
              value={texts[definition.name] ?? ""}
              problem={problems[definition.name]}
              onChange={(value) => onChange(definition.name, value)}
            />
          ))}
      </Box>
    </Sheet>
  );
}

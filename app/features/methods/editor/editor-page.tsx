import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useDeferredValue, useMemo, useState, useSyncExternalStore } from "react";
import { Link } from "react-router";
import type { MethodProblem } from "~/core/stages";
import { problemInStage } from "~/words/method-problems";
import type { HouseRules } from "~/core/rules";
import type { Method } from "~/core/method";
import { unusedIn } from "./hints";
import { missingIn } from "./missing";
import { check, preview } from "./preview";
import { Page } from "../../../ui/page";
import { methodOf } from "./draft";
import type { MethodDraft, StageDraft } from "./draft-types";
import { starters } from "./kinds/table";
import { StageEditor } from "./stage-editor";
import { renamed } from "./rename";
import { withStage } from "./starters";
import { WhatItIs, ReactionSheet, BesideTheDraft, SafetySheet } from "./method-sheets";
import { useSay } from "../../../words/text";
import { inEnglish, type Phrase } from "~/core/text";

interface EditorPageProps {
  initial: MethodDraft;
  /** What is said above: whether it is new, a copy, or a next version. */
  heading: { readonly title: string; readonly note: string; readonly back: string };
  rules: HouseRules;
}

/** The guided editor: equation first, then stages; problems of the check in words, beside a live preview. */
export function EditorPage({ initial, heading, rules }: EditorPageProps) {
  const say = useSay();
  const [draft, setDraft] = useState(initial);
  const method = useMemo(() => methodOf(draft), [draft]);
  const problem = useMemo(() => check(method), [method]);
  const missing = useMemo(() => missingIn(method, problem), [method, problem]);
  const unused = useMemo(() => unusedIn(method), [method]);
  // Titrating at a simulated bench takes a while: never on the server, and behind the keys that are typed.
  const shown = usePreview(problem, method, rules);
  const change = (changes: Partial<MethodDraft>) => setDraft((before) => ({ ...before, ...changes }));
  const changeStage = (index: number, changes: Partial<StageDraft>) =>
    setDraft((before) => ({
      ...before,
      stages: before.stages.map((stage, i) => (i === index ? { ...stage, ...changes } : stage)),
    }));
  const stageProblem = problemsByStage(problem);
  return (
    <Page
      title={heading.title}
      note={heading.note}
      width={1400}
      actions={
        <Button component={Link} to={heading.back} variant="outlined">
          {say`Leave without saving`}
        </Button>
      }
    >
      <Box
        sx={{
          display: "grid",
          gap: 2,
          alignItems: "start",
          gridTemplateColumns: { xs: "minmax(0,1fr)", lg: "minmax(0,1fr) 400px" },
        }}
      >
        <Box sx={{ display: "grid", gap: 2, minWidth: 0, gridTemplateColumns: "minmax(0,1fr)" }}>
          <WhatItIs draft={draft} change={change} />
          <ReactionSheet draft={draft} change={change} />
          {draft.stages.map((stage, index) => (
            <StageEditor
              key={stage.key}
              stage={stage}
              number={index + 1}
              earlier={draft.stages.slice(0, index).map((s) => ({ value: s.key, label: s.title }))}
              substances={draft.substances}
              problem={stageProblem(index)}
              onChange={(changes) => changeStage(index, changes)}
              onRename={(before, after) => setDraft((now) => renamed(now, index, before, after))}
              onRemove={
                draft.stages.length > 1
                  ? () => change({ stages: draft.stages.filter((_, i) => i !== index) })
                  : null
              }
            />
          ))}
          <AddStage onAdd={setDraft} />
          <SafetySheet draft={draft} change={change} />
        </Box>
        <BesideTheDraft method={method} problem={problem} missing={missing} unused={unused} shown={shown} />
      </Box>
    </Page>
  );
}

function problemsByStage(problem: MethodProblem | null) {
  return (index: number): Phrase | null =>
    problem?.path[0] === "stages" && problem.path[1] === index ? problemInStage(problem) : null;
}

function AddStage({ onAdd }: { readonly onAdd: (add: (draft: MethodDraft) => MethodDraft) => void }) {
  const say = useSay();
  return (
    <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
      {starters.map(({ kind, starter }) => (
        <Button
          key={inEnglish(starter.button)}
          variant="outlined"
          onClick={() => onAdd((draft) => withStage(draft, kind, starter))}
        >
          {say(starter.button)}
        </Button>
      ))}
    </Box>
  );
}

function usePreview(problem: MethodProblem | null, method: Method, rules: HouseRules) {
  const hydrated = useSyncExternalStore(
    () => () => {},
    () => true,
    () => false,
  );
  const settled = useDeferredValue(hydrated && !problem ? method : null);
  return useMemo(() => settled && preview(settled, rules), [settled, rules]);
}

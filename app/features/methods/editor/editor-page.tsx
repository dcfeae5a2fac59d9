import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useDeferredValue, useMemo, useState, useSyncExternalStore } from "react";
import { Link } from "react-router";
import type { MethodProblem } from "~/core/stages";
import { type Result, problemText } from "~/core/result";
import { problemInStage } from "~/words/method-problems";
import type { HouseRules } from "~/core/rules";
import type { Method } from "~/core/method";
import { type Preview, check, gaps, preview } from "./preview";
import { fonts } from "../../../theme/theme";
import { Page } from "../../../ui/page";
import { Sheet } from "../../../ui/sheet";
import { substanceColumns } from "./columns";
import { methodOf } from "./draft";
import type { MethodDraft, StageDraft } from "./draft-types";
import { begunKinds, editedKind } from "./kinds/table";
import { Equations } from "./equations";
import { PreviewPanel } from "./preview-panel";
import { SavePanel } from "./save-panel";
import { Rows } from "./rows";
import { StageEditor } from "./stage-editor";
import { newStage } from "./starters";

interface EditorPageProps {
  initial: MethodDraft;
  /** What is said above: whether it is new, a copy, or a next version. */
  heading: { readonly title: string; readonly note: string; readonly back: string };
  rules: HouseRules;
}

/** The guided editor: equation first, then stages; what does not hold together is told in words, beside a live preview. */
export function EditorPage({ initial, heading, rules }: EditorPageProps) {
  const [draft, setDraft] = useState(initial);
  const method = useMemo(() => methodOf(draft), [draft]);
  const problem = useMemo(() => check(method), [method]);
  const missing = useMemo(() => gaps(method), [method]);
  // Titrating at a simulated bench takes a while: never on the server, and behind the keys that are typed.
  const shown = usePreview(problem, method, rules);
  const change = (changes: Partial<MethodDraft>) => setDraft((before) => ({ ...before, ...changes }));
  const changeStage = (index: number, changes: Partial<StageDraft>) =>
    setDraft((before) => ({
      ...before,
      stages: before.stages.map((stage, i) => (i === index ? { ...stage, ...changes } : stage)),
    }));
  const addStage = stageAdder(draft, change);
  const stageProblem = problemsByStage(problem);
  return (
    <Page
      title={heading.title}
      note={heading.note}
      width={1400}
      actions={
        <Button component={Link} to={heading.back} variant="outlined">
          Leave without saving
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
              onRemove={
                draft.stages.length > 1
                  ? () => change({ stages: draft.stages.filter((_, i) => i !== index) })
                  : null
              }
            />
          ))}
          <AddStage addStage={addStage} />
          <SafetySheet draft={draft} change={change} />
        </Box>
        <BesideTheDraft method={method} problem={problem} missing={missing} shown={shown} />
      </Box>
    </Page>
  );
}

function problemsByStage(problem: MethodProblem | null) {
  return (index: number): string | null =>
    problem?.path[0] === "stages" && problem.path[1] === index ? problemInStage(problem) : null;
}

function WhatItIs({ draft, change }: SheetProps) {
  return (
    <Sheet component="section" aria-label="What it is" sx={{ p: 2.25, display: "grid", gap: 1.75 }}>
      <Typography variant="h2">What it is</Typography>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "2fr 1fr" } }}>
        <TextField
          size="small"
          label="Title"
          value={draft.title}
          onChange={(event) => change({ title: event.target.value })}
        />
        <TextField
          select
          size="small"
          label="Family"
          value={draft.family}
          onChange={(event) => change({ family: event.target.value as Method["family"] })}
        >
          {["acid-base", "redox", "complexometric", "colorimetric"].map((family) => (
            <MenuItem key={family} value={family}>
              {family}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      <TextField
        size="small"
        label="What it is for"
        value={draft.purpose}
        onChange={(event) => change({ purpose: event.target.value })}
        multiline
      />
    </Sheet>
  );
}

function ReactionSheet({ draft, change }: SheetProps) {
  return (
    <Sheet component="section" aria-label="Reaction" sx={{ p: 2.25 }}>
      <Typography variant="h2" sx={{ mb: 1.5 }}>
        Reaction
      </Typography>
      <Equations rows={draft.equations} onChange={(equations) => change({ equations })} />
      <Typography variant="h3" sx={{ mt: 2, mb: 1 }}>
        Substances by name
      </Typography>
      <Rows
        name="Substance"
        rows={draft.substances}
        columnsOf={() => substanceColumns}
        fresh={{ formula: "", name: "" }}
        onChange={(substances) => change({ substances })}
      />
    </Sheet>
  );
}

function AddStage({ addStage }: { readonly addStage: (kind: StageDraft["kind"]) => void }) {
  return (
    <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
      {begunKinds.map(({ kind, starter }) => (
        <Button key={kind} variant="outlined" onClick={() => addStage(kind)}>
          {starter.button}
        </Button>
      ))}
    </Box>
  );
}

interface BesideTheDraftProps {
  readonly method: Method;
  readonly problem: MethodProblem | null;
  readonly missing: string[];
  readonly shown: Result<Preview> | null;
}

function BesideTheDraft({ method, problem, missing, shown }: BesideTheDraftProps) {
  return (
    <Box
      sx={{
        position: { lg: "sticky" },
        top: 12,
        display: "grid",
        gap: 2,
        maxHeight: { lg: "96vh" },
        overflowY: "auto",
      }}
    >
      <SavePanel
        method={method}
        problem={problem}
        markedInStage={problem?.path[0] === "stages"}
        missing={missing}
      />
      <Sheet component="section" aria-label="Preview from made-up readings">
        <Typography variant="h2">Preview</Typography>
        <Typography variant="body2" color="textSecondary" sx={{ mb: 1 }}>
          From made-up readings at a simulated bench.
        </Typography>
        {shown === null && <Typography>It comes when the method holds together.</Typography>}
        {shown && !shown.ok && <Typography>{problemText(shown.problem)}.</Typography>}
        {shown?.ok && <PreviewPanel preview={shown.value} />}
      </Sheet>
      <Typography variant="body2" color="textSecondary" sx={{ fontFamily: fonts.text }}>
        How relations are written: letters, + − * / ^, units in brackets as in 25 [°C], M(NaCl), ratio(HCl,
        NaOH), equivalents(MnO4-), ln, log10, sqrt, mean, min, max.
      </Typography>
    </Box>
  );
}

function stageAdder(draft: MethodDraft, change: (changes: Partial<MethodDraft>) => void) {
  return (kind: StageDraft["kind"]) => {
    const taken = new Set(draft.stages.map((s) => s.key));
    let n = draft.stages.length + 1;
    while (taken.has(`stage-${n}`)) n++;
    const fresh = newStage(`stage-${n}`, kind);
    const first = editedKind({ kind }).starter?.first;
    change({ stages: first ? [fresh, ...draft.stages] : [...draft.stages, fresh] });
  };
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

interface SheetProps {
  readonly draft: MethodDraft;
  readonly change: (changes: Partial<MethodDraft>) => void;
}

function SafetySheet({ draft, change }: SheetProps) {
  const lines = (key: "protection" | "hazards" | "waste" | "glassware", label: string) => (
    <TextField
      size="small"
      label={label}
      value={draft[key]}
      onChange={(event) => change({ [key]: event.target.value })}
      helperText="one on a line"
      multiline
      minRows={3}
    />
  );
  return (
    <Sheet component="section" aria-label="Safety and glassware" sx={{ p: 2.25 }}>
      <Typography variant="h2" sx={{ mb: 1.5 }}>
        Safety and glassware
      </Typography>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
        {lines("hazards", "What can hurt")}
        {lines("protection", "Wear")}
        {lines("waste", "Waste")}
        {lines("glassware", "Glassware and instruments")}
      </Box>
    </Sheet>
  );
}

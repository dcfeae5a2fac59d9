import { type NavigateFunction, useNavigate, useSearchParams } from "react-router";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import { lazy, Suspense, useCallback, useMemo, useState, useEffect } from "react";
import type { RunEvaluation } from "~/core/stages";
import { concluding } from "~/core/method";
import { evaluateRun } from "~/core/evaluate";
import type { RunState } from "~/protocol/answers";
import type { RunShelf } from "~/protocol/shelf";
import { type LiveRun, type Send, useRun } from "../../entry/use-run";
import { useCurvesRead } from "../../entry/curve-reader";
import { CursorRoot } from "../../entry/cursor";
import { RunProvider } from "../../entry/run-context";
import { Chain } from "../../ui/chain";
import { Contained } from "../../ui/contained";
import { RunHeader } from "./run-header";
import { ShelfContext } from "../stages/shared/shelf-context";
import { type Shortcut, ShortcutsDialog, useShortcuts } from "./shortcuts";
import { StageView } from "../stages/table";
import { useSay } from "../../words/text";

// What the server could not take is told once the page is there.
const KeptPanel = lazy(() => import("./kept-panel").then((m) => ({ default: m.KeptPanel })));
// A run is worked at before it is concluded: this comes when somebody goes there.
const ConcludeStageView = lazy(() =>
  import("./conclude/conclude-stage").then((m) => ({ default: m.ConcludeStageView })),
);

/** One run: its chain on top, below it the working place of the stage that is looked at. */
export function RunPage({ loaded, shelf }: { loaded: RunState; shelf: RunShelf }) {
  const say = useSay();
  const run = useRun(loaded);
  const { record, undo, redo, send } = run;
  const curvesRead = useCurvesRead();
  const evaluation = useMemo(() => ({ ...evaluateRun(record), curvesRead }), [record, curvesRead]);
  const { failures } = evaluation;
  useEffect(
    () => failures.forEach(({ stageKey, error }) => console.error(`Stage ${stageKey}:`, error)),
    [failures],
  );
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const [helping, setHelping] = useState(false);
  // The stage first looked at stays in view when its set closes: going on is the person's decision.
  const [entered] = useState(evaluation.currentStage);
  const asked = search.get("stage");
  const viewed = evaluation.chain.find(({ key }) => key === asked)?.key ?? entered;
  const stage = evaluation.stages.find(({ key }) => key === viewed);

  const shortcuts = useRunShortcuts({ evaluation, viewed, navigate, undo, redo, send });
  const help = useCallback(() => setHelping(true), []);
  useShortcuts(shortcuts, help);

  return (
    <CursorRoot>
      <RunProvider run={run}>
        <ShelfContext value={shelf}>
          <RunHeader stage={stage} onShortcuts={help} />
          {run.trouble && (
            <Alert severity="error" sx={{ mb: 1 }}>
              {say(run.trouble)}
            </Alert>
          )}
          <Suspense>
            <KeptPanel />
          </Suspense>
          <Chain beads={evaluation.chain} viewed={viewed} hrefOf={(key) => `?stage=${key}`} />
          {stage && failures.some((f) => f.stageKey === viewed) && (
            <Alert severity="error" sx={{ mb: 1 }}>
              {stage.problem && say(stage.problem)}.
            </Alert>
          )}
          <Contained
            name={viewed}
            message={say`This stage cannot be shown: the program failed on it. Its readings are safe, and the other stages can be used.`}
          >
            <Suspense fallback={<Box data-testid="stage-coming" sx={{ minHeight: 400 }} />}>
              {stage && <StageView key={stage.key} stage={stage} evaluation={evaluation} />}
              {viewed === concluding.key && <ConcludeStageView evaluation={evaluation} />}
            </Suspense>
          </Contained>
          {helping && <ShortcutsDialog shortcuts={shortcuts} onClose={() => setHelping(false)} />}
        </ShelfContext>
      </RunProvider>
    </CursorRoot>
  );
}

interface UseRunShortcutsProps {
  readonly evaluation: RunEvaluation;
  readonly viewed: string;
  readonly navigate: NavigateFunction;
  readonly undo: LiveRun["undo"];
  readonly redo: LiveRun["redo"];
  readonly send: Send;
}

function useRunShortcuts({ evaluation, viewed, navigate, undo, redo, send }: UseRunShortcutsProps) {
  const say = useSay();
  return useMemo((): Shortcut[] => {
    const at = evaluation.chain.findIndex(({ key }) => key === viewed);
    const go = (to: number) => {
      const target = evaluation.chain[to];
      if (target) void navigate(`?stage=${target.key}`, { preventScrollReset: true });
    };
    return [
      { keys: "Enter", words: say`save the reading, go to the next field` },
      { keys: "Tab", words: say`next field, without saving an empty one` },
      {
        keys: "Alt R",
        words: say`current trial: rough or counts`,
        code: "KeyR",
        act: () =>
          document
            .querySelector<HTMLElement>('[aria-label="Does it count?"] [aria-pressed="false"]')
            ?.click(),
      },
      {
        keys: "Alt M",
        words: say`mark what is typed as a possible end point`,
        code: "KeyM",
        act: () => document.querySelector<HTMLElement>('[data-act="maybe"]')?.click(),
      },
      { keys: "=", words: say`write the proposed value` },
      { keys: "↑ ↓", words: say`final reading: a drop more or less, 0.05 mL` },
      {
        keys: "Alt Z",
        words: say`undo the last change`,
        code: "KeyZ",
        act: () => undo && void send({ intent: "undo", eventId: undo.eventId }),
      },
      {
        keys: "Alt Y",
        words: say`redo what was undone`,
        code: "KeyY",
        act: () => redo && void send({ intent: "redo", eventId: redo.eventId }),
      },
      { keys: "Alt N", words: say`next stage`, code: "KeyN", act: () => go(at + 1) },
      { keys: "Alt P", words: say`previous stage`, code: "KeyP", act: () => go(at - 1) },
      {
        keys: "Alt W",
        words: say`show the working`,
        code: "KeyW",
        act: () => void navigate(`working?stage=${viewed}`, { relative: "path" }),
      },
      { keys: "Alt B", words: say`back to the bench`, code: "KeyB", act: () => void navigate("/") },
      { keys: "?", words: say`this list` },
    ];
  }, [evaluation, viewed, undo, redo, send, navigate, say]);
}

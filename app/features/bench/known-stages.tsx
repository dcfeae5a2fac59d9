import Alert from "@mui/material/Alert";
import { useEffect, useState } from "react";
import type { Phrase } from "~/core/text";
import type { MethodChoice } from "~/protocol/answers";
import type { StartChoices } from "~/protocol/known";
import type { KnownStage } from "~/protocol/requests";
import { useSay } from "../../words/text";
import { KnownStageField } from "../known/known-stage-field";

/** Why the server did not begin a run, and the stage that it is about. */
export interface StartProblem {
  readonly message: Phrase;
  readonly stageKey?: string;
}

interface KnownStagesProps extends ReturnType<typeof useKnownStages> {
  readonly problem: StartProblem | undefined;
}

/** Stages that need not be done, and what the server did not take. */
export function KnownStages({ found, stages, knownNow, choose, problem }: KnownStagesProps) {
  const say = useSay();
  return (
    <>
      {found && <input type="hidden" name="known" value={JSON.stringify(knownNow.filter(Boolean))} />}
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

/**
 * What can be chosen where a run of a method begins, as the server says it: null until it has, and "unknown" where it cannot be asked;
 * then the server decides when the run begins, as for a run that is begun without a word on it.
 */
function useStartChoices(id: string | undefined, like: string): StartChoices | "unknown" | null {
  const [answer, setAnswer] = useState<{ of: string; choices: StartChoices | null } | null>(null);
  const of = `${id ?? ""}?like=${like}`;
  useEffect(() => {
    if (id === undefined) return;
    const ending = new AbortController();
    fetch(`/start/${of}`, { signal: ending.signal })
      .then((response) => (response.ok ? (response.json() as Promise<StartChoices>) : null))
      .then(
        (choices) => setAnswer({ of, choices }),
        () => ending.signal.aborted || setAnswer({ of, choices: null }),
      );
    return () => ending.abort();
  }, [id, of]);
  if (answer?.of !== of) return null;
  return answer.choices ?? "unknown";
}

/** The stages of a method that may be known already, and how they are: as is usual, until somebody says otherwise. */
export function useKnownStages(method: MethodChoice | null, like: string) {
  const id = method?.id;
  const choices = useStartChoices(id, like);
  const [chosen, setChosen] = useState<Readonly<Record<string, KnownStage | null>>>({});
  const found = choices === "unknown" ? null : choices;
  const stages = found?.stages ?? [];
  // By method too: another one that is chosen begins as is usual.
  const of = (key: string) => `${id ?? ""} ${key}`;
  const knownNow = stages.map(({ key, usual }) => (of(key) in chosen ? (chosen[of(key)] ?? null) : usual));
  const choose = (key: string, known: KnownStage | null) =>
    setChosen((now) => ({ ...now, [of(key)]: known }));
  return {
    found: found !== null,
    stages,
    knownNow,
    choose,
    ready: choices !== null,
    unit: found?.unit ?? "",
  };
}

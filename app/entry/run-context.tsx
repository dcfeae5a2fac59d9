import { createContext, type ReactNode, useContext, useMemo } from "react";
import type { HouseRules } from "~/core/rules";
import type { LiveRun } from "./use-run";

/** The run that a screen works on, with what all its parts ask for. */
export interface RunInHand extends LiveRun {
  /** The house rules that the run follows. */
  readonly rules: HouseRules;
  /** True for a run that is read and not worked on: finished, or archived. */
  readonly locked: boolean;
  /** Ids of readings that are in this browser alone until the server answers. */
  readonly waiting: ReadonlySet<string>;
}

const RunContext = createContext<RunInHand | null>(null);

const waitingIn = ({ kept }: LiveRun): ReadonlySet<string> =>
  new Set(kept.flatMap(({ request, refused }) => (refused === null && "id" in request ? [request.id] : [])));

/** Gives the run to all parts of its screen. */
export function RunProvider({ run, children }: { readonly run: LiveRun; readonly children: ReactNode }) {
  const inHand = useMemo(
    () => ({
      ...run,
      rules: run.record.houseRules,
      locked: run.record.status !== "open",
      waiting: waitingIn(run),
    }),
    [run],
  );
  return <RunContext value={inHand}>{children}</RunContext>;
}

export function useRunInHand(): RunInHand {
  const run = useContext(RunContext);
  if (!run) throw new Error("No run is in hand here: RunProvider is missing");
  return run;
}

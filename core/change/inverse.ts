import type { CurvePlace, Observation, TimerRecord, TrialRecord } from "../record";
import type { RunRecord } from "../run";
import type { HouseRules } from "../rules";

/** Struck out, or put away: when, by whom and why. */
export interface Removal {
  readonly at: string;
  readonly person: string;
  readonly reason: string;
}

/** What takes a change back, as data that is kept with it. Readings are never deleted: one is taken back by another that supersedes it. */
export type Inverse =
  | {
      readonly do: "supersede";
      readonly observationId: string;
      /** What stood before, as typed; null where nothing did. */
      readonly by: string | null;
      /** The bottle that what is brought back had come from. */
      readonly assignment?: string | null;
      /** What was read beside it: of a point of a titration curve. */
      readonly point?: CurvePlace | null;
      /** Why it had been struck out, where taking back strikes it out again. */
      readonly reason?: string;
    }
  | ({ readonly do: "trial"; readonly trialId: string } & Partial<
      Pick<TrialRecord, "kind" | "label" | "struck" | "number">
    >)
  | { readonly do: "run"; readonly title: string; readonly sample: string; readonly bench: string }
  | { readonly do: "status"; readonly status: RunRecord["status"]; readonly finishedAt: string | null }
  /** A choice as it was before; null where there was none. */
  | { readonly do: "choose"; readonly stageId: string; readonly name: string; readonly value: string | null }
  /** The inputs that had been chosen in place of the method's own. */
  | { readonly do: "inputs"; readonly choices: NonNullable<RunRecord["choices"]> }
  /** A trace put away, or brought back. */
  | { readonly do: "trace"; readonly traceId: string; readonly removed: Removal | null }
  /** A run's house rules as they were. */
  | { readonly do: "rules"; readonly rules: HouseRules }
  /** A timer as it was before; one that was not there is taken out as dropped. */
  | ({ readonly do: "timer"; readonly timerId: string } & Pick<
      TimerRecord,
      "startedAt" | "endedAt" | "outcome"
    >)
  /** A countersignature, given or taken away: no undo gives it back, or takes it from who gave it. */
  | { readonly do: "countersign" }
  /** Several at once, as when a bottle's concentration and its ± were taken from the shelf. */
  | { readonly do: "several"; readonly of: readonly Inverse[] };

/** Changes that undo passes over: time cannot be taken back, and a signature is another person's. */
export const passedOver: readonly Inverse["do"][] = ["timer", "countersign"];

/** What takes back an observation: what it stands in place of, bottle and all. */
export const supersedes = (observationId: string, before: Observation | null): Inverse => ({
  do: "supersede",
  observationId,
  by: before?.text ?? null,
  assignment: before?.assignment ?? null,
  ...(before?.point ? { point: before.point } : {}),
});

/** Several inverses as one; the only one by itself. */
export const together = (inverses: readonly Inverse[]): Inverse => {
  const [only] = inverses;
  return only && inverses.length === 1 ? only : { do: "several", of: inverses };
};

/** What a change turned into what, and why. */
export interface ChangeDetail {
  readonly from?: string;
  readonly to?: string;
  readonly why?: string;
}

/** What takes a change back; readings are never deleted, so a reading is taken back by one that supersedes it. */
export type Inverse =
  | {
      readonly do: "supersede";
      readonly observationId: string;
      readonly by: string | null;
      /** The bottle that what is brought back had come from. */
      readonly assignment?: string | null;
      /** Why it had been struck out, where taking back strikes it out again. */
      readonly reason?: string;
    }
  | {
      readonly do: "trial";
      readonly trialId: string;
      readonly kind?: "rough" | "fine";
      readonly label?: string | null;
      readonly struck?: { readonly at: string; readonly person: string; readonly reason: string } | null;
    }
  | { readonly do: "run"; readonly title: string; readonly sample: string; readonly bench: string }
  | {
      readonly do: "status";
      readonly status: "open" | "finished" | "archived";
      readonly finishedAt: string | null;
    }
  /** A choice as it was before; null where there was none. */
  | { readonly do: "choose"; readonly stageId: string; readonly name: string; readonly value: string | null }
  /** A trace put away, or brought back. */
  | {
      readonly do: "trace";
      readonly traceId: string;
      readonly removed: { readonly at: string; readonly person: string; readonly reason: string } | null;
    }
  /** A run's house rules as they were. */
  | { readonly do: "rules"; readonly houseRulesId: string }
  /** A timer as it was before; one that was not there is taken out as dropped. */
  | {
      readonly do: "timer";
      readonly timerId: string;
      readonly startedAt: string | null;
      readonly endedAt: string | null;
      readonly outcome: "done" | "kept" | "faded" | "dropped" | null;
    }
  /** Several at once, as when a bottle's concentration and its ± were taken from the shelf. */
  | { readonly do: "several"; readonly of: readonly Inverse[] };

import type { RunRecord } from "./run-record";

/** Everyone who took a reading, a spectrum or a course in a run, each once, in the order in which they appear. */
export const readersOf = ({ stages }: RunRecord): string[] => [
  ...new Set(
    stages
      .flatMap((s) => [...s.observations, ...s.trials.flatMap((t) => t.observations), ...(s.traces ?? [])])
      .map(({ person }) => person.trim())
      .filter((person) => person !== ""),
  ),
];

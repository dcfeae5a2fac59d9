import { readingsCsv } from "./readings";
import { recordJson } from "./record";
import type { RunExport } from "./run-export";
import { trialsCsv } from "./trials";

export type { ExportingLab, RunExport } from "./run-export";

/** All formats in which a run leaves the lab, in the order in which they are offered. */
export const runExports: readonly RunExport[] = [recordJson, readingsCsv, trialsCsv];

/** The name of a file: what the run is called, in characters that every system takes. */
export const exportName = (title: string, { key, ending }: RunExport): string =>
  `${
    title
      .normalize("NFKD")
      .replace(/[^\w\s-]+/g, "")
      .trim()
      .replace(/\s+/g, "-")
      .slice(0, 60) || "run"
  }-${key}.${ending}`;

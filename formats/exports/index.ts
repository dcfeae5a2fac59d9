import { type ExportKey, offeredExports, type OfferedExport } from "./offered";
import { linesCsv } from "../lines/csv";
import { linesJcamp } from "../lines/jcamp";
import { linesOf } from "../lines/line";
import { readingsCsv } from "./readings";
import { recordJson } from "./record";
import type { WriteRun } from "./run-export";
import { trialsCsv } from "./trials";
import { workbookOf } from "./xlsx";

const writers: Readonly<Record<ExportKey, WriteRun>> = {
  record: recordJson,
  working: workbookOf,
  trials: trialsCsv,
  readings: readingsCsv,
  lines: (record) => linesCsv(linesOf(record)),
  jcamp: (record) => linesJcamp(record.title, linesOf(record)),
};

/** A format by its key in addresses, with what writes it; null where there is none. */
export function exportBy(key: string): (OfferedExport & { readonly write: WriteRun }) | null {
  const found = offeredExports.find((offered) => offered.key === key);
  return found ? { ...found, write: writers[found.key] } : null;
}

/** The name of a file: what the run is called, in characters that every system takes. */
export const exportName = (
  title: string,
  { key, ending }: { readonly key: string; readonly ending: string },
): string =>
  `${
    title
      .normalize("NFKD")
      .replace(/[^\w\s-]+/g, "")
      .trim()
      .replace(/\s+/g, "-")
      .slice(0, 60) || "run"
  }-${key}.${ending}`;

import type { Role } from "~/core/run";
import { msg, type Phrase, withPoint } from "~/core/text";
import type { OneOfSeveral } from "./request-schemas";

/** Runs that one list begins. */
export const mostAtOnce = 60;

/** What is wrong with a line of a list, counted from 1. */
export interface ListProblem {
  readonly line: number;
  readonly message: Phrase;
}

const roles: readonly (readonly [pattern: RegExp, role: Role])[] = [
  [/^(sample)?$/i, "sample"],
  [/^dup(licate)?$/i, "duplicate"],
  [/^spiked?$/i, "spiked"],
  [/^(check|check standard|known)$/i, "check"],
];

/** Cells of a line: as a spreadsheet copies them, else parted by semicolons, else by commas. */
function cellsOf(line: string): string[] {
  const separator = line.includes("\t") ? "\t" : line.includes(";") ? ";" : ",";
  return line.split(separator).map((cell) => cell.trim());
}

/** "spike 0.050" and "spiked, 0.050" as what it is and how much of it; null where that is not known. */
function roleOf(words: string, amount: string): { readonly role: Role; readonly amount: string } | null {
  const [, what = "", behind = ""] = /^(.*?)\s*([\d.,]*)$/.exec(words) ?? [];
  const role = roles.find(([pattern]) => pattern.test(what.trim()))?.[1];
  return role === undefined ? null : { role, amount: withPoint(behind === "" ? amount : behind) };
}

function readLine(line: string): OneOfSeveral | Phrase {
  const [sample = "", bench = "", words = "", amount = "", ...more] = cellsOf(line);
  if (sample === "") return msg`no sample is named`;
  if (sample.length > 120 || bench.length > 120) return msg`the name is too long`;
  // "check 1,250" between commas would be read as 1.
  if (more.length > 0 || (amount !== "" && /\d$/.test(words)))
    return msg`too many entries: write a number with a point, or part the entries by semicolons`;
  const read = roleOf(words, amount);
  if (!read) return msg`"${words}" is not known: write duplicate, spike 0.050 or check 0.1000, or nothing`;
  if (read.amount !== "" && !/^\d+(\.\d+)?$/.test(read.amount)) return msg`"${read.amount}" is not a number`;
  const named = {
    spiked: msg`say how much was added: spike 0.050`,
    check: msg`say what it should be: check 0.1000`,
  };
  if ((read.role === "spiked" || read.role === "check") && !(Number(read.amount) > 0))
    return named[read.role];
  return { sample, bench, ...read };
}

/**
 * A pasted list as the runs that it begins: one line each with the sample, who, and what it is. Empty lines are passed over; a sample
 * that stands twice for the same person and purpose is told.
 */
export function readSampleList(text: string): {
  readonly rows: readonly OneOfSeveral[];
  readonly problems: readonly ListProblem[];
} {
  const rows: OneOfSeveral[] = [];
  const problems: ListProblem[] = [];
  const seen = new Map<string, number>();
  text.split(/\r?\n/).forEach((line, i) => {
    if (line.trim() === "") return;
    const at = i + 1;
    const read = readLine(line);
    if (typeof read === "string" || !("sample" in read)) return problems.push({ line: at, message: read });
    const key = [read.sample, read.bench, read.role].join("\n").toLowerCase();
    const before = seen.get(key);
    if (before !== undefined)
      return problems.push({
        line: at,
        message: msg`${read.sample} is in line ${before} already: write duplicate behind it if it is one`,
      });
    seen.set(key, at);
    rows.push(read);
  });
  if (rows.length > mostAtOnce)
    problems.push({ line: rows.length, message: msg`at most ${mostAtOnce} runs begin at once` });
  return { rows, problems };
}

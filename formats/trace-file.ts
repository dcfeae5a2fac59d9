import { convert } from "jcampconverter";
import { type Decimals, decimalsIn, decimalsOf, mostPoints, type TraceRecord } from "~/core/record";
import { cellsOf } from "./readings-table";

/** A row of points as a file brought it. */
export interface ReadTrace {
  readonly name: string;
  readonly x: readonly number[];
  readonly absorbance: readonly number[];
  /** With how many decimals the numbers were written; none where they were not, as of a transmittance. */
  readonly decimals?: NonNullable<TraceRecord["decimals"]>;
}

export interface LineProblem {
  /** From 1; 0 where the file as a whole is meant. */
  readonly line: number;
  readonly message: string;
}

export type TraceFile =
  { readonly traces: readonly ReadTrace[] } | { readonly problems: readonly LineProblem[] };

const mostProblems = 8;
/** Lines before the first point, and curves in one file. */
const mostHeadings = 200;
const mostColumns = 60;

const withPoint = (cell: string, delimiter: string): string =>
  delimiter === "," ? cell : cell.replace(",", ".");

const numberOf = (cell: string, delimiter: string): number => {
  const text = withPoint(cell, delimiter);
  return /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d{1,3})?$/i.test(text) ? Number(text) : NaN;
};

/** Points with rising x: a spectrum that was scanned from the red end is turned round; times may only rise. */
function ordered(trace: ReadTrace, lineOf: (i: number) => number, kind: "nm" | "s"): ReadTrace | LineProblem {
  const { x } = trace;
  const falling = kind === "nm" && x.length > 1 && (x[1] ?? 0) < (x[0] ?? 0);
  const step = falling ? -1 : 1;
  const back = x.findIndex((value, i) => i > 0 && (value - (x[i - 1] ?? 0)) * step <= 0);
  if (back !== -1) {
    const what = kind === "s" ? "the time goes back or stands still" : "the wavelength turns round";
    return { line: lineOf(back), message: `${x[back]} ${kind} after ${x[back - 1]} ${kind}: ${what}` };
  }
  if (!falling) return trace;
  const turned = (decimals: Decimals) => (typeof decimals === "number" ? decimals : decimals.toReversed());
  return {
    ...{ name: trace.name, x: x.toReversed(), absorbance: trace.absorbance.toReversed() },
    ...(trace.decimals
      ? { decimals: { x: turned(trace.decimals.x), absorbance: turned(trace.decimals.absorbance) } }
      : {}),
  };
}

function readColumns(text: string, name: string, kind: "nm" | "s"): TraceFile {
  const { cells, delimiter } = cellsOf(text, mostPoints + mostHeadings);
  const problems: LineProblem[] = [];
  const numeric = (row: readonly string[]) => Number.isFinite(numberOf(row[0] ?? "", delimiter));
  const begin = cells.findIndex(numeric);
  if (begin === -1) return { problems: [{ line: 1, message: "No row begins with a number" }] };
  const heading = begin > 0 ? cells[begin - 1] : undefined;
  const rows = cells.slice(begin);
  const width = rows.reduce((widest, row) => Math.max(widest, row.length), 0);
  if (width > mostColumns)
    return {
      problems: [
        { line: begin + 1, message: `${width} columns are more than the ${mostColumns} that are taken` },
      ],
    };
  if (width < 2)
    return {
      problems: [{ line: begin + 1, message: "Each row needs two columns: the point and the absorbance" }],
    };
  if (rows.length > mostPoints)
    return {
      problems: [
        {
          line: 0,
          message: `There are more than the ${mostPoints.toLocaleString("en")} points that are taken`,
        },
      ],
    };
  const traces = Array.from({ length: width - 1 }, (_, j): ReadTrace => {
    const x: number[] = [];
    const absorbance: number[] = [];
    const texts: [x: string, absorbance: string][] = [];
    rows.forEach((row, i) => {
      const [at, value] = [numberOf(row[0] ?? "", delimiter), numberOf(row[j + 1] ?? "", delimiter)];
      const line = begin + i + 1;
      if (!Number.isFinite(at)) {
        if (j === 0) problems.push({ line, message: `"${row[0] ?? ""}" is no number` });
      } else if (!Number.isFinite(value)) {
        if ((row[j + 1] ?? "") !== "" || width === 2)
          problems.push({
            line,
            message: (row[j + 1] ?? "") === "" ? "The absorbance is missing" : `"${row[j + 1]}" is no number`,
          });
      } else {
        x.push(at);
        absorbance.push(value);
        texts.push([withPoint(row[0] ?? "", delimiter), withPoint(row[j + 1] ?? "", delimiter)]);
      }
    });
    const title = heading?.[j + 1] ?? "";
    const decimals = {
      x: decimalsOf(texts.map(([text]) => text)),
      absorbance: decimalsOf(texts.map(([, text]) => text)),
    };
    return { name: title !== "" && width > 2 ? title : name, x, absorbance, decimals };
  });
  if (problems.length > 0) return { problems: problems.slice(0, mostProblems) };
  return inOrder(traces, (i) => begin + i + 1, kind);
}

function inOrder(traces: readonly ReadTrace[], lineOf: (i: number) => number, kind: "nm" | "s"): TraceFile {
  const good: ReadTrace[] = [];
  for (const trace of traces) {
    if (trace.x.length < 2)
      return { problems: [{ line: 0, message: `${trace.name} has fewer than two points` }] };
    const turned = ordered(trace, lineOf, kind);
    if ("message" in turned) return { problems: [turned] };
    good.push(turned);
  }
  return { traces: good };
}

const unitWords = { nm: /nano|^nm/i, s: /sec|^s$/i };
const unitNames = { nm: "nanometers", s: "seconds" };

/** Value of a labeled record of a JCAMP-DX file, and its line. */
function record(lines: readonly string[], label: string): { value: string; line: number } | null {
  const pattern = new RegExp(`^##\\s*${label}\\s*=(.*)$`, "i");
  const i = lines.findIndex((line) => pattern.test(line));
  return i === -1 ? null : { value: (pattern.exec(lines[i] ?? "")?.[1] ?? "").trim(), line: i + 1 };
}

/** How many points a packed form says by its repeats alone (DUP: S to Z and s, with digits behind). */
function pointsPacked(lines: readonly string[]): number {
  let points = 0;
  const packed = lines.filter((line) => !line.startsWith("##")).join(" ");
  for (const [, first = "", more = ""] of packed.matchAll(/([S-Zs])(\d*)/g))
    points += Number(`${first === "s" ? 9 : first.charCodeAt(0) - 82}${more}`);
  return points;
}

/** The numbers of each line of a body, as they are written; null where they are packed. */
function plainTexts(body: readonly string[]): readonly (readonly string[])[] | null {
  const rows = body.map((line) => line.replace(/\$\$.*$/, ""));
  if (rows.some((row) => /[^\d\s.,;:+\-eE]/.test(row))) return null;
  return rows.map((row) => row.split(/[\s,;]+/).filter((one) => one !== ""));
}

/** The decimals of the points of a JCAMP-DX file, by its numbers, or by its factors where these are packed. */
function decimalsOfJcamp(lines: readonly string[], data: { value: string; line: number }) {
  const after = lines.slice(data.line);
  const end = after.findIndex((line) => line.startsWith("##"));
  const texts = plainTexts(after.slice(0, end === -1 ? undefined : end));
  const of = (label: string) => record(lines, label)?.value ?? "";
  const factor = (label: string) => Math.max(0, Math.round(-Math.log10(Number(of(label) || 1))));
  if (/XY\.\.XY/i.test(data.value)) {
    if (!texts || Number(of("XFACTOR") || 1) !== 1 || Number(of("YFACTOR") || 1) !== 1) return null;
    const all = texts.flat();
    return {
      x: decimalsOf(all.filter((_, i) => i % 2 === 0)),
      absorbance: decimalsOf(all.filter((_, i) => i % 2 === 1)),
    };
  }
  // A line begins with the point of its first value.
  const own = Math.max(0, ...(texts ?? []).flatMap(([, ...values]) => values.map(decimalsIn)));
  return {
    x: Math.max(...["FIRSTX", "LASTX", "DELTAX"].map((label) => decimalsIn(of(label)))),
    absorbance: own + factor("YFACTOR"),
  };
}

/** Numbers as so many decimals have them, without what binary arithmetic added; null where they have more than these. */
function rounded(values: readonly number[], decimals: Decimals): number[] | null {
  if (typeof decimals === "object" && decimals.length !== values.length) return null;
  const to = values.map((value, i) =>
    Number(value.toFixed(typeof decimals === "object" ? decimals[i] : decimals)),
  );
  return to.every((value, i) => Math.abs(value - (values[i] ?? NaN)) <= 1e-9 * Math.max(1, Math.abs(value)))
    ? to
    : null;
}

/** JCAMP-DX (IUPAC): the values by a library, what makes the file whole by these checks. */
function readJcamp(text: string, name: string, kind: "nm" | "s"): TraceFile {
  const lines = text.split(/\r\n?|\n/);
  const one = (line: number, message: string): TraceFile => ({ problems: [{ line, message }] });
  const data = record(lines, "(?:XYDATA|XYPOINTS|PEAK TABLE)");
  if (!data) return one(0, "It has no ##XYDATA: there are no points in it");
  if (!record(lines, "END")) return one(lines.length, "It ends without ##END=: the file was cut off");
  const claimed = Number(record(lines, "NPOINTS")?.value ?? 0);
  if (claimed > mostPoints || pointsPacked(lines.slice(data.line)) > mostPoints)
    return one(data.line, `There are more than the ${mostPoints.toLocaleString("en")} points that are taken`);
  const units = record(lines, "XUNITS");
  if (units && !unitWords[kind].test(units.value))
    return one(units.line, `Points are in ${units.value}; ${unitNames[kind]} are needed here`);
  // The library knows pairs by the name that a table of peaks has; they are written alike.
  const pairs = text.replace(/^##\s*XYPOINTS\s*=/im, "##PEAK TABLE=");
  const spectrum = convert(pairs, { keepRecordsRegExp: /.*/ }).flatten[0]?.spectra[0];
  const { x = [], y = [] } = (spectrum?.data ?? {}) as { x?: number[]; y?: number[] };
  if (x.length === 0 || [...x, ...y].some((v) => !Number.isFinite(v)))
    return one(data.line, "Its points cannot be read as numbers");
  const points = record(lines, "NPOINTS");
  if (points && Number(points.value) !== x.length)
    return one(
      points.line,
      `${points.value} points are announced, ${x.length} are there: the file is not whole`,
    );
  const yUnits = record(lines, "YUNITS")?.value ?? "";
  const percent = /%/.test(yUnits);
  if (/transm/i.test(yUnits)) {
    const low = y.findIndex((t) => t <= 0);
    if (low !== -1) return one(data.line, `A transmittance of ${y[low]} at ${x[low]} has no absorbance`);
  }
  const absorbance = /transm/i.test(yUnits) ? y.map((t) => -Math.log10(percent ? t / 100 : t)) : y;
  const title = record(lines, "TITLE")?.value || name;
  const decimals = /transm/i.test(yUnits) ? null : decimalsOfJcamp(lines, data);
  const [exactX, exactY] = decimals
    ? [rounded(x, decimals.x), rounded(absorbance, decimals.absorbance)]
    : [null, null];
  return inOrder(
    [
      decimals && exactX && exactY
        ? { name: title, x: exactX, absorbance: exactY, decimals }
        : { name: title, x, absorbance },
    ],
    () => data.line,
    kind,
  );
}

/** A file of several linked blocks: those in the unit that is needed, each read by itself; lines are counted in the whole. */
function readBlocks(text: string, name: string, kind: "nm" | "s"): TraceFile {
  const lines = text.split(/\r\n?|\n/);
  const begins = lines.flatMap((line, i) => (i > 0 && /^##\s*TITLE\s*=/i.test(line) ? [i] : []));
  const traces: ReadTrace[] = [];
  for (const [i, begin] of begins.entries()) {
    const one = lines.slice(begin, begins[i + 1]);
    const units = record(one, "XUNITS");
    if (units && !unitWords[kind].test(units.value)) continue;
    const end = one.findIndex((line) => /^##\s*END\s*=/i.test(line));
    const read = readJcamp(one.slice(0, end === -1 ? undefined : end + 1).join("\n"), name, kind);
    if ("problems" in read)
      return {
        problems: read.problems.map(({ line, message }) => ({
          line: line === 0 ? 0 : line + begin,
          message,
        })),
      };
    traces.push(...read.traces);
  }
  return traces.length > 0
    ? { traces }
    : { problems: [{ line: 0, message: `None of its blocks holds points in ${unitNames[kind]}` }] };
}

/**
 * Spectra (`nm`) or courses in time (`s`) from a file: JCAMP-DX, or columns parted by tabs, semicolons or commas, the first
 * with the points, the others with absorbances. All problems by their line.
 */
export function readTraceFile(text: string, fileName: string, kind: "nm" | "s"): TraceFile {
  const name = fileName.replace(/\.[^.]*$/, "").slice(0, 80) || "from a file";
  if (text.trim() === "") return { problems: [{ line: 0, message: "The file is empty" }] };
  if (!/^\s*##/.test(text)) return readColumns(text, name, kind);
  return /^##\s*DATA TYPE\s*=\s*LINK/im.test(text)
    ? readBlocks(text, name, kind)
    : readJcamp(text, name, kind);
}

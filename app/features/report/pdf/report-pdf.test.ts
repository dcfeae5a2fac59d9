import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, describe, expect, jest, test } from "@jest/globals";
import { offered } from "~/catalog/methods";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { mustHold } from "~/core/result";
import type { Phrase } from "~/core/text";
import type { RunRecord } from "~/core/run";
import { simulateRun } from "~/core/simulate";
import { truthOf } from "~/core/testing/library-truth";
import { documentOf, type ReportDocument } from "~/formats/report/document";
import { busyRecord, wildReason } from "~/formats/testing/busy-record";
import { localized, plainWords } from "../../../words/text";
import { runsOf, withoutGlyph } from "./faces.server";
import { formula } from "./formula.server";
import { classSheetOf } from "../../history/class-sheet";
import { scatterWords } from "../../series/results-words";
import { reportPdf } from "./report-pdf.server";
import { sheetPdf } from "./sheet-pdf.server";

/* PDFs are held against poppler's tools, which know nothing of what wrote them. */

jest.setTimeout(120_000);
const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-pdf-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const say = localized(plainWords);
const proof = { head: "ab12".repeat(16), readings: 17, key: "cd34".repeat(4) };

const simulatedBy = (methodId: string, seed: number): RunRecord => {
  const method = offered.find(({ id }) => id === methodId);
  if (!method) throw new Error(`no method ${methodId}`);
  return mustHold(simulateRun({ method, houseRules: defaultHouseRules, truth: truthOf(method), seed }))
    .record;
};

const reportBy = (methodId: string): ReportDocument => documentOf(simulatedBy(methodId, 5));

let files = 0;
async function written(
  report: ReportDocument,
  paper: "A4" | "Letter" = "A4",
  working: "full" | "short" = "full",
): Promise<{ readonly file: string }> {
  const body = await reportPdf(report, proof, "Tern Rock Aquarium", {
    paper,
    working,
    words: plainWords,
    say,
  });
  const file = path.join(folder, `${++files}.pdf`);
  writeFileSync(file, body);
  return { file };
}

const tool = (name: string, ...args: string[]) => execFileSync(name, args, { encoding: "utf8" });
const info = (file: string) =>
  new Map(
    tool("pdfinfo", file)
      .split("\n")
      .map((line) => [line.split(":")[0] ?? "", line.slice(line.indexOf(":") + 1).trim()]),
  );

/** Blanks do not count: lines are broken anywhere, and poppler guesses blanks from distances. */
const solid = (text: string) => text.replace(/\s+/g, "");
/** What poppler reads on it. */
const textOf = (file: string) => solid(tool("pdftotext", "-layout", file, "-"));
const sayAll = (texts: readonly Phrase[]) => texts.map((text) => say(text));

describe("a run in which everything happened", () => {
  const report = documentOf(busyRecord());
  const a4 = written(report);

  test("says on paper what it says on the screen, and every face is in the file", async () => {
    const { file } = await a4;
    const text = textOf(file);
    const { main, stages, people, cautions } = report;
    for (const said of [
      ...[
        "Tern Rock Aquarium",
        report.title,
        report.sample,
        ...people,
        say(main!.name),
        say(main!.shown.text),
      ],
      ...sayAll(stages.flatMap(({ results }) => results.map(({ shown }) => shown.text))),
      ...["struck out:", wildReason, "25.89", "25.98", proof.head, proof.key],
      ...report.bottles.map(({ code }) => code),
      ...(cautions[0] === undefined ? [] : [cautions[0].split(" ").slice(0, 4).join(" ")]),
    ])
      expect(text).toContain(solid(said));
    const fonts = tool("pdffonts", file).trim().split("\n").slice(2);
    expect(fonts.length).toBeGreaterThanOrEqual(3);
    // Columns at the end: embedded, a subset, with the characters that its glyphs stand for.
    for (const font of fonts) expect(font).toMatch(/ yes yes yes +\d+ +\d+$/);
  });

  test("pages are of the paper that was chosen, and each says which of how many it is", async () => {
    for (const [paper, size] of [
      ["A4", "595.28 x 841.89 pts (A4)"],
      ["Letter", "612 x 792 pts (letter)"],
    ] as const) {
      const { file } = paper === "A4" ? await a4 : await written(report, paper);
      const told = info(file);
      expect(told.get("Page size")).toBe(size);
      expect(told.get("Title")).toBe(report.title);
      const pages = Number(told.get("Pages"));
      expect(pages).toBeGreaterThan(1);
      for (let page = 1; page <= pages; page++)
        expect(solid(tool("pdftotext", "-f", String(page), "-l", String(page), file, "-"))).toContain(
          `${page}/${pages}`,
        );
    }
  });

  test("the short one has the results without the working", async () => {
    const full = textOf((await a4).file);
    const short = textOf((await written(report, "A4", "short")).file);
    expect(full).toMatch(/Working1/);
    expect(short).not.toMatch(/Working1/);
    expect(short).toContain(solid(say(report.main!.shown.text)));
    expect(full.length).toBeGreaterThan(short.length);
  });
});

test.each(["weak-base-by-curve", "fading-of-a-dye"])(
  "%s: its chart is drawn with lines, and its words can be found",
  async (id) => {
    const { file } = await written(reportBy(id));
    const text = textOf(file);
    expect(text).toContain(solid(say(reportBy(id).main!.shown.text)));
    // Names of axes stand in the chart alone.
    expect(text).toMatch(/Titrantadded|Concentration|Time|equilibrium/);
    expect(tool("pdfimages", "-list", file).trim().split("\n")).toHaveLength(2);
  },
);

describe("every method that is offered", () => {
  const reports = offered.map(({ id }) => [id, reportBy(id)] as const);

  test.each(reports)("%s: there is a glyph for all that its report says", (_id, report) => {
    const texts: string[] = [];
    const walk = (value: unknown): void => {
      if (typeof value === "string") texts.push(value);
      else if (Array.isArray(value)) value.forEach(walk);
      else if (typeof value === "object" && value !== null) Object.values(value).forEach(walk);
    };
    walk(report);
    expect(withoutGlyph(texts.join(" "))).toEqual([]);
  });

  test.each(reports)("%s: each formula can be set, within the page", (_id, { stages }) => {
    const steps = stages.flatMap(({ working }) => working);
    expect(steps.length).toBeGreaterThan(0);
    for (const tex of steps.flatMap(({ names, numbers, value }) => [names, numbers, value]))
      if (tex !== "") {
        const { svg, width } = formula(tex, { size: 10, color: "#000000", room: 480 }, say);
        expect(width).toBeLessThanOrEqual(480);
        expect(svg).toContain("<path");
      }
  });

  test("what no face has a glyph for is told, and stands as the sign for that", () => {
    expect(withoutGlyph("Ω → √2 x̄ 滴 ₂")).toEqual(["滴"]);
    expect(runsOf("V = 5").map(({ face }) => face)).toEqual(["Text"]);
    expect(runsOf("5 µg, Δ 滴").map(({ text, face }) => [text, face])).toEqual([
      ["5 ", "Text"],
      ["µ", "Symbols"],
      ["g, ", "Text"],
      ["Δ \ufffd", "Symbols"],
    ]);
  });

  test("a formula that cannot be set is refused, and never shown by halves", () => {
    const look = { size: 10, color: "#000000", room: 480 };
    expect(() => formula("\\frac{1}{", look, say)).toThrow(/cannot be set/);
    // Nothing links or loads.
    expect(() => formula("\\href{https://example.org}{x}", look, say)).toThrow(/cannot be set/);
  });
});

test("several runs stand on one sheet, a table for each method, with mean, checksums and the lab's header", async () => {
  const methods = ["diprotic-acid-by-curve", "diprotic-acid-by-curve", busyRecord().method.id];
  const runs = methods.map((methodId, seed) => simulatedBy(methodId, seed));
  const named = runs.map((run, i) => ({
    ...run,
    id: `run ${i}`,
    title: `Tank ${i}`,
    sample: "",
    bench: `bench ${i}`,
  }));
  const sheet = classSheetOf(named, (run) => run, proof.key);
  expect(sheet.groups.map(({ table }) => table.rows.length)).toEqual([2, 1]);
  const as = { paper: "Letter", working: "short", words: plainWords, say } as const;
  const file = path.join(folder, `${++files}.pdf`);
  writeFileSync(file, await sheetPdf(sheet, "Tern Rock Aquarium", as));
  const text = textOf(file);
  for (const { method, table } of sheet.groups) {
    for (const said of [method, table.name, ...sayAll(scatterWords(table) ? [scatterWords(table)!] : [])])
      expect(text).toContain(solid(said));
    for (const { title, bench, shown } of table.rows)
      for (const said of [title, bench, shown!.value, `± ${shown!.plusMinus}`])
        expect(text).toContain(solid(said));
  }
  for (const said of [
    "Tern Rock Aquarium",
    "Results of 3 runs",
    proof.key,
    ...sheet.heads.map(({ head }) => head),
  ])
    expect(text).toContain(solid(said));
  expect(info(file).get("Page size")).toBe("612 x 792 pts (letter)");
  expect(info(file).get("Title")).toBe("Results of 3 runs");
});

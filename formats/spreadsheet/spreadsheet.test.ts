import type { Workbook } from "exceljs";
import { beforeAll, describe, expect, test } from "@jest/globals";
import { methods } from "~/catalog/methods";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import type { HouseRules } from "~/core/rules";
import type { RunRecord } from "~/core/run";
import { mustHold } from "~/core/result";
import { simulateRun } from "~/core/simulate";
import { truthOf } from "~/core/testing/library-truth";
import { shapes } from "~/core/testing/shapes";
import { recalculate, type Recalculated, type ToCalculate } from "../testing/soffice";
import { workbookOf } from "../exports/xlsx";
import { bookOf } from "./book";

/*
 * What LibreOffice makes of the workbooks, one for each shape of titration and for assays, curves and adsorption: every formula, and
 * results after readings were changed.
 */

const seed = 11;
const library = [
  "phosphate-as-molybdenum-blue",
  "iron-by-standard-addition",
  "iron-with-phenanthroline",
  "weak-acid-by-ph-meter",
  "acetic-acid-on-charcoal",
  "fading-of-a-dye",
];

/** Of these also as another house would have it. */
const elsewhere = [
  "solid-in-each-flask-then-direct",
  "dilution-chain",
  "back-titration",
  "phosphate-as-molybdenum-blue",
];

/** A house of other habits: results averaged from titers, a warm room, masses without the buoyancy of air, 95 % intervals. */
const otherHouse: HouseRules = {
  ...defaultHouseRules,
  average: defaultHouseRules.average === "titers" ? "results" : "titers",
  plusMinus: "i95",
  temperature: { ...defaultHouseRules.temperature, labC: "27" },
};

const recordsOf = (houseRules: HouseRules): [string, RunRecord][] => [
  ...shapes.map(({ name, method, truth }): [string, RunRecord] => [
    name,
    mustHold(simulateRun({ method, houseRules, truth, seed })).record,
  ]),
  ...methods
    .filter(({ id }) => library.includes(id))
    .map((method): [string, RunRecord] => [
      method.id,
      mustHold(simulateRun({ method, houseRules, truth: truthOf(method), seed })).record,
    ]),
];

const records = new Map([
  ...recordsOf(defaultHouseRules),
  ...recordsOf(otherHouse)
    .filter(([name]) => elsewhere.includes(name))
    .map(([name, record]) => [`${name}-elsewhere`, record] as const),
]);

/** The same run with every final reading of a burette and every absorbance a little higher: all trials stay together. */
function shifted(record: RunRecord): RunRecord {
  const text = (value: string, by: number) =>
    (Number(value) + by).toFixed(/\.(\d+)/.exec(value)?.[1]?.length ?? 0);
  const by: Readonly<Record<string, number>> = { "burette.final": 0.2, absorbance: 0.011 };
  return {
    ...record,
    stages: record.stages.map((stage) => ({
      ...stage,
      trials: stage.trials.map((trial) => ({
        ...trial,
        observations: trial.observations.map((o) => {
          const more = by[o.kind];
          if (more === undefined || o.value === null) return o;
          const value = text(o.value, more);
          return { ...o, text: value, value };
        }),
      })),
    })),
  };
}

/** Kinds whose numbers an engine fits: their sheets say that these do not follow. */
const fitted = new Set(["curve", "isotherm", "rate"]);
const live = [...records]
  .filter(([, { method }]) => method.stages.every(({ kind }) => !fitted.has(kind)))
  .map(([name]) => name);

const books = new Map([...records].map(([name, record]) => [name, bookOf(record)]));
const later = new Map([...records].map(([name, record]) => [name, bookOf(shifted(record))]));

/** Numbers that were read, by sheet and address: those with the decimals that they were typed with, and absorbances. */
const readIn = (name: string, of: typeof books) =>
  (of.get(name)?.sheets ?? []).flatMap((sheet) =>
    [...sheet.cells].flatMap(([address, cell]) =>
      cell.look === "read"
        ? [{ sheet: sheet.name, address, value: cell.value, typed: cell.decimals !== undefined }]
        : [],
    ),
  );

let calculated: ReadonlyMap<string, Recalculated>;
const afterwards = (name: string) => `${name}-changed`;

beforeAll(async () => {
  const all = new Map<string, ToCalculate>();
  for (const [name, record] of records) {
    const bytes = await workbookOf(record);
    all.set(name, { bytes });
    if (live.includes(name))
      all.set(afterwards(name), { bytes, change: (workbook) => typeAnew(name, workbook) });
  }
  calculated = await recalculate(all);
});

/** Types the readings of the changed run over those of the first: what a hand changes, and nothing else. */
function typeAnew(name: string, workbook: Workbook): void {
  for (const { sheet, address, value, typed } of readIn(name, later)) {
    const cell = workbook.getWorksheet(sheet)?.getCell(address);
    // The parts that causes have in a ± are not typed: they stay as they are.
    if (cell && (typed || isAbsorbance(name, sheet, address))) cell.value = value;
  }
}

/** Absorbances stand in columns with that name. */
function isAbsorbance(name: string, sheetName: string, address: string): boolean {
  const sheet = books.get(name)?.sheets.find((one) => one.name === sheetName);
  const cell = sheet?.cells.get(address);
  const heads = [...(sheet?.cells.values() ?? [])].filter(
    (one) => one.look === "head" && one.column === cell?.column,
  );
  return heads.some(({ value, row }) => /^Absorbance/.test(String(value)) && row < (cell?.row ?? 0));
}

/** How far a number is off, in parts of what it should be; what rounding alone leaves of nothing is nothing. */
const off = (found: number | string | null | undefined, expected: number | string): number =>
  Math.abs(Number(found) - Number(expected)) / Math.max(Math.abs(Number(expected)), 1e-6);

describe.each([...records.keys()])("%s", (name) => {
  test("every formula comes to what Steady Bead computed, results and their ± among them", () => {
    const cells = (books.get(name)?.sheets ?? []).flatMap((sheet) =>
      [...sheet.cells].map(([address, cell]) => ({ sheet: sheet.name, address, ...cell })),
    );
    const formulas = cells.filter(({ formula }) => formula !== undefined);
    expect(formulas.length).toBeGreaterThan(8);
    const wrong = formulas.filter(
      ({ sheet, address, value }) => !(off(calculated.get(name)?.(sheet, address), value) < 1e-8),
    );
    expect(wrong).toEqual([]);
  });
});

describe.each(live)("%s", (name) => {
  test("changed readings change the results as they would here", () => {
    const results = later.get(name)?.sheets[0];
    const values = [...(results?.cells ?? [])].filter(
      ([address, { look }]) => look === "result" && address.startsWith("C"),
    );
    expect(values.length).toBeGreaterThan(0);
    for (const [address, { value }] of values) {
      const found = calculated.get(afterwards(name))?.("Results", address);
      expect({ address, off: off(found, value) < 1e-8 ? "no" : `${found} and not ${value}` }).toEqual({
        address,
        off: "no",
      });
    }
  });
});

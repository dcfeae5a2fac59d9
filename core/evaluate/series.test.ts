import { expect, test } from "@jest/globals";
import { acidByBase } from "~/catalog/methods/acid-base/acid-by-base";
import { ironInSolution } from "~/catalog/methods/redox/iron-in-solution";
import { peroxideByVolume } from "~/catalog/methods/redox/peroxide";
import { typedRun } from "../testing/typed-run";
import { plain } from "../testing/plain";
import type { RunRecord } from "../run";
import { seriesRemark, seriesTable } from "./series";

/** One aliquot of 25.00 mL, by 0.1000 mol/L base, that took so much of it; the house is content with one. */
function found(sample: string, ml: string | null, series: RunRecord["series"], known?: string): RunRecord {
  const titer =
    ml === null ? [] : [{ "V_a:volume.taken": "25.00", "V:burette.initial": "0.00", "V:burette.final": ml }];
  const record = typedRun(
    acidByBase,
    {
      determine: {
        once: { "c_b:given": "0.1000", ...(known === undefined ? {} : { "ref:given": known }) },
        trials: titer,
      },
    },
    { agreement: { rule: "n-within", replicates: 1, withinMl: "0.10" } },
  );
  return {
    ...record,
    ...{ id: `${sample} ${series?.role ?? ""}`, sample, ...(series ? { series } : {}) },
    choices:
      known === undefined
        ? []
        : [
            {
              stageKey: "determine",
              heldAgainst: { against: "value", label: "Known value", tolerance: "1", in: "percent" },
            },
          ],
  };
}

test("samples, a duplicate, a spiked sample and a check standard beside each other", () => {
  const id = "s";
  const records = [
    // 0.1000 · 20.00 / 25.00 = 0.08000 mol/L
    found("R-1", "20.00", { id, role: "sample" }),
    // 0.08080: 0.0008 from 0.08000, 0.995 % of their mean
    found("R-1", "20.20", { id, role: "duplicate" }),
    // 0.12800: 0.04800 of 0.0500 that were added are 96.0 %
    found("R-1", "32.00", { id, role: "spiked", added: "0.0500" }),
    // 0.10100 where 0.1000 should be: 1 % too much, and just within
    found("QC", "25.25", { id, role: "check" }, "0.1000"),
    found("R-2", null, { id, role: "sample" }),
  ];
  const table = seriesTable(records, "");
  expect(table).toMatchObject({ unit: "mol/L", count: 2, units: ["mol/L", "mmol/L", "µmol/L"] });
  expect(table.mean).toBeCloseTo(0.0804, 9);
  // Two values 0.0008 apart scatter by 0.0008/√2.
  expect(table.standardDeviation).toBeCloseTo(0.0008 / Math.SQRT2, 9);
  const [one, twin, spiked, check, open] = table.rows;
  expect(one?.value).toBeCloseTo(0.08, 9);
  expect(one?.errorPercent).toBeNull();
  expect(twin?.differencePercent).toBeCloseTo((100 * 0.0008) / 0.0804, 6);
  expect(plain(twin && seriesRemark(twin))).toBe("1.00 % from its sample");
  expect(spiked?.recoveryPercent).toBeCloseTo(96, 6);
  expect(plain(spiked && seriesRemark(spiked))).toBe("96.0 % of what was added");
  expect(check?.errorPercent).toBeCloseTo(1, 6);
  expect(check?.within).toBe(true);
  expect(check?.recoveryPercent).toBeCloseTo(101, 6);
  expect(open).toMatchObject({ shown: null, value: null, differencePercent: null });

  // In another unit the numbers follow, and what was added stays in that of the method.
  const milli = seriesTable(records, "mmol/L");
  expect(milli.rows[0]?.value).toBeCloseTo(80, 6);
  expect(milli.rows[2]?.recoveryPercent).toBeCloseTo(96, 6);
  expect(seriesTable(records, "mg").unit).toBe("mol/L");
});

test("where the runs ask for a further result, or leave stages out, the table is of what they find", () => {
  const choices: NonNullable<RunRecord["choices"]> = [
    {
      stageKey: "determine",
      heldAgainst: { against: "limit", label: "Limit", bound: "at most", result: "γ" },
    },
  ];
  const peroxide = typedRun(
    peroxideByVolume,
    {
      determine: {
        once: { "c_p:given": "0.02000", "V_0:volume.taken": "10.00", "V_f:volume.taken": "250" },
        trials: [{ "V_a:volume.taken": "25.00", "V:burette.initial": "0.00", "V:burette.final": "17.60" }],
      },
    },
    { agreement: { rule: "n-within", replicates: 1, withinMl: "0.10" } },
  );
  // 0.02000 · 17.60 · 5/2 / 25.00 · 25 = 0.8800 mol/L; · 34.014 g/mol = 2.9932 g in 100 mL.
  expect(seriesTable([peroxide], "").rows[0]!.value).toBeCloseTo(0.88, 6);
  const table = seriesTable([{ ...peroxide, choices }], "");
  expect(table.unit).toBe("% w/v");
  expect(table.rows[0]!.value).toBeCloseTo(2.9932, 3);
  // A run of the standardization alone is listed by the concentration that it finds.
  const alone = typedRun(ironInSolution, {}, {});
  const left: RunRecord = { ...alone, choices: [{ stageKey: "determine", adapted: "left-out" }] };
  expect([seriesTable([alone], "").unit, seriesTable([left], "").unit]).toEqual(["g", "mol/L"]);
});

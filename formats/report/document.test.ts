import { describe, expect, test } from "@jest/globals";
import { offered } from "~/catalog/methods";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { evaluateRun } from "~/core/evaluate";
import { mustHold } from "~/core/result";
import { simulateRun } from "~/core/simulate";
import { truthOf } from "~/core/testing/library-truth";
import { plain } from "~/core/testing/plain";
import { inEnglish } from "~/core/text";
import { busyRecord, wildReason } from "../testing/busy-record";
import { documentOf, type ReportDocument, type ReportStage } from "./document";

const stageOf = ({ stages }: ReportDocument, key: string): ReportStage => stages.find((s) => s.key === key)!;

describe("a run in which everything happened", () => {
  const report = documentOf(busyRecord());

  test("shows what was corrected as struck, beside what holds, with the reason", () => {
    const { heads, rows } = stageOf(report, "standardize").table!;
    const final = heads.findIndex((head) => inEnglish(head) === "Final reading, mL");
    expect(plain(rows[2]?.cells[final])).toEqual({
      text: "25.98",
      was: [{ text: "25.89", why: "digits changed places" }],
    });
    expect(rows[0]?.cells[final]?.was).toEqual([]);
  });

  test("says of each trial whether it counts, and why not", () => {
    const { heads, rows } = stageOf(report, "determine").table!;
    expect(plain(heads)).toEqual([
      "Aliquot of acid, mL",
      "Initial reading, mL",
      "Final reading, mL",
      "Titer, mL",
      "Concentration of the acid",
    ]);
    expect(rows.map(({ remark, struck, inResult }) => [inEnglish(remark), struck, inResult])).toEqual([
      ["in the result", false, true],
      ["in the result", false, true],
      [`struck out: ${wildReason}`, true, false],
      ["not complete", false, false],
    ]);
    expect(rows.map(({ cells }) => plain(cells[3]?.text))).toEqual(["20.00", "20.06", "22.40", ""]);
  });

  test("names the people who read, the equations, and the result that the run was for", () => {
    expect(report.people).toEqual(["bench 2", "M. Finn"]);
    expect(report.method.equations).toHaveLength(2);
    expect(inEnglish(report.main!.name)).toBe("Concentration of the acid");
    // 0.100014 · 20.03 / 25.00, see the end-to-end test of the main job for the chain by hand.
    expect(report.main?.shown.value).toMatch(/^0\.0801/);
  });
});

describe.each(offered.map((method) => [method.id, method] as const))("%s", (_id, method) => {
  const { record } = mustHold(
    simulateRun({ method, houseRules: defaultHouseRules, truth: truthOf(method), seed: 5 }),
  );
  const report = documentOf(record);

  test("reports what the screens show, with its working, and leaves no word unsaid", () => {
    const { stages } = evaluateRun(record);
    for (const stage of stages) {
      const reported = stageOf(report, stage.key);
      expect(reported.results[0]?.shown ?? null).toEqual(stage.shown);
      expect(reported.working.length > 0).toBe(stage.shown !== null);
      const trials = "trials" in stage ? stage.trials.length : "levels" in stage ? stage.levels.length : 0;
      expect(reported.table?.rows.length ?? 0).toBe(trials);
      for (const row of reported.table?.rows ?? [])
        expect(row.cells).toHaveLength(reported.table?.heads.length ?? 0);
    }
    const { evaluation: _, ...first } = report.stages[0]!;
    const words = JSON.stringify(plain([first, report.main, report.bottles, report.cautions]));
    expect(words).not.toMatch(/undefined|NaN|\[object/);
    expect(report.cautions.length).toBeGreaterThan(0);
    expect(report.waste.length).toBeGreaterThan(0);
  });
});

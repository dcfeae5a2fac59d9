import { describe, expect, test } from "@jest/globals";
import katex from "katex";
import { mustHold } from "~/core/result";
import { evaluateRun } from "~/core/evaluate";
import type { RunRecord } from "~/core/run";
import { workingOf } from "~/core/working";
import { simulateRun } from "~/core/simulate";
import { localizer } from "~/words/localizer";
import { readRunRecord, reportOf, reportText } from "./run-report";
import { methods } from "~/catalog/methods";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { typedRun } from "~/core/testing/typed-run";
import { inEnglish } from "~/core/text";
import { plain } from "~/core/testing/plain";

const method = (id: string) => methods.find((m) => m.id === id)!;

const phosphate = (choices: Record<string, string> = {}): RunRecord =>
  typedRun(method("phosphate-as-molybdenum-blue"), {
    wavelength: { once: { "λ:given": "880" } },
    standards: {
      trials: ["0.00", "2.00", "4.00", "6.00", "8.00", "10.00"].map((ml, i) => ({
        "V_s:volume.taken": ml,
        "A:absorbance": ["0.002", "0.141", "0.282", "0.418", "0.561", "0.699"][i]!,
      })),
      choices,
    },
    unknown: { trials: [{ "V_u:volume.taken": "25.00", "A:absorbance": "0.312 0.314" }] },
  });

const stepsOf = (record: RunRecord, key: string) => {
  const steps = workingOf(record, evaluateRun(record), key, null)?.steps ?? [];
  for (const { names, numbers, value } of steps)
    for (const tex of [names, numbers, value])
      expect(() => katex.renderToString(tex, { throwOnError: true, strict: "ignore" })).not.toThrow();
  return steps;
};

describe("the working of an assay, as on a board", () => {
  test("a line: one standard as an example, the law, intercept and slope with their ±, then what follows", () => {
    const steps = stepsOf(phosphate(), "standards");
    expect(plain(steps.map((s) => s.title))).toEqual([
      "Concentration of a standard, as in standard 6",
      "Line by least squares through 6 readings of 6 standards, unweighted",
      "Intercept",
      "Slope",
      "Molar absorptivity",
      "Molar absorptivity, rounded once, with its ± (k = 2)",
    ]);
    expect(plain(steps[0]?.valueText)).toMatch(/^1\.000\d* mg\/L$/);
    expect(steps[1]?.names).toBe("A = a + b c");
    expect(plain(steps[3]?.valueText)).toMatch(/^0\.69\d+ ± 0\.00\d+ L\/mg$/);
    expect(plain(steps[3]?.inputs[0]?.label)).toBe("what its ± rests on");
  });

  test.each([
    [{}, "\\dfrac{\\bar{A} - a}{b}", /^c_x = |\(A - a\)/],
    [{ model: "origin" }, "\\dfrac{\\bar{A}}{b}", /\(A - a\)/],
    [{ model: "quadratic" }, "\\sqrt{b^{2} + 4 q (\\bar{A} - a)}", /\(A - a\)/],
  ])("an unknown read off a line chosen as %j", (choices, names, formula) => {
    const record = phosphate(choices);
    const steps = stepsOf(record, "unknown");
    const readOff = steps.find((s) => s.id === "c_x")!;
    expect(readOff.names).toContain(names);
    expect(plain(readOff.formula)).toMatch(formula);
    expect(plain(readOff.valueText)).toMatch(/^0\.4[45]\d+ mg\/L$/);
    expect(steps[0]?.numbers).toBe("= \\dfrac{0.312 + 0.314}{2}");
    // Each number of the board leads on: the line to its stage, the ± to its causes.
    expect(readOff.inputs.map((i) => i.origin.kind)).toEqual(["stage", "readings"]);
    const causes = readOff.inputs[1]?.origin;
    expect(plain(causes?.kind === "readings" ? causes.causes.map((c) => c.label) : [])).toContain(
      "Readings of the unknown",
    );
  });

  test("a rate constant: the law, how many absorbances, and k with its ±", () => {
    const { record } = mustHold(
      simulateRun({
        method: method("fading-of-a-dye"),
        houseRules: defaultHouseRules,
        truth: { results: {}, amounts: { "wavelength.λ": 590 } },
        seed: 2,
      }),
    );
    const [first, second] = stepsOf(record, "fading");
    expect(plain(first?.title)).toBe("First order, by least squares on 201 absorbances");
    expect(plain(first?.valueText)).toMatch(/^0\.00\d+ ± 0\.0000\d+ 1\/s$/);
    expect(plain(second?.formula)).toBe("k_2 = k_1 / c_B");
  });
});

describe("an assay audited without the application", () => {
  test("its report counts the flasks, names what is left out and why, and says nothing of titers", () => {
    const record = phosphate();
    const stage = record.stages.find((s) => s.key === "unknown")!;
    stage.trials.push({
      ...stage.trials[0]!,
      id: "second",
      number: 2,
      struck: { at: record.startedAt, person: "bench 2", reason: "spilled" },
    });
    const read = readRunRecord(JSON.parse(JSON.stringify(record)));
    if ("problems" in read) throw new Error(JSON.stringify(read.problems));
    const report = reportOf(read.record);
    const unknown = report.stages.find((s) => s.key === "unknown")!;
    expect(unknown.trials.map((t) => [t.name, t.counts, t.inSet])).toEqual([
      ["trial 1", true, true],
      ["trial 2", false, false],
    ]);
    expect(unknown.result?.shown).toMatch(/^0\.8\d+ ± 0\.0\d+ mg\/L$/);
    expect(unknown.shares[0]?.part).toBeGreaterThan(0.3);
    const text = reportText(read.record, localizer(record.houseRules.words));
    expect(reportText(read.record, localizer({ titer: "titre", volume: "cm³" }))).toMatch(
      /trial 1: 0\.8\d+ ± 0\.\d+ mg\/dm³/,
    );
    expect(text).toMatch(/Read the unknown\n=+\n {2}trial 1: 0\.8\d+ ± 0\.\d+ mg\/L \(in the set\)/);
    expect(text).not.toMatch(/titer/);
    expect(text).toMatch(/Line by least squares through 6 readings of 6 standards/);
  });

  test("a limit is part of the report", () => {
    const record = phosphate();
    const limited = typedRun(record.method, {
      wavelength: { once: { "λ:given": "880" } },
      standards: {
        trials: ["0.00", "4.00", "8.00"].map((ml, i) => ({
          "V_s:volume.taken": ml,
          "A:absorbance": ["0.001 0.003", "0.281 0.279", "0.560 0.562"][i]!,
        })),
      },
      unknown: {
        once: { "c_lim:given": "0.50" },
        trials: [{ "V_u:volume.taken": "25.00", "A:absorbance": "0.312 0.314" }],
      },
    });
    const unknown = reportOf(limited).stages.find((s) => s.key === "unknown");
    expect(unknown?.acceptance).toMatch(/clearly above the limit, 0\.5000 mg\/L\. It fails\./);
  });

  test.each([
    ["a reading that means another number", "stages.1.trials.1.observations.1.value", "9", /does not mean 9/],
    ["a reading beyond the display", "stages.1.trials.1.observations.1.text", "9.9", /does not mean/],
    [
      "a titer among the standards",
      "stages.1.trials.1.observations.1.kind",
      "burette.final",
      / is read here/,
    ],
    ["a choice that is no text", "stages.1.choices", { model: 3 }, /string/],
    ["a course of letters", "stages.1.traces", [{ id: "x" }], /./],
  ])("%s is told by its path", (_what, path, value, message) => {
    const record = JSON.parse(JSON.stringify(phosphate())) as Record<string, unknown>;
    const keys = path.split(".");
    const last = keys.pop()!;
    const holder = keys.reduce<unknown>((here, key) => (here as Record<string, unknown>)[key], record);
    (holder as Record<string, unknown>)[last] = value;
    const read = readRunRecord(record);
    const problems = "problems" in read ? read.problems : [];
    expect(problems.some((p) => message.test(inEnglish(p.message)) && p.path.startsWith("stages.1"))).toBe(
      true,
    );
  });
});

import { describe, expect, test } from "@jest/globals";
import { inUnit, type Quantity, standardUncertainty } from "~/core/quantity";
import { mustHold } from "~/core/result";
import FormulaParser from "fast-formula-parser";
import katex from "katex";
import { propagateAll } from "~/core/montecarlo";
import { parseEquation, schemeRatio } from "~/core/chemistry";
import { dropsVolume } from "~/core/measure";
import { evaluateRelations, parseRelation, spreadsheetRows } from "~/core/relation";
import { isOnce, resultQuantity, compileMethod } from "~/core/stages";
import { checkRecord, compareResult, evaluateRun, programOf } from "~/core/evaluate";
import { type Method, unitOfInput } from "~/core/method";
import type { RunRecord } from "~/core/run";
import { workingOf } from "~/core/working";
import { simulateRun } from "~/core/simulate";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { titer, type Typed, typedRun } from "../testing/typed-run";
import { dilutionChain, equivalentMass, reverse } from "../testing/shapes/acid-base";
import { baseByPhthalateSolution } from "~/catalog/methods/acid-base/base-by-phthalate-solution";
import { diluteAndCheckAcid } from "~/catalog/methods/acid-base/dilute-and-check";
import { backTitration, byCylinder, hardnessByReplacement } from "../testing/shapes/complexometric";
import {
  againstALimit,
  blankDifference,
  dissolvedOxygen,
  electronCount,
  kappaNumber,
  sampleToTheMark,
} from "../testing/shapes/redox";
import { shapes } from "../testing/shapes";
import { plain } from "../testing/plain";

const one = { agreement: { rule: "n-within", replicates: 1, withinMl: "0.10" } } as const;

function stageOf(record: RunRecord, key: string) {
  const stage = evaluateRun(record).stages.find((s) => s.key === key);
  if (!stage) throw new Error(`no stage ${key}`);
  return stage;
}

/** A result of a stage, main or beside it, in its own unit. */
function value(record: RunRecord, key: string, symbol?: string): number {
  const stage = stageOf(record, key);
  const main = resultQuantity(stage);
  const beside = stage.also.find((a) => a.definition.symbol === symbol);
  const [q, unit]: [Quantity | null, string] = beside
    ? [beside.quantity, beside.definition.unit]
    : [main, stage.definition.result.unit];
  if (!q) throw new Error(`no result of ${key}`);
  return inUnit(q, unit);
}

const aliquot = (ml: string, final: string): Typed => ({ "V_a:volume.taken": ml, ...titer(final) });

/*
 * Each result worked out by hand beside the test, from the definition of the quantity alone. Molar masses: CHECKS.md (IUPAC
 * 2021).
 */
describe("every shape of titration, from relations and inputs alone", () => {
  test("reverse: c = 0.1000 · 26.15 / 25.00", () => {
    const run = typedRun(reverse, { determine: { trials: [aliquot("25.00", "26.15")] } }, one);
    expect(value(run, "determine")).toBeCloseTo(0.1046, 10);
  });

  test("aliquots of a standard solution: 5.1056 g of phthalate in 250.0 mL are 0.1000 mol/L", () => {
    const run = typedRun(
      baseByPhthalateSolution,
      {
        prepare: {
          once: { "m:mass.before": "7.2056", "m:mass.after": "2.1000", "V_f:volume.taken": "250.0" },
        },
        standardize: { trials: [aliquot("25.00", "24.85")] },
      },
      one,
    );
    expect(value(run, "prepare")).toBeCloseTo(5.1056 / 204.222 / 0.25, 8);
    expect(value(run, "standardize")).toBeCloseTo((5.1056 / 204.222 / 0.25) * (25 / 24.85), 8);
    expect(stageOf(run, "prepare").done).toBe(true);
  });

  /** CHECKS.md: 1 mL of 0.0200 mol/L permanganate = 5.585 mg Fe. */
  test("a sample made up to the mark: 21.50 mL for 25 of 250 mL are 10 · 21.50 · 5.5845 mg of iron", () => {
    const run = typedRun(
      sampleToTheMark,
      {
        determine: {
          once: { "V_f:volume.taken": "250.0", "V_s:volume.taken": "50.00" },
          trials: [aliquot("25.00", "21.50")],
        },
      },
      one,
    );
    expect(value(run, "determine")).toBeCloseTo(10 * 21.5 * 5.5845e-3, 8);
    expect(value(run, "determine", "γ")).toBeCloseTo((10 * 21.5 * 5.5845e-3) / 0.05, 6);
    expect(value(run, "determine", "N")).toBeCloseTo(0.1, 12);
    const single = typedRun(
      sampleToTheMark,
      {
        determine: {
          once: { "V_f:volume.taken": "250.0", "V_s:volume.taken": "50.00" },
          trials: [aliquot("250.0", "1.00")],
        },
      },
      one,
    );
    expect((1000 * value(single, "determine")).toFixed(3)).toBe("5.585");
  });

  test("a chain of dilutions: 22.40 mL, twentyfold diluted; % w/v, % w/w, % v/v", () => {
    const run = typedRun(
      dilutionChain,
      {
        determine: {
          once: {
            "V_1:volume.taken": "25.00",
            "V_2:volume.taken": "250.0",
            "V_3:volume.taken": "50.00",
            "V_4:volume.taken": "100.0",
          },
          trials: [aliquot("25.00", "11.20")],
        },
      },
      one,
    );
    // 0.1 · 11.20 / 25 = 0.0448; · 2 · 10 = 0.896 mol/L; · 60.052 g/mol = 53.807 g/L
    expect(value(run, "determine")).toBeCloseTo(0.896, 10);
    expect(value(run, "determine", "γ")).toBeCloseTo(5.3807, 4);
    expect(value(run, "determine", "w")).toBeCloseTo(5.3807 / 1.006, 4);
    expect(value(run, "determine", "φ")).toBeCloseTo(5.3807 / 1.049, 4);
  });

  test("back-titration: 25.00 mL of 0.0500 less 13.10 mL of 0.0500 is 0.595 mmol of nickel", () => {
    const flask: Typed = {
      "m:mass.before": "12.2460",
      "m:mass.after": "12.0000",
      "V_y:volume.taken": "25.00",
      ...titer("13.10"),
    };
    const run = typedRun(backTitration, { determine: { trials: [flask] } }, one);
    const percent = (100 * 0.595e-3 * 58.693) / 0.246;
    expect(value(run, "determine")).toBeCloseTo(percent, 6);
    expect(value(run, "determine", "b")).toBeCloseTo(percent * 1e4, 2);
  });

  test("excess, blank and aliquot at once: 24.60 - 16.80 mL of 0.1000 iron(II) for 20.00 mL", () => {
    const run = typedRun(
      blankDifference,
      { blank: { trials: [titer("24.60")] }, determine: { trials: [aliquot("20.00", "16.80")] } },
      one,
    );
    // One electron each: a quarter of a mole of oxygen, 31.998 g/mol
    expect(value(run, "determine")).toBeCloseTo((7.8e-3 * 0.1 * 31.998 * 1000) / 4 / 0.02, 6);
  });

  test("indirect, in a chain of three: iodate, thiosulfate, oxygen, with the reagents' volume taken off", () => {
    const run = typedRun(
      dissolvedOxygen,
      {
        prepare: {
          once: {
            "m:mass.before": "30.0000",
            "m:mass.after": "30.1250",
            "P:purity": "100.00",
            "V_f:volume.taken": "250.0",
          },
        },
        standardize: { trials: [aliquot("25.00", "26.20")] },
        determine: { trials: [aliquot("100.00", "7.90")] },
      },
      one,
    );
    const iodate = 0.125 / 214.0 / 0.25;
    const thiosulfate = (6 * iodate * 25) / 26.2;
    expect(value(run, "standardize")).toBeCloseTo(thiosulfate, 6);
    // Four thiosulfate for one oxygen.
    expect(value(run, "determine")).toBeCloseTo(
      ((thiosulfate * 7.9 * 31.998) / 4 / 100) * 1000 * (300 / 296),
      3,
    );
  });

  test("replacement, the sample by burette difference; hardness in all its units (CHECKS.md)", () => {
    const flask: Typed = {
      "V_s:burette.initial": "1.00",
      "V_s:burette.final": "21.00",
      ...titer("10.00"),
    };
    const run = typedRun(hardnessByReplacement, { determine: { trials: [flask] } }, one);
    expect(value(run, "determine")).toBeCloseTo(5, 10);
    expect(value(run, "determine", "γ")).toBeCloseTo(5 * 40.078, 6);
    expect(value(run, "determine", "γ_c")).toBeCloseTo(500.43, 2);
    expect(value(run, "determine", "h")).toBeCloseTo(5 / 0.1783, 6);
    expect(value(run, "determine", "N")).toBeCloseTo(10, 10);
  });

  test("an electron count: unrounded, and the nearest whole number", () => {
    const run = typedRun(electronCount, { determine: { trials: [aliquot("25.00", "25.60")] } }, one);
    expect(value(run, "determine")).toBeCloseTo((5 * 0.02 * 25.6) / (0.1 * 25), 10);
    expect(plain(stageOf(run, "determine").shown)).toMatchObject({ nearestWhole: "1", unit: "" });
  });

  test("an equivalent mass: 0.1800 g take 24.00 mL of 0.1000 mol/L", () => {
    const run = typedRun(
      equivalentMass,
      { determine: { trials: [{ "m:mass.tared": "0.1800", ...titer("24.00") }] } },
      one,
    );
    expect(value(run, "determine")).toBeCloseTo(75, 8);
    expect(value(run, "determine", "M_a")).toBeCloseTo(150, 8);
  });

  /** ISO 302 / TAPPI T 236 (CHECKS.md): f = 0.958 at p = 30, 1.000 at 50, 1.044 at 70; 1 + 0.013 (25 - t). */
  test.each([
    [30, "33.00", 0.958, 25],
    [50, "23.00", 1, 25],
    [70, "13.00", 1.044, 25],
    [50, "23.00", 1, 20],
  ])("kappa number with p = %d mL", (p, final, f, temperature) => {
    const flask: Typed = {
      "w:mass.tared": "2.0000",
      "t:temperature": temperature.toFixed(1),
      ...titer(final),
    };
    const run = typedRun(
      kappaNumber,
      { blank: { trials: [titer("48.00")] }, determine: { trials: [flask] } },
      one,
    );
    const kappa = (p * f * (1 + 0.013 * (25 - temperature))) / 2;
    expect(value(run, "determine") / kappa).toBeCloseTo(1, 3);
  });

  /** CHECKS.md: 1 mL of 0.0100 mol/L iodine = 0.641 mg SO2. */
  test("a result against a limit, its ± considered", () => {
    const judged = (final: string) => {
      const stage = stageOf(
        typedRun(
          againstALimit,
          { determine: { once: { "L:given": "160" }, trials: [aliquot("20.00", final)] } },
          one,
        ),
        "determine",
      );
      return stage.kind === "titration" ? stage.acceptance : null;
    };
    const run = typedRun(againstALimit, { determine: { trials: [aliquot("20.00", "4.00")] } }, one);
    expect((value(run, "determine") * 20) / 1000 / 4).toBeCloseTo(0.641, 3);
    expect(plain(stageOf(run, "determine"))).toMatchObject({ acceptance: null });
    expect(plain(judged("4.00"))).toMatchObject({
      verdict: "clearly below",
      passes: true,
      text: expect.stringMatching(/It passes\.$/),
    });
    expect(plain(judged("5.00"))).toMatchObject({
      verdict: "cannot tell",
      passes: null,
      text: expect.stringMatching(/guard band/),
    });
    expect(plain(judged("6.00"))).toMatchObject({
      verdict: "clearly above",
      passes: false,
      text: expect.stringMatching(/It fails\.$/),
    });
  });

  test("a cylinder's tolerance rules the ±, and that is said", () => {
    const flask: Typed = { "V_s:volume.taken": "50.0", ...titer("20.50") };
    const run = typedRun(byCylinder, { determine: { trials: [flask] } }, one);
    const stage = stageOf(run, "determine");
    if (stage.kind !== "titration") throw new Error("no titration");
    expect(plain(stage.improvement?.text)).toMatch(/measuring cylinder.*a pipette instead of the cylinder/);
  });
});

/** Common practice, no source: 25 mL of 0.23 mol/L from 0.538 mol/L need 10.687 mL; a burette read to tenths delivers 10.7. */
describe("dilute and check", () => {
  const made: Typed = {
    "c_t:given": "0.23",
    "c_0:given": "0.538",
    "V_0:burette.initial": "0.00",
    "V_0:burette.final": "10.70",
    "V_e:volume.taken": "25.0",
  };
  const { "c_t:given": _target, ...withoutTarget } = made;
  const stage = (titers: readonly string[], target = true) => {
    const run = typedRun(diluteAndCheckAcid, {
      dilute: { once: target ? made : withoutTarget },
      check: {
        trials: titers.map((final) => aliquot("10.00", final)),
      },
    });
    const found = stageOf(run, "check");
    if (found.kind !== "titration") throw new Error("no titration");
    return found;
  };

  test("10.70 mL make 0.2303 mol/L, not quite 0.23", () => {
    expect(Math.abs((25 * 0.23) / 0.538 - 10.687)).toBeLessThan(0.001);
    const run = typedRun(diluteAndCheckAcid, { dilute: { once: made } });
    expect(value(run, "dilute")).toBeCloseTo((0.538 * 10.7) / 25, 10);
  });

  test("within 5 %: done after one titration", () => {
    const { verdict, acceptance, done } = stage(["22.40"]);
    expect(plain(acceptance)).toMatchObject({ within: true, decision: "accept" });
    expect(plain(acceptance?.text)).toMatch(
      /2\.6 % below the target, 0\.2300 mol\/L: within the 5 % allowed/,
    );
    expect(plain([verdict.state, verdict.next, done])).toEqual(["agreed", "Go on: Conclude", true]);
  });

  test("off: titrate what was kept; still off: make it anew", () => {
    expect(plain(stage(["21.00"]).verdict)).toMatchObject({
      state: "collecting",
      next: "Titrate the saved solution again",
    });
    expect(plain(stage(["21.00", "21.05"]).verdict.next)).toBe("Make a new dilution");
    // Two that disagree decide nothing, on whichever side of the target they lie.
    for (const [one, other] of [
      ["21.00", "23.00"],
      ["23.00", "26.00"],
      ["23.00", "21.00"],
    ] as const) {
      const split = stage([one, other]);
      expect(plain([split.acceptance, split.combined, split.done])).toEqual([null, null, false]);
      expect(plain(split.verdict.reason)).toMatch(/^Trials 1 and 2 disagree: they are \d\.00 mL apart/);
      expect(plain(split.verdict.next)).toMatch(/between .* mL, or between .* mL$/);
    }
  });

  test("a known value that is only told of: its error with or without a sign, and the recovery", () => {
    const stated: Method = {
      ...diluteAndCheckAcid,
      stages: diluteAndCheckAcid.stages.map((s) =>
        s.kind === "titration" && s.accept?.against === "value"
          ? { ...s, accept: { ...s.accept, whenOff: "tell" } }
          : s,
      ),
    };
    const text = (percentError: "signed" | "absolute") => {
      const record = typedRun(
        stated,
        { dilute: { once: made }, check: { trials: [aliquot("10.00", "22.40")] } },
        { percentError, ...one },
      );
      const found = stageOf(record, "check");
      return found.kind === "titration" ? [found.acceptance?.text, found.done] : [];
    };
    const rest =
      "the target, 0.2300 mol/L: within the 5 % allowed. Recovery: 97.4 %. The difference is larger than the ±: look for its cause.";
    expect(plain(text("signed"))).toEqual([`The result is 2.6 % below ${rest}`, true]);
    expect(plain(text("absolute"))).toEqual([`The result is 2.6 % off ${rest}`, true]);
  });

  test("without a target the house's rule decides", () => {
    expect(plain(stage(["22.40"], false))).toMatchObject({ acceptance: null, done: false });
    expect(stage(["22.40", "22.41", "22.44"], false).done).toBe(true);
  });
});

/** Common practice, no source: 1 g of NaHCO3 (84 g/mol) against 27 mL of sulfuric acid: 0.22 mol/L, 12 to 13 % below 0.25. */
test("the core rounds once, at the end", () => {
  const hydrogenCarbonate: Method = {
    ...equivalentMass,
    equations: [{ name: "reaction", equation: "2 NaHCO3 + H2SO4 -> Na2SO4 + 2 H2O + 2 CO2" }],
    stages: equivalentMass.stages.map((stage) =>
      stage.kind !== "titration"
        ? stage
        : {
            ...stage,
            relations: [
              {
                relation: "c = m / M(NaHCO3) * ratio(H2SO4, NaHCO3) / V",
                title: "Concentration of the acid",
                unit: "mol/L",
              },
            ],
            result: { symbol: "c", name: "Concentration of the acid", unit: "mol/L" },
            also: [],
            presumed: 0.25,
          },
    ),
  };
  const run = typedRun(
    hydrogenCarbonate,
    { determine: { trials: [{ "m:mass.tared": "1.0000", ...titer("27.00") }] } },
    one,
  );
  const c = value(run, "determine");
  expect((c * 0.027).toFixed(5)).toBe("0.00595");
  expect(c.toFixed(2)).toBe("0.22");
  expect((100 * (0.25 - c)) / 0.25).toBeGreaterThan(11.5);
  expect((100 * (0.25 - c)) / 0.25).toBeLessThan(13);
});

/**
 * Common practice, no source: 15 drops of 10 % ethanol and 5 of water are 7.5 % in 1 mL, 0.15 % in 50 mL; 0.059 g of ethanol
 * (0.789 g/mL) there, which use 0.25 g of potassium dichromate.
 */
test("ethanol by drops, and the dichromate it uses, in relations alone", () => {
  const lines = [
    "φ_1 = 10 [% v/v] * V_e / (V_e + V_w)",
    "φ_2 = φ_1 * (V_e + V_w) / 50 [mL]",
    "m_e = φ_2 * 50 [mL] * 0.789 [g/mL]",
    "m_d = m_e / M(C2H5OH) * ratio(K2Cr2O7, C2H5OH) * M(K2Cr2O7)",
  ].map((source) => mustHold(parseRelation(source)));
  const equation = mustHold(
    parseEquation("2 K2Cr2O7 + 3 C2H5OH + 8 H2SO4 -> 2 Cr2(SO4)3 + 2 K2SO4 + 3 CH3COOH + 11 H2O"),
  );
  const place = { stage: "s", trial: "t" };
  const drops = (n: number) => dropsVolume(n, { value: 20, plusMinus: 0 }, place, "ethanol");
  const symbols = evaluateRelations(
    lines,
    new Map([
      ["V_e", drops(15)],
      ["V_w", drops(5)],
    ]),
    { ratio: (of, per) => mustHold(schemeRatio([equation], of, per)), equivalents: () => NaN },
  );
  const shown = (symbol: string, unit: string, digits: number) =>
    inUnit(symbols.get(symbol)!, unit).toFixed(digits);
  expect(shown("φ_1", "% v/v", 2)).toBe("7.50");
  expect(shown("φ_2", "% v/v", 3)).toBe("0.150");
  expect(shown("m_e", "g", 3)).toBe("0.059");
  expect(shown("m_d", "g", 2)).toBe("0.25");
});

describe.each(shapes.map((s) => [s.name, s] as const))("%s", (_name, { method, truth }) => {
  const { record, truths } = mustHold(
    simulateRun({ method, houseRules: defaultHouseRules, truth, seed: 2026 }),
  );

  test("passes the check, and a simulated run of it finds the truth within four u", () => {
    expect(plain(compileMethod(method))).toMatchObject({ ok: true });
    expect(checkRecord(record)).toEqual([]);
    const computed = evaluateRun(record).stages;
    expect(computed.length).toBeGreaterThan(0);
    for (const stage of computed) {
      expect(stage.done).toBe(true);
      const q = resultQuantity(stage)!;
      expect(Math.abs(q.value - truths.get(stage.key)!)).toBeLessThan(4 * standardUncertainty(q));
    }
  });

  test("a spreadsheet computes its first trial the same, cell by cell (fast-formula-parser from the registry)", () => {
    const compiled = mustHold(compileMethod(method));
    for (const stage of evaluateRun(record).stages) {
      const { definition } = stage;
      const lines = compiled.stages.get(stage.key)?.lines;
      if (!lines) continue;
      const symbols = isOnce(stage) ? stage.symbols : stage.trials[0]!.symbols;
      const inputs = definition.inputs;
      const rows = spreadsheetRows(
        inputs.flatMap((input) => {
          const unit = unitOfInput(input, method);
          const q = symbols.get(input.symbol);
          return q ? [{ symbol: input.symbol, label: input.label, unit, value: inUnit(q, unit) }] : [];
        }),
        lines,
        compiled.stoichiometry,
      );
      const cells = new Map<string, unknown>();
      const sheet = new FormulaParser({
        onCell: ({ row, col }) => cells.get(`${"ABC".charAt(col - 1)}${row}`),
      });
      for (const { address, content, symbol, unit } of rows) {
        const computed =
          typeof content === "number"
            ? content
            : sheet.parse(content.slice(1), { sheet: "s", row: Number(address.slice(1)), col: 3 });
        cells.set(address, computed);
        expect((computed as number) / inUnit(symbols.get(symbol)!, unit)).toBeCloseTo(1, 8);
      }
      expect(rows.at(-1)?.content).toMatch(/^=/);
    }
  });

  test("its working is written for every stage: sound TeX, and the result at its end", () => {
    const evaluation = evaluateRun(record);
    for (const stage of evaluation.stages) {
      const { steps } = workingOf(record, evaluation, stage.key, null)!;
      const tex = steps
        .flatMap(({ names, numbers, value: result }) => [names, numbers, result])
        .filter(Boolean);
      for (const line of tex)
        expect(() => katex.renderToString(line, { throwOnError: true, strict: "error" })).not.toThrow();
      expect(tex.join(" ")).not.toMatch(/NaN|undefined|–/);
      expect(steps.find((s) => s.id === "result")?.valueText).toBe(stage.shown?.text);
      expect(new Set(steps.map((s) => s.id)).size).toBe(steps.length);
    }
  });

  test("its Monte Carlo draws spread as its propagated u says, through all its stages", () => {
    const stage = evaluateRun(record).stages.at(-1)!;
    const draw = (scatter: "t" | "normal") =>
      propagateAll(mustHold(programOf(record, stage.key, scatter)), { draws: 30_000, seed: 7 });
    const { linear, drawn } = compareResult(stage, draw("normal"))!;
    expect(Math.abs(drawn.mean - linear.value)).toBeLessThan(0.05 * linear.standardUncertainty);
    expect(drawn.standardUncertainty / linear.standardUncertainty).toBeGreaterThan(0.98);
    expect(drawn.standardUncertainty / linear.standardUncertainty).toBeLessThan(1.02);
    // The scatter of three trials taken at its word (JCGM 101, 6.4.9) never makes the interval narrower.
    const byT = draw("t").interval;
    const byNormal = draw("normal").interval;
    expect((byT[1] - byT[0]) / (byNormal[1] - byNormal[0])).toBeGreaterThan(0.98);
  });
});

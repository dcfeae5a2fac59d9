import { describe, expect, test } from "@jest/globals";
import { methods } from "~/catalog/methods";
import { applyChange } from "../change";
import { changeContext, evaluateRun } from "../evaluate";
import { trialFields } from "../method";
import { methodOf } from "../run";
import { begunRun } from "../testing/build-record";
import { plain } from "../testing/plain";
import { inEnglish } from "../text";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { inUnit, standardUncertainty } from "../quantity";
import { mustHold } from "../result";
import type { HouseRules } from "../rules";
import {
  detailsOf,
  fieldsOfInput,
  type Input,
  isWay,
  quantityOfInput,
  unwise,
  waysToMeasure,
  withDetails,
} from ".";

const context = changeContext({
  now: "2026-11-28T09:00:00.000Z",
  person: "bench 1",
  newId: (of) => `${of} more`,
});
/** With the details that nobody presumes, as they would be typed. */
const described = (input: Input, texts: Readonly<Record<string, string>> = {}): Input => {
  const asked: Record<string, string> = Object.fromEntries(
    detailsOf(input).map(({ key, text }) => [key, text]),
  );
  const density: Record<string, string> =
    input.is === "by-mass" ? { density: "1.012", plusMinus: "0.001" } : {};
  return mustHold(withDetails(input, { ...asked, ...density, ...texts }));
};
const classB: HouseRules = {
  ...defaultHouseRules,
  glassware: { ...defaultHouseRules.glassware, toleranceClass: "B" },
};
const volume = (presumed: string): Input => ({
  ...{ is: "pipette", symbol: "V_a", label: "Aliquot", of: "HCl", per: "trial", presumed },
});

describe("ways to measure an amount", () => {
  test("every one that is offered for an input of the library makes a method that passes the check, is undone, and is shown as what is read", () => {
    let offered = 0;
    for (const method of methods) {
      for (const { key, inputs } of method.stages) {
        for (const own of inputs) {
          const ways = waysToMeasure(own, defaultHouseRules);
          expect(ways.length === 0 || ways.filter((way) => isWay(way, own)).length === 1).toBe(true);
          for (const way of ways) {
            if (isWay(way, own)) continue;
            offered++;
            const input = described(way.input);
            const record = begunRun(method);
            const chosen = applyChange(
              record,
              { intent: "choose-input", stageKey: key, symbol: own.symbol, input },
              context,
            );
            if (!chosen.ok)
              throw new Error(`${method.id}, ${own.label}: ${inEnglish(chosen.problem.message)}`);
            const after = chosen.value!.record;
            expect(evaluateRun(after).failures).toEqual([]);
            const stage = methodOf(after).stages.find((s) => s.key === key)!;
            expect(stage.inputs.find(({ symbol }) => symbol === own.symbol)).toEqual(input);
            if (way.key === "burette" && own.symbol !== "V" && "agree" in stage)
              expect(trialFields(stage, after.houseRules).map(({ kind }) => kind)).toContain(
                "burette.initial",
              );
            const back = applyChange(
              after,
              { intent: "choose-input", stageKey: key, symbol: own.symbol, input: null },
              context,
            );
            expect(back.ok && back.value?.record.choices).toEqual([]);
          }
        }
      }
    }
    expect(offered).toBeGreaterThan(100);
  });

  test.each([
    // Limits of class A at full capacity (ISO 4788, ISO 835, from memory): 0.25 in 25 mL, 0.1 in 25 mL.
    ["25.00", "cylinder", "25 mL measuring cylinder", /^Good to 1\.0 % at best/],
    ["25.00", "graduated pipette", "25 mL graduated pipette", /^Good to 0\.40 % at best/],
    ["25.00", "burette", "burette, by difference", null],
    // Of a piece that is not filled the limit stays the same: 0.5 in 40 mL.
    ["40.00", "cylinder", "50 mL measuring cylinder", /^Good to 1\.3 % at best/],
  ] as const)("%s mL by %s is a %s", (presumed, key, name, words) => {
    const way = waysToMeasure(volume(presumed), defaultHouseRules).find((w) => w.key === key)!;
    expect(plain(way.name)).toBe(name);
    const word = unwise(way.input, defaultHouseRules);
    if (words === null) expect(word).toBeNull();
    else expect(plain(word)).toMatch(words);
  });

  test("glass that does not measure the amount is not offered; class B is twice as coarse", () => {
    const keys = (presumed: string) =>
      waysToMeasure(volume(presumed), defaultHouseRules).map(({ key }) => key);
    expect(keys("50.00")).toEqual(["pipette", "burette", "cylinder", "mass"]);
    const odd: Input = { ...volume("7.5"), is: "graduated", glass: "cylinder", capacityMl: 10 } as Input;
    expect(waysToMeasure(odd, defaultHouseRules).map(({ key }) => key)).toEqual([
      ...["graduated pipette", "burette", "cylinder", "mass"],
    ]);
    const [, , , cylinder] = waysToMeasure(volume("25.00"), defaultHouseRules);
    expect(plain(unwise(cylinder!.input, classB))).toMatch(/^Good to 2\.0 %/);
  });

  test("another weighing has names of its own, and keeps the window that the method asks for", () => {
    const own: Input = {
      ...{ is: "mass", symbol: "m", label: "Mass", of: "KHC8H4O4", per: "trial" },
      ...{ before: "Boat with solid", after: "Boat after transfer", expect: [0.4, 0.8] },
    };
    const [transfer, addition, tared] = waysToMeasure(own, defaultHouseRules);
    expect(transfer?.input).toBe(own);
    expect(addition?.input).toEqual({
      ...{ is: "mass", symbol: "m", label: "Mass", of: "KHC8H4O4", per: "trial" },
      ...{ weighing: "addition", expect: [0.4, 0.8] },
    });
    expect(tared?.input).toMatchObject({ weighing: "tared" });
    expect(waysToMeasure({ ...volume("25.00"), is: "count" } as unknown as Input, defaultHouseRules)).toEqual(
      [],
    );
  });

  test("on a coarser balance: fewer decimals, a wider ±, and a word where it would rule the result", () => {
    const weighed: Input = {
      ...{ is: "mass", symbol: "m", label: "Mass", of: "KHC8H4O4", per: "trial" },
      ...{ weighing: "tared", expect: [0.4, 0.6] },
    };
    const rules = defaultHouseRules;
    const coarse = described(weighed, { decimals: "2" });
    const [field] = fieldsOfInput(coarse, { meniscus: "bottom", series: false, hotFlask: null }, rules);
    expect(field?.rules.decimals).toBe(2);
    const u = (input: Input) => {
      const q = quantityOfInput(
        input,
        (kind) => (kind === "mass.tared" ? 0.51 : null),
        { stage: "s", trial: "t" },
        rules,
      );
      return q ? standardUncertainty(q) : NaN;
    };
    // Half a last digit and the house's ratio of linearity to it, both rectangular: a hundred times those of 0.1 mg.
    expect(u(coarse) / u(weighed)).toBeCloseTo(0.01 / Number(rules.balance.readabilityG), 6);
    expect(unwise(weighed, rules)).toBeNull();
    // √(0.005² + 0.02²) g of 0.5 g, where linearity is two digits.
    expect(plain(unwise(coarse, rules))).toMatch(
      /^Good to [\d.]+ % at best: the balance would rule the result\.$/,
    );
    expect(described(coarse, { decimals: "" })).toEqual(weighed);
  });

  const at = { stage: "s", trial: "t" };
  const reading = (texts: Readonly<Record<string, number>>) => (kind: string) => texts[kind] ?? null;

  test("a volume by mass is the mass over the density; both bring their ±", () => {
    const own = volume("25.00");
    const way = waysToMeasure(own, defaultHouseRules).find(({ key }) => key === "mass")!;
    expect(withDetails(way.input, { density: "", plusMinus: "" })).toMatchObject({
      problem: { key: "density" },
    });
    expect(withDetails(way.input, { density: "1.012", plusMinus: "" })).toMatchObject({
      problem: { key: "plusMinus" },
    });
    const input = described(way.input, { density: "1.0120", plusMinus: "0.0010", weighing: "addition" });
    const q = quantityOfInput(
      input,
      reading({ "mass.before": 40.1, "mass.after": 65.3 }),
      at,
      defaultHouseRules,
    )!;
    // 25.2000 g / 1.0120 g/mL = 24.9012 mL.
    expect(inUnit(q, "mL")).toBeCloseTo(24.9012, 4);
    // The density's 0.001 g/mL, rectangular: 0.001 / √3 / 1.012 = 0.0571 % of the volume; the balance's part is a hundredth of that.
    expect(standardUncertainty(q) / q.value / 0.000571).toBeCloseTo(1, 2);
    expect(unwise(input, defaultHouseRules)).toBeNull();
    expect(plain(unwise(described(input, { plusMinus: "0.010" }), defaultHouseRules))).toBe(
      "Good to 0.99 % at best: its density would rule the result.",
    );
  });

  test("drops are counted of one's own tip; more than a few milliliters nobody counts", () => {
    expect(waysToMeasure(volume("10.00"), defaultHouseRules).some(({ key }) => key === "drops")).toBe(false);
    const way = waysToMeasure(volume("1.00"), defaultHouseRules).find(({ key }) => key === "drops")!;
    expect(withDetails(way.input, { drops: "0", inMl: "3", plusMinus: "1" })).toMatchObject({
      problem: { key: "drops" },
    });
    // 66 ± 1 drops in 3.00 mL are 22.0 ± 0.33 in one; 20 of them are 0.909 mL.
    const input = described(way.input, { drops: "66", inMl: "3.00", plusMinus: "1" });
    const q = quantityOfInput(input, reading({ drops: 20 }), at, defaultHouseRules)!;
    expect(inUnit(q, "mL")).toBeCloseTo(0.90909, 5);
    expect((standardUncertainty(q) / q.value) * 100).toBeCloseTo(100 / 66 / Math.sqrt(3), 4);
    expect(plain(unwise(input, defaultHouseRules))).toMatch(/^Good to 1\.5 % at best: the drops/);
  });

  test("a piece of glass of its own: its class, and the volume that was found of it", () => {
    const own = volume("25.00");
    const u = (input: Input) => {
      const q = quantityOfInput(input, reading({ "volume.taken": 25 }), at, defaultHouseRules)!;
      return { ml: inUnit(q, "mL"), u: standardUncertainty(q) };
    };
    const b = described(own, { class: "B" });
    expect(
      plain(
        fieldsOfInput(b, { meniscus: "bottom", series: false, hotFlask: null }, defaultHouseRules)[0]?.hint,
      ),
    ).toBe("class B pipette");
    expect(u(b).u).toBeGreaterThan(1.5 * u(own).u);
    const calibrated = described(own, { calibrated: "24.985", calibratedWithin: "0.005" });
    expect(u(calibrated).ml).toBeCloseTo(24.985, 6);
    expect(u(calibrated).u).toBeLessThan(u(own).u);
    // A pipette of another size is another piece: its own volume is not known.
    const other = quantityOfInput(calibrated, reading({ "volume.taken": 20 }), at, defaultHouseRules)!;
    expect(inUnit(other, "mL")).toBeCloseTo(20, 9);
    expect(withDetails(own, { calibrated: "20.1", calibratedWithin: "0.01" })).toMatchObject({
      problem: { key: "calibrated" },
    });
    expect(described(calibrated, { calibrated: "", calibratedWithin: "" })).toEqual(own);
  });
});

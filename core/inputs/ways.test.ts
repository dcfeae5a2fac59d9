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
import { standardUncertainty } from "../quantity";
import {
  fieldsOfInput,
  type Input,
  isWay,
  onBalance,
  quantityOfInput,
  unwiseBalance,
  waysToMeasure,
} from ".";

const context = changeContext({
  now: "2026-11-28T09:00:00.000Z",
  person: "bench 1",
  newId: (of) => `${of} more`,
});
const volume = (presumed: string): Input => ({
  ...{ is: "pipette", symbol: "V_a", label: "Aliquot", of: "HCl", per: "trial", presumed },
});

describe("ways to measure an amount", () => {
  test("every one that is offered for an input of the library makes a method that passes the check, is undone, and is shown as what is read", () => {
    let offered = 0;
    for (const method of methods) {
      for (const { key, inputs } of method.stages) {
        for (const own of inputs) {
          const ways = waysToMeasure(own, "A");
          expect(ways.length === 0 || ways.filter((way) => isWay(way, own)).length === 1).toBe(true);
          for (const way of ways) {
            if (isWay(way, own)) continue;
            offered++;
            const record = begunRun(method);
            const chosen = applyChange(
              record,
              { intent: "choose-input", stageKey: key, symbol: own.symbol, input: way.input },
              context,
            );
            if (!chosen.ok)
              throw new Error(`${method.id}, ${own.label}: ${inEnglish(chosen.problem.message)}`);
            const after = chosen.value!.record;
            expect(evaluateRun(after).failures).toEqual([]);
            const stage = methodOf(after).stages.find((s) => s.key === key)!;
            expect(stage.inputs.find(({ symbol }) => symbol === own.symbol)).toEqual(way.input);
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
  ] as const)("%s mL by %s is a %s", (presumed, key, name, unwise) => {
    const way = waysToMeasure(volume(presumed), "A").find((w) => w.key === key);
    expect(plain(way?.name)).toBe(name);
    if (unwise === null) expect(way?.unwise).toBeNull();
    else expect(plain(way?.unwise)).toMatch(unwise);
  });

  test("glass that does not measure the amount is not offered; class B is twice as coarse", () => {
    const keys = (presumed: string) => waysToMeasure(volume(presumed), "A").map(({ key }) => key);
    expect(keys("50.00")).toEqual(["pipette", "burette", "cylinder"]);
    const odd: Input = { ...volume("7.5"), is: "graduated", glass: "cylinder", capacityMl: 10 } as Input;
    expect(waysToMeasure(odd, "A").map(({ key }) => key)).toEqual([
      ...["graduated pipette", "burette", "cylinder"],
    ]);
    const [, , , cylinder] = waysToMeasure(volume("25.00"), "B");
    expect(plain(cylinder?.unwise)).toMatch(/^Good to 2\.0 %/);
  });

  test("another weighing has names of its own, and keeps the window that the method asks for", () => {
    const own: Input = {
      ...{ is: "mass", symbol: "m", label: "Mass", of: "KHC8H4O4", per: "trial" },
      ...{ before: "Boat with solid", after: "Boat after transfer", expect: [0.4, 0.8] },
    };
    const [transfer, addition, tared] = waysToMeasure(own, "A");
    expect(transfer?.input).toBe(own);
    expect(addition?.input).toEqual({
      ...{ is: "mass", symbol: "m", label: "Mass", of: "KHC8H4O4", per: "trial" },
      ...{ weighing: "addition", expect: [0.4, 0.8] },
    });
    expect(tared?.input).toMatchObject({ weighing: "tared" });
    expect(waysToMeasure({ ...volume("25.00"), is: "count" } as unknown as Input, "A")).toEqual([]);
  });

  test("on a coarser balance: fewer decimals, a wider ±, and a word where it would rule the result", () => {
    const weighed: Input = {
      ...{ is: "mass", symbol: "m", label: "Mass", of: "KHC8H4O4", per: "trial" },
      ...{ weighing: "tared", expect: [0.4, 0.6] },
    };
    const rules = defaultHouseRules;
    const coarse = onBalance(weighed, 2);
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
    expect(unwiseBalance(weighed, rules)).toBeNull();
    // √(0.005² + 0.02²) g of 0.5 g, where linearity is two digits.
    expect(plain(unwiseBalance(coarse, rules))).toMatch(
      /^Good to [\d.]+ % at best: the balance would rule the result\.$/,
    );
    expect(onBalance(coarse, null)).toEqual(weighed);
  });
});

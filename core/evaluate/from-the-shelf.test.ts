import { describe, expect, test } from "@jest/globals";
import { inUnit, standardUncertainty } from "~/core/quantity";
import { checkRecord, evaluateRun } from "~/core/evaluate";
import type { Observation } from "~/core/record";
import { resultQuantity } from "~/core/stages";
import type { RunRecord } from "~/core/run";
import { stageFields } from "~/core/method";
import { acidByBase } from "~/catalog/methods/acid-base/acid-by-base";
import { nickelByBackTitration } from "~/catalog/methods/complexometric/metal-by-back-titration";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { titer, type Typed, typedRun } from "../testing/typed-run";

const one = { agreement: { rule: "n-within", replicates: 1, withinMl: "0.10" } } as const;
const flask: Typed = { "V_a:volume.taken": "25.00", ...titer("25.00") };

const acid = (once: Typed) => typedRun(acidByBase, { determine: { once, trials: [flask] } }, one);

function found(record: RunRecord, key = "determine") {
  const stage = evaluateRun(record).stages.find((s) => s.key === key);
  const q = stage ? resultQuantity(stage) : null;
  if (!q) throw new Error("no result");
  return q;
}

const fromBottle = (q: ReturnType<typeof found>) =>
  standardUncertainty(q, (leaf) => leaf.kind === "given") / q.value;

describe("a concentration from the shelf", () => {
  test("brings its standard uncertainty as it is; a stated half width is a rectangle", () => {
    const shelf = found(acid({ "c_b:given": "0.1000", "c_b:given.standard-uncertainty": "0.0002" }));
    const stated = found(acid({ "c_b:given": "0.1000", "c_b:given.plus-minus": "0.0002" }));
    expect(inUnit(shelf, "mol/L")).toBeCloseTo(inUnit(stated, "mol/L"), 12);
    expect(fromBottle(shelf)).toBeCloseTo(0.002, 12);
    expect(fromBottle(stated)).toBeCloseTo(0.002 / Math.sqrt(3), 12);
  });

  test("is in order as a record, and its ± is no field that anybody types", () => {
    const record = acid({ "c_b:given": "0.1000", "c_b:given.standard-uncertainty": "0.0002" });
    expect(checkRecord(record)).toEqual([]);
    const [stage] = acidByBase.stages;
    if (stage?.kind !== "titration") throw new Error("no titration");
    const typed = stageFields(stage, defaultHouseRules).filter((f) => !f.hidden);
    expect(typed.map((f) => f.kind)).not.toContain("given.standard-uncertainty");
  });

  test("taken back leaves what is presumed", () => {
    const record = acid({ "c_b:given": "0.2000", "c_b:given.standard-uncertainty": "0.0002" });
    const [stage] = record.stages;
    if (!stage) throw new Error("no stage");
    const back = (o: Observation): Observation => ({
      ...o,
      id: `${o.id}/back`,
      text: "",
      value: null,
      supersedes: o.id,
      reason: "taken back",
    });
    const taken = { ...stage, observations: [...stage.observations, ...stage.observations.map(back)] };
    const q = found({ ...record, stages: [taken, ...record.stages.slice(1)] });
    expect(inUnit(q, "mol/L")).toBeCloseTo(0.1, 12);
  });
});

describe("one bottle for two stages", () => {
  const run = (u: string) =>
    typedRun(
      nickelByBackTitration,
      {
        blank: {
          once: { "c_y:given": "0.0500", "c_y:given.standard-uncertainty": u },
          trials: [{ "V_y:volume.taken": "25.00", ...titer("25.00") }],
        },
        determine: {
          trials: [{ "V_s:volume.taken": "10.00", "V_y:volume.taken": "25.00", ...titer("13.00") }],
        },
      },
      one,
    );

  /** n = c_y V_y (1 - V / V_b): what the bottle is wrong by, the result is wrong by, in the same part. */
  test("counts what is unsure of it once", () => {
    expect(fromBottle(found(run("0.0005")))).toBeCloseTo(0.01, 6);
    expect(fromBottle(found(run("0")))).toBe(0);
    expect(inUnit(found(run("0.0005")), "mmol/L")).toBeCloseTo(60, 6);
  });
});

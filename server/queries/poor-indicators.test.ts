import { expect, test } from "@jest/globals";
import { weakAcidInFood } from "~/catalog/methods/acid-base/weak-acid-in-food";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import type { Method } from "~/core/method";
import { mustHold } from "~/core/result";
import { simulateRun } from "~/core/simulate";
import { plain } from "~/core/testing/plain";
import { poorIndicators } from "./poor-indicators";

const recordOf = (method: Method) =>
  mustHold(
    simulateRun({ method, houseRules: defaultHouseRules, truth: { results: { determine: 0.85 } }, seed: 1 }),
  ).record;

test("an acid of vinegar with methyl orange: it is told that this changes early, and what comes nearest", () => {
  const stages = weakAcidInFood.stages.map((stage) =>
    stage.kind === "titration" ? { ...stage, indicator: "methyl orange, 2 drops" } : stage,
  );
  const [key = ""] = stages.map((stage) => stage.key);
  const found = poorIndicators(recordOf({ ...weakAcidInFood, stages }));
  expect(Object.keys(found)).toEqual([key]);
  expect(plain(found[key])).toMatch(
    /^Methyl orange.* changes early: [−-]19\.\d+ mL.*Phenolphthalein comes nearest/,
  );
  expect(poorIndicators(recordOf(weakAcidInFood))).toEqual({});
});

import { expect, test } from "@jest/globals";
import { baseByPhthalateThenAcid } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { diproticAcidByCurve } from "~/catalog/methods/acid-base/diprotic-acid-by-curve";
import { fadingOfADye } from "~/catalog/methods/colorimetric/fading-of-a-dye";
import { phosphateAsMolybdenumBlue } from "~/catalog/methods/colorimetric/colored-complexes";
import { changeContext } from "../evaluate";
import type { Method } from "../method";
import { randomStream } from "../montecarlo";
import { type Observation, stands } from "../record";
import type { RunRecord } from "../run";
import { begunRun } from "../testing/build-record";
import { randomChange } from "../testing/random-change";
import { applyChange } from "./table";
import { redoOf } from "./redo";
import { takeBack } from "./take-back";
import { inEnglish } from "../text";

let ids = 0;
const newId = () => `id ${++ids}`;
const context = changeContext({ now: "2026-11-29T10:00:00.000Z", person: "bench 1", newId });

/** Readings that hold, by field, whoever wrote them and when. */
const holding = (observations: readonly Observation[]) =>
  observations
    .filter((o) => o.value !== null && stands(observations, o.id))
    .map(({ symbol, kind, text, assignment, point }) =>
      [symbol, kind, text, assignment ?? null, point?.burette].join("|"),
    )
    .sort();

/** All that a person sees of a record and that undo and redo could change. */
const seen = ({ title, sample, bench, status, finishedAt, houseRules, choices = [], stages }: RunRecord) => ({
  ...{ title, sample, bench, status, finishedAt, houseRules, choices },
  stages: stages.map((stage) => ({
    choices: stage.choices ?? {},
    once: holding(stage.observations),
    traces: (stage.traces ?? []).map(({ id, removed }) => [id, removed?.reason ?? null]),
    trials: stage.trials.flatMap(({ id, kind, label, struck, number, observations }) => {
      const readings = holding(observations);
      // A trial of which nothing holds is none.
      return readings.length === 0 ? [] : [[id, kind, label, struck?.reason ?? null, number, readings]];
    }),
  })),
});

/** Undone, made again and undone again, for each change of a random run. */
function play(method: Method, seed: number): number {
  const hand = { random: randomStream(seed), newId };
  let [record, tried] = [begunRun(method), 0];
  for (let i = 0; i < 60; i++) {
    const applied = applyChange(record, randomChange(record, hand), context);
    if (!applied.ok || !applied.value) continue;
    const { record: made, inverse } = applied.value;
    // Time is not taken back, and has buttons of its own.
    if (inverse.do !== "timer") {
      const redo = redoOf(made, inverse, context);
      const undone = takeBack(made, inverse, context);
      if (!undone.ok) throw new Error(inEnglish(undone.problem.message));
      const again = takeBack(undone.value, redo, context);
      if (!again.ok) throw new Error(inEnglish(again.problem.message));
      expect(seen(again.value)).toEqual(seen(made));
      const once = takeBack(again.value, inverse, context);
      expect(once.ok && seen(once.value)).toEqual(seen(undone.value));
      tried++;
    }
    record = made;
  }
  return tried;
}

test.each([
  ["a titration", baseByPhthalateThenAcid],
  ["an assay", phosphateAsMolybdenumBlue],
  ["kinetic runs", fadingOfADye],
  ["curves", diproticAcidByCurve],
])("in %s, what was undone is made again as it was, and undone again, whatever it was", (_name, method) => {
  let tried = 0;
  for (let seed = 1; seed <= 40; seed++) tried += play(method, seed);
  expect(tried).toBeGreaterThan(400);
});

import { expect, test } from "@jest/globals";
import { shapes } from "./shapes";
import { coverageOf } from "./coverage";

/*
 * A bench with a known truth: every cause off by a draw from the distribution that the evaluation states, readings rounded as
 * they are read, trials repeated until the set closes. The stated 95 % interval of the result must hold the truth in 93 to
 * 97 of 100 runs: by chance alone it strays by 1 in 2,000 runs.
 */
test.each([
  "solid-in-each-flask-then-direct",
  "back-titration",
  "blank-difference-with-excess",
  "replacement-sample-by-burette",
])("over 2,000 simulated runs of %s the 95 %% interval holds the truth in 93 to 97 %%", (name) => {
  const found = coverageOf(
    shapes.find((s) => s.name === name)!,
    2000,
  );
  const result = found.at(-1)!;
  expect(result.part).toBeGreaterThanOrEqual(0.93);
  expect(result.part).toBeLessThanOrEqual(0.97);
  for (const { spread } of found) {
    expect(spread).toBeGreaterThan(0.8);
    expect(spread).toBeLessThan(1.2);
  }
});

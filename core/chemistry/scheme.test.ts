import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { mustHold } from "../result";
import { type Equation, parseEquation, schemeRatio, stoichiometricRatio } from ".";
import { plain } from "../testing/plain";

/* The search along a scheme, against trying every way, and on schemes with more ways than can be tried. */

const species = ["NaCl", "KBr", "MgO", "CaS", "FeS", "CuO", "ZnO", "AgI"];

/** Ratios by every way there is from one species to another: what the search stands for. */
function byEveryWay(equations: readonly Equation[], start: string, target: string): number[] {
  const found: number[] = [];
  const at = (equation: Equation, of: string, per: string) => {
    const ratio = stoichiometricRatio(equation, of, per);
    return ratio.ok ? ratio.value[0] / ratio.value[1] : null;
  };
  const follow = (from: string, i: number, soFar: number) => {
    const equation = equations[i]!;
    for (const { formula } of equation.right) {
      const made = soFar * (at(equation, formula.source, from) ?? NaN);
      equations.forEach((later, j) => {
        if (j <= i || !later.left.some((t) => t.formula.source === formula.source)) return;
        const end = at(later, target, formula.source);
        if (end === null) follow(formula.source, j, made);
        else found.push(made * end);
      });
    }
  };
  equations.forEach((equation, i) => {
    if (at(equation, start, start) !== null) follow(start, i, 1);
  });
  return found;
}

test("finds the ratio that every way gives, and says so where ways disagree or none leads there", () => {
  // Both sides of one equation hold different species; they need not balance to be followed.
  const equation = fc
    .tuple(
      fc.shuffledSubarray(species, { minLength: 2, maxLength: 4 }),
      fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 4, maxLength: 4 }),
    )
    .map(([chosen, numbers]) => {
      const terms = chosen.map((s, i) => `${numbers[i]} ${s}`);
      const half = Math.ceil(terms.length / 2);
      return mustHold(
        parseEquation(`${terms.slice(0, half).join(" + ")} -> ${terms.slice(half).join(" + ")}`),
      );
    });
  const outcomes = { one: 0, disagree: 0, none: 0 };
  fc.assert(
    fc.property(
      fc.array(equation, { minLength: 2, maxLength: 5 }),
      fc.constantFrom(...species.slice(0, 4)),
      fc.constantFrom(...species.slice(4)),
      (equations, of, per) => {
        const direct = equations.some((e) => stoichiometricRatio(e, of, per).ok);
        fc.pre(!direct);
        const ways = [...byEveryWay(equations, per, of), ...byEveryWay(equations, of, per).map((r) => 1 / r)];
        const distinct = [...new Set(ways.map((r) => r.toPrecision(10)))];
        const found = schemeRatio(equations, of, per);
        if (distinct.length === 1) {
          outcomes.one++;
          const [a, b] = mustHold(found);
          expect(a / b).toBeCloseTo(ways[0]!, 9);
        } else {
          outcomes[ways.length === 0 ? "none" : "disagree"]++;
          expect(plain(found.ok ? "" : found.problem.message)).toMatch(
            ways.length === 0 ? /none links them/ : /disagree/,
          );
        }
      },
    ),
    { numRuns: 3000, seed: 14 },
  );
  // Each outcome was met, so that the property says something of each.
  expect(Math.min(...Object.values(outcomes))).toBeGreaterThan(20);
});

test("a scheme with 7^13 ways is searched through each equation once", () => {
  // Layers of seven species, each made of each of the layer before: C1H2, C2H2, … stand in for them.
  const name = (layer: number, i: number) => `C${layer * 7 + i + 1}H2`;
  const equations = Array.from({ length: 13 }, (_, layer) =>
    Array.from({ length: 7 }, (_, i) => {
      const made = Array.from({ length: 7 }, (_, j) => name(layer + 1, j)).join(" + ");
      return mustHold(parseEquation(`${name(layer, i)} -> ${made}`));
    }),
  ).flat();
  expect(equations).toHaveLength(91);
  expect(mustHold(schemeRatio(equations, name(13, 3), name(0, 0)))).toEqual([1, 1]);
});

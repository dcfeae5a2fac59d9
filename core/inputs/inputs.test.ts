import { describe, expect, test } from "@jest/globals";
import { methods } from "~/catalog/methods";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { inUnit, type Quantity, standardUncertainty } from "../quantity";
import type { ObservationKind } from "../record";
import { type Input, inputOfRow, checksOfInput, quantityOfInput, type Read, rowOfInput } from ".";

const titer: Input = { is: "titer", symbol: "V", label: "Titer", titrant: "NaOH", per: "trial" };
const place = { stage: "determine", trial: "1" };

/** A burette read in legs, each from its initial to its final reading. */
const legs = (...pairs: readonly (readonly [initial: number, final: number])[]): Read =>
  Object.assign(
    (kind: ObservationKind, leg = 1) =>
      kind === "burette.initial"
        ? (pairs[leg - 1]?.[0] ?? null)
        : kind === "burette.final"
          ? (pairs[leg - 1]?.[1] ?? null)
          : null,
    { legs: pairs.length },
  );

const volume = (read: Read): Quantity => {
  const q = quantityOfInput(titer, read, place, defaultHouseRules);
  if (!q) throw new Error("no titer");
  return q;
};

describe("a titer read in legs, since the burette was refilled midway", () => {
  test("is the sum of them; its calibration is one cause, each reading one of its own", () => {
    const [whole, once] = [volume(legs([0, 48], [1, 13.5])), volume(legs([0, 48]))];
    expect(inUnit(whole, "mL")).toBeCloseTo(60.5, 9);
    const by = (q: Quantity, part: RegExp) =>
      [...q.sensitivities.values()].filter(({ leaf }) => part.test(leaf.id));
    const [calibration, ...others] = by(whole, /^burette:/);
    expect(others).toEqual([]);
    // Wrong by the same amount in both legs: twice as much in their sum.
    const single = by(once, /^burette:/)[0]!;
    expect(calibration!.by * calibration!.leaf.u).toBeCloseTo(2 * single.by * single.leaf.u, 12);
    expect(by(whole, /^burette-reading:/)).toHaveLength(4);
  });

  test("is checked leg by leg: each final reading beyond the initial one of its own leg", () => {
    const read = legs([0, 48], [1, 13.5]);
    const final = (leg: number, value: number) =>
      checksOfInput(titer, {
        ...{ kind: "burette.final", value, text: value.toFixed(2), decimals: 2 },
        beside: (kind) => {
          const there = read(kind, leg);
          return there === null ? null : { value: there, text: there.toFixed(2) };
        },
        ...{ rules: defaultHouseRules, mayBeZero: false },
      }).map(({ severity, kind }) => [severity, kind]);
    expect(final(1, 13.5)).toEqual([]);
    expect(final(2, 13.5)).toEqual([]);
    expect(final(2, 0.8)).toEqual([["stop", "order"]]);
  });

  test("waits for a leg that is begun, and is nothing where one ran backwards", () => {
    const read = (pairs: readonly (readonly [number, number])[]) =>
      quantityOfInput(titer, legs(...pairs), place, defaultHouseRules);
    expect(
      quantityOfInput(titer, Object.assign(legs([0, 48]), { legs: 2 }), place, defaultHouseRules),
    ).toBeNull();
    expect(
      read([
        [0, 48],
        [13.5, 1],
      ]),
    ).toBeNull();
  });
});

test("a count of pieces is exact but for what a broken one may change, and goes through its row in the editor", () => {
  const counted = (plusMinus: string): Input => ({
    ...{ is: "count", symbol: "N", label: "Tablets", of: "tablets", per: "trial", plusMinus },
  });
  const three: Read = (kind) => (kind === "count" ? 3 : null);
  const of = (input: Input, read: Read) => quantityOfInput(input, read, place, defaultHouseRules);
  const [whole, broken] = [of(counted("0"), three)!, of(counted("0.1"), three)!];
  expect([inUnit(whole, "1"), standardUncertainty(whole)]).toEqual([3, 0]);
  // A rectangle of half width 0.1: 0.1/√3.
  expect(standardUncertainty(broken)).toBeCloseTo(0.1 / Math.sqrt(3), 12);
  expect(of(counted("0"), () => null)).toBeNull();
  for (const input of [counted("0"), counted("0.1")]) expect(inputOfRow(rowOfInput(input))).toEqual(input);
});

test("every input of the library goes through its row in the editor unchanged", () => {
  const inputs = methods.flatMap((m) => m.stages.flatMap((s) => s.inputs));
  expect(new Set(inputs.map(({ is }) => is)).size).toBeGreaterThan(13);
  for (const input of inputs) expect(inputOfRow(rowOfInput(input))).toEqual(input);
});

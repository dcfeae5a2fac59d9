import { describe, expect, test } from "@jest/globals";
import { longTest } from "~/core/testing/long-test";
import { acidOf } from "~/catalog/constants/acids";
import { room, type Titrated, titrationCurve } from "../equilibria";
import { randomStream } from "../montecarlo";
import { standardDeviation } from "../statistics";
import { adviceTrials } from "../testing/advice-trials";
import { acidFitCoverage } from "../testing/fit-coverage";
import {
  bestFit,
  bootstrapFit,
  crossing,
  type CurvePoint,
  fitAcid,
  granBeyond,
  granOfStrong,
  granOfWeak,
  indicatorsOn,
  inOrder,
  jumpsOf,
  firstDerivative,
  nextAddition,
  smoothedDerivative,
  readCurve,
  undiluted,
  zeroOfSecond,
} from ".";

const setting = { ...room, pKw: 14 };
const gran = { flaskMl: 50, titrant: 0.1, pKw: 14 };
const base = { acids: [], ions: [{ charge: 1, concentration: 0.1 }] };
const every = (step: number, from: number, to: number) =>
  Array.from({ length: Math.round((to - from) / step) + 1 }, (_, i) => from + i * step);

function curve(flask: Titrated["flask"], volumes: readonly number[]): CurvePoint[] {
  const solved = titrationCurve({ flask, flaskMl: 50, titrant: base }, volumes, setting);
  return volumes.map((volume, i) => ({ volume, value: solved[i]!.pH }));
}
const acid = (pKas: readonly number[], concentration: number): Titrated["flask"] => ({
  acids: [{ acid: { charge: 0, steps: pKas.map((pKa) => ({ pKa })) }, concentration }],
  ions: [],
});
const advice = { dropMl: 0.05, largestMl: 2, until: 11 };
const strong = { acids: [], ions: [{ charge: -1, concentration: 0.04 }] };

describe("jumps", () => {
  test("are where they are: acetic, tartaric and phosphoric acid by a base, read each half milliliter", () => {
    const found = (flask: Titrated["flask"]) => jumpsOf(curve(flask, every(0.5, 0, 40)));
    const [acetic, ...no] = found({ acids: [{ acid: acidOf("acetic"), concentration: 0.04 }], ions: [] });
    expect(no).toEqual([]);
    expect(Math.abs(acetic!.volume - 20)).toBeLessThan(acetic!.half);
    // Two protons in one jump: the constants are too close.
    expect(
      found({ acids: [{ acid: acidOf("tartaric"), concentration: 0.02 }], ions: [] }).map(({ volume }) =>
        Math.round(volume),
      ),
    ).toEqual([20]);
    // Two of three: the third is too weak.
    expect(
      found({ acids: [{ acid: acidOf("phosphoric"), concentration: 0.02 }], ions: [] }).map(({ volume }) =>
        Math.round(volume),
      ),
    ).toEqual([10, 20]);
  });

  test("constants 3 apart hardly show a first jump, 4 apart a usable one (METHODS, common practice)", () => {
    const first = (apart: number) =>
      jumpsOf(curve(acid([3, 3 + apart], 0.02), every(0.25, 0, 30))).filter(({ volume }) => volume < 15);
    expect([first(2), first(4).length, first(5).length]).toEqual([[], 1, 1]);
    expect(first(5)[0]!.volume).toBeCloseTo(10, 1);
  });

  test("a curve that stops before its jump has none; one that falls has the same as one that rises", () => {
    const rising = curve(strong, every(0.5, 0, 30));
    const falling = rising.map(({ volume, value }) => ({ volume, value: 14 - value }));
    expect(jumpsOf(rising.slice(0, 38))).toEqual([]);
    expect(jumpsOf(falling)).toEqual([
      { ...jumpsOf(rising)[0], volume: expect.closeTo(jumpsOf(rising)[0]!.volume, 9) },
    ]);
    expect(zeroOfSecond(falling, jumpsOf(falling)[0]!)).toBeCloseTo(
      zeroOfSecond(rising, jumpsOf(rising)[0]!)!,
      9,
    );
    expect(zeroOfSecond(rising, jumpsOf(rising)[0]!)).toBeCloseTo(20, 1);
  });

  test("points come in any order, and a volume that is typed again counts as it was typed last", () => {
    expect(
      inOrder([
        { volume: 2, value: 5 },
        { volume: 1, value: 3 },
        { volume: 2, value: 6 },
      ]),
    ).toEqual([
      { volume: 1, value: 3 },
      { volume: 2, value: 6 },
    ]);
  });
});

describe("Gran's functions on exact data", () => {
  test("a strong acid to 10⁻⁶ mL, from before the jump and from beyond it", () => {
    const before = granOfStrong(curve(strong, every(1, 1, 18)), gran);
    const beyond = granBeyond(curve(strong, every(1, 22, 30)), gran);
    expect(Math.abs(before!.volume - 20)).toBeLessThan(1e-6);
    expect(Math.abs(beyond!.volume - 20)).toBeLessThan(1e-6);
  });

  test("a weak acid within 0.01 % by the plain form, exact by the corrected one, with Ka as its slope", () => {
    // The plain form takes what is added for what is neutralized: near the end, where little H+ is free, that is nearly so.
    const points = curve(acid([4.756], 0.04), every(0.5, 15, 19));
    const plain = granOfWeak(points, gran, "plain")!;
    const corrected = granOfWeak(points, gran, "corrected")!;
    expect(Math.abs(plain.volume - 20) / 20).toBeLessThan(1e-4);
    expect(Math.abs(corrected.volume - 20)).toBeLessThan(1e-6);
    expect(-Math.log10(-corrected.slope)).toBeCloseTo(4.756, 6);
  });
});

describe("two straight branches", () => {
  test("meet at the end, once the dilution is taken out, with the ± of their scatter", () => {
    const random = randomStream(4);
    const read = (noise: number) =>
      every(1, 0, 30).map((volume) => {
        const exact = volume < 18 ? 10 - 0.4 * volume : 2.8 + 0.25 * (volume - 18);
        return { volume, value: (exact * 100) / (100 + volume) + noise * random.normal() };
      });
    const at = (noise: number) => {
      const points = undiluted(read(noise), 100);
      return crossing(
        points.filter(({ volume }) => volume < 16),
        points.filter(({ volume }) => volume > 20),
      );
    };
    expect(at(0)!.volume).toBeCloseTo(18, 9);
    const off = Array.from({ length: 400 }, () => at(0.02)!).map(({ volume, u }) => (volume - 18) / u);
    const within = off.filter((z) => Math.abs(z) < 2).length / off.length;
    // Student's t for 13 and 8 degrees of freedom: 93 to 95 % within 2 u.
    expect(within).toBeGreaterThan(0.9);
    expect(within).toBeLessThan(0.98);
    expect(crossing(read(0).slice(0, 5), read(0).slice(0, 5))).toBeNull();
  });
});

describe("how much to add next", () => {
  test("finds the end of 100 acids nearer than equal steps of 0.5 mL do, and none far off", () => {
    const found = adviceTrials(100);
    expect(found.points).toBeLessThan(45);
    expect(found.off).toBeLessThan(0.04);
    expect(found.farthest).toBeLessThan(0.2);
    expect(found.equalOff).toBeGreaterThan(found.off);
  });

  test("begins, goes in drops near the jump, and stops past it", () => {
    expect(nextAddition([], advice)).toMatchObject({ do: "add", ml: 1 });
    const near = curve(strong, [0, 10, 15, 18, 19, 19.5, 19.8, 19.95]);
    expect(nextAddition(near, advice)).toMatchObject({ do: "add", ml: expect.closeTo(0.05, 9) });
    const past = curve(strong, [...every(1, 0, 19), 19.5, 19.9, 20.1, 20.5, 21.5, 23.5, 25.5]);
    expect(nextAddition(past, advice)).toMatchObject({ do: "stop" });
  });
});

test("the derivative through noise has its top where the curve without noise has", () => {
  const random = randomStream(4);
  const volumes = every(0.25, 0, 30);
  const flask = { acids: [{ acid: acidOf("acetic"), concentration: 0.04 }], ions: [] };
  const noisy = curve(flask, volumes).map(({ volume, value }) => ({
    volume,
    value: value + 0.03 * random.normal(),
  }));
  const top = (slopes: readonly { volume: number; slope: number }[]) =>
    slopes.reduce((a, b) => (b.slope > a.slope ? b : a)).volume;
  expect(Math.abs(top(smoothedDerivative(noisy)) - 20)).toBeLessThan(0.3);
  // On the flat it scatters less than differences of neighbors do.
  const flat = (slopes: readonly { volume: number; slope: number }[]) =>
    standardDeviation(slopes.filter(({ volume }) => volume > 5 && volume < 12).map(({ slope }) => slope));
  expect(flat(smoothedDerivative(noisy))).toBeLessThan(0.4 * flat(firstDerivative(noisy)));
  expect(smoothedDerivative(noisy.slice(0, 4))).toEqual([]);
});

test("indicators on a curve that was taken: phenolphthalein suits acetic acid, methyl orange comes far too early", () => {
  const points = curve({ acids: [{ acid: acidOf("acetic"), concentration: 0.04 }], ions: [] }, [
    ...every(1, 0, 19),
    ...every(0.05, 19.5, 20.5),
    ...every(1, 21, 28),
  ]);
  const range = (from: number, to: number) => ({ from, to, seen: (from + to) / 2 });
  const [best, second, ...no] = indicatorsOn(points, 20, [range(3.1, 4.4), range(8.2, 10), range(12.9, 14)]);
  expect(best).toMatchObject(range(8.2, 10));
  expect(Math.abs(best!.errorMl)).toBeLessThan(0.05);
  // pH 3.75 is there at 2 mL: V/(20 - V) = 10^(3.75 - 4.756), and a little more for the H+ that is free.
  expect(second!.errorMl).toBeCloseTo(-20 + 20 / (1 + 10 ** 1.006), 0);
  // The curve does not come so far.
  expect(no).toEqual([]);
});

describe("the whole curve, fitted", () => {
  const fitted = { flaskMl: 50, base: 0.1, setting, uPH: 0.01, uMl: 0.01 };
  const volumes = every(0.5, 0, 29.5);
  const noisy = (exact: readonly CurvePoint[], seed: number) => {
    const random = randomStream(seed);
    return exact.map(({ volume, value }) => ({ volume, value: value + 0.01 * random.normal() }));
  };

  test("gives back what exact data were made of, also with an electrode that is off and carbonate in the base", () => {
    const exact = fitAcid(curve(acid([3.036, 4.366], 0.02), volumes), fitted, {
      concentration: 0.022,
      pKas: [2.8, 4.9],
    })!;
    expect(exact.concentration.value).toBeCloseTo(0.02, 8);
    expect(exact.pKas.map(({ value }) => value)).toEqual([
      expect.closeTo(3.036, 6),
      expect.closeTo(4.366, 6),
    ]);
    const titrant = {
      acids: [{ acid: acidOf("carbonic"), concentration: 0.002 }],
      ions: [{ charge: 1, concentration: 0.1 }],
    };
    const solved = titrationCurve({ flask: acid([4.2], 0.04), flaskMl: 50, titrant }, volumes, setting);
    const off = volumes.map((volume, i) => ({ volume, value: solved[i]!.pH + 0.05 }));
    const found = fitAcid(
      off,
      { ...fitted, offset: true, carbonate: true },
      { concentration: 0.04, pKas: [4] },
    )!;
    expect(found.offset!.value).toBeCloseTo(0.05, 4);
    expect(found.carbonate!.value).toBeCloseTo(0.002, 5);
    expect(found.concentration.value).toBeCloseTo(0.04, 5);
  });

  longTest("its ± hold what is true in 95 of 100 cases, under the noise of a meter and of a burette", () => {
    const parts = acidFitCoverage(60);
    // 180 parameters: 95 % of them, ± 3.5 standard deviations of the count.
    expect(parts.reduce((sum, part) => sum + part / 3, 0)).toBeGreaterThan(0.89);
  });

  longTest("redrawn curves give the ± of the fit again, within what three hundred draws can tell", () => {
    const points = noisy(curve(acid([3.2, 5.4], 0.02), volumes), 9);
    const read = { flaskMl: 50, titrant: 0.1, pKw: 14, uPH: 0.01, uMl: 0.01 };
    const reading = readCurve(points, read);
    const best = bestFit(reading)!;
    const running = bootstrapFit(points, reading, best, read, { draws: 120, seed: 3 });
    let [step, progress] = [running.next(), 0];
    for (; !step.done; step = running.next()) progress = step.value;
    expect(progress).toBe(1);
    const { end, pKas, lost } = step.value;
    expect(lost).toBe(0);
    const wide = (2 * 1.96 * best.protons * best.fit.concentration.u * 50) / 0.1;
    expect((end[1] - end[0]) / wide).toBeGreaterThan(0.6);
    expect((end[1] - end[0]) / wide).toBeLessThan(1.5);
    expect(end[0]).toBeLessThan(20.02);
    expect(end[1]).toBeGreaterThan(19.98);
    pKas.forEach(([low, high], i) => {
      const ratio = (high - low) / (2 * 1.96 * best.fit.pKas[i]!.u);
      expect(ratio).toBeGreaterThan(0.6);
      expect(ratio).toBeLessThan(1.5);
    });
  });

  test("points that scatter more than was said give the ± of their scatter", () => {
    const random = randomStream(8);
    const exact = curve(acid([3.2, 5.4], 0.02), volumes);
    const read = exact.map(({ volume, value }) => ({ volume, value: value + 0.03 * random.normal() }));
    const start = { concentration: 0.021, pKas: [3, 5.6] };
    const claimed = fitAcid(read, { ...fitted, uMl: 0 }, start)!;
    const honest = fitAcid(read, { ...fitted, uMl: 0, uPH: 0.03 }, start)!;
    // Not a third of it, as the ± that was said would have it: that of the scatter of these points.
    const scatter = Math.sqrt(claimed.chiSquare / claimed.degreesOfFreedom);
    expect(scatter).toBeGreaterThan(2);
    expect(claimed.concentration.u / honest.concentration.u).toBeCloseTo(scatter / 3, 6);
  });

  test("tells how many protons there are: the right number has the smallest criterion", () => {
    const points = noisy(curve(acid([3.2, 5.4], 0.02), volumes), 5);
    const one = fitAcid(points, fitted, { concentration: 0.04, pKas: [4.3] })!;
    const two = fitAcid(points, fitted, { concentration: 0.02, pKas: [3, 5.6] })!;
    expect(two.aicc!).toBeLessThan(one.aicc! - 100);
    expect(two.chiSquare / two.degreesOfFreedom).toBeLessThan(1.6);
    expect(fitAcid(points.slice(0, 3), fitted, { concentration: 0.02, pKas: [3, 5.6] })).toBeNull();
  });
});

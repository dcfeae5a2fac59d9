import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import jstat from "jstat";
import { randomStream } from "../montecarlo";
import { studentT } from "../quantity";
import { mustHold } from "../result";
import {
  absorbanceOf,
  adviseLine,
  bandsAt,
  bootstrapReadOff,
  fitCalibration,
  halfWidthReadOff,
  lackOfFit,
  limitsFromBlanks,
  limitsFromLine,
  offTheLine,
  readOffAxis,
  readOffLine,
  runsOfSigns,
  transmittanceOf,
  upperTailF,
  withStrayLight,
} from ".";
import { plain } from "../testing/plain";

const digits = (found: number, certified: number) =>
  -Math.log10(Math.abs(found - certified) / Math.abs(certified));

// NIST Statistical Reference Datasets, Norris: y, x.
const norris = [
  0.1, 0.2, 338.8, 337.4, 118.1, 118.2, 888.0, 884.6, 9.2, 10.1, 228.1, 226.5, 668.5, 666.3, 998.5, 996.3,
  449.1, 448.6, 778.9, 777.0, 559.2, 558.2, 0.3, 0.4, 0.1, 0.6, 778.1, 775.5, 668.8, 666.9, 339.3, 338.0,
  448.9, 447.5, 10.8, 11.6, 557.7, 556.0, 228.3, 228.1, 998.0, 995.8, 888.8, 887.6, 119.6, 120.2, 0.3, 0.3,
  0.6, 0.3, 557.6, 556.8, 339.3, 339.1, 888.0, 887.2, 998.5, 999.0, 778.9, 779.0, 10.2, 11.1, 117.6, 118.3,
  228.9, 229.2, 668.4, 669.1, 449.2, 448.9, 0.2, 0.5,
];
const norrisPoints = Array.from({ length: 36 }, (_, i) => ({
  y: norris[2 * i] ?? 0,
  x: norris[2 * i + 1] ?? 0,
}));

describe("lines through reference data (NIST Statistical Reference Datasets)", () => {
  test("Norris, a straight line, to nine certified digits and more", () => {
    const fit = mustHold(fitCalibration(norrisPoints, "line"));
    const pairs = [
      [fit.coefficients[0], -0.262323073774029],
      [fit.standardErrors[0], 0.232818234301152],
      [fit.coefficients[1], 1.00211681802045],
      [fit.standardErrors[1], 0.429796848199937e-3],
      [fit.residualSd, 0.884796396144373],
      [fit.rSquared, 0.999993745883712],
    ] as const;
    for (const [found, certified] of pairs) expect(digits(found, certified)).toBeGreaterThan(9);
  });

  test("NoInt1, a line through the origin, to nine certified digits and more", () => {
    const points = Array.from({ length: 11 }, (_, i) => ({ x: 60 + i, y: 130 + i }));
    const fit = mustHold(fitCalibration(points, "origin"));
    expect(digits(fit.coefficients[1], 2.07438016528926)).toBeGreaterThan(9);
    expect(digits(fit.standardErrors[1], 0.165289256198347e-1)).toBeGreaterThan(9);
    expect(digits(fit.residualSd, 3.56753034006338)).toBeGreaterThan(9);
  });
});

test("A straight line, its t values and the tail of F agree with a statistics library from the registry", () => {
  const points = [0, 1, 2, 3, 4, 5].map((x, i) => ({
    x,
    y: [0.002, 0.101, 0.198, 0.303, 0.395, 0.502][i] ?? 0,
  }));
  const fit = mustHold(fitCalibration(points, "line"));
  const model = jstat.models.ols(
    points.map(({ y }) => y),
    points.map(({ x }) => [1, x]),
  );
  expect(fit.coefficients[0]).toBeCloseTo(model.coef[0]!, 12);
  expect(fit.coefficients[1]).toBeCloseTo(model.coef[1]!, 12);
  expect(fit.rSquared).toBeCloseTo(model.R2, 12);
  expect(fit.coefficients[1] / fit.standardErrors[1]).toBeCloseTo(model.t.t[1]!, 6);
  for (const [f, a, b] of [
    [3.2, 4, 20],
    [0.4, 1, 3],
    [12.5, 2, 7],
  ] as const)
    expect(upperTailF(f, a, b)).toBeCloseTo(1 - jstat.centralF.cdf(f, a, b), 8);
  expect(studentT(0.95, 4)).toBeCloseTo(jstat.studentt.inv(0.975, 4), 7);
});

describe("weights and curvature, against derivations by hand", () => {
  test("1/x weights: the normal equations of three points, solved on paper", () => {
    // x 1, 2, 4; y 1, 3, 4; w 1, 1/2, 1/4. Sums: w 7/4, wx 3, wy 7/2, wxx 7, wxy 8. Slope (7/4·8 - 3·7/2)/(7/4·7 - 9) = 14/13.
    const fit = mustHold(
      fitCalibration(
        [
          { x: 1, y: 1 },
          { x: 2, y: 3 },
          { x: 4, y: 4 },
        ],
        "line",
        "1/x",
      ),
    );
    expect(fit.coefficients[1]).toBeCloseTo(14 / 13, 12);
    expect(fit.coefficients[0]).toBeCloseTo((7 / 2 - (3 * 14) / 13) / (7 / 4), 12);
  });

  test("1/s² weights: two readings of the tight standard count more than two of the loose one", () => {
    // Variances 0.0002, 0.0002 and 0.0050: w 5000, 5000, 200 each. With u = x - 1: sums of w 20400, wu 400 - 10000, …
    const points = [
      { x: 0, y: 0.01 },
      { x: 0, y: 0.03 },
      { x: 1, y: 0.49 },
      { x: 1, y: 0.51 },
      { x: 2, y: 1.1 },
      { x: 2, y: 1.2 },
    ];
    const fit = mustHold(fitCalibration(points, "line", "1/s²"));
    // Level means 0.02, 0.50, 1.15 with weights 25, 25, 1: Σw 51, Σwx 27, Σwy 14.15, Σwxx 29, Σwxy 14.8.
    const slope = (51 * 14.8 - 27 * 14.15) / (51 * 29 - 27 * 27);
    expect(fit.coefficients[1]).toBeCloseTo(slope, 10);
    expect(fit.coefficients[0]).toBeCloseTo((14.15 - 27 * slope) / 51, 10);
    expect(fit.weightAt(0) / fit.weightAt(2)).toBeCloseTo(25, 10);
  });

  test("A quadratic through five symmetric points: sums over orthogonal polynomials", () => {
    // x -2 … 2 moved to 1 … 5; b₂ = Σ(2 -1 -2 -1 2)y / 14.
    const y = [1.1, 3.9, 9.2, 15.8, 25.1];
    const fit = mustHold(
      fitCalibration(
        y.map((v, i) => ({ x: i + 1, y: v })),
        "quadratic",
      ),
    );
    const c = (2 * y[0]! - y[1]! - 2 * y[2]! - y[3]! + 2 * y[4]!) / 14;
    const middleSlope = (-2 * y[0]! - y[1]! + y[3]! + 2 * y[4]!) / 10;
    expect(fit.coefficients[2]).toBeCloseTo(c, 10);
    expect(fit.slopeAt(3)).toBeCloseTo(middleSlope, 10);
    expect(fit.degreesOfFreedom).toBe(2);
  });
});

describe("reading an unknown off", () => {
  const points = [0, 2, 4, 6, 8, 10].map((x, i) => ({
    x,
    y: [0.003, 0.121, 0.238, 0.364, 0.479, 0.602][i] ?? 0,
  }));
  const fit = mustHold(fitCalibration(points, "line"));

  test("gives the textbook's ± for a straight line (Miller and Miller, 5.6; from memory)", () => {
    const [a, b] = fit.coefficients;
    const meanX = 5;
    const sxx = points.reduce((sum, p) => sum + (p.x - meanX) ** 2, 0);
    const meanY = points.reduce((sum, p) => sum + p.y, 0) / 6;
    const y0 = 0.301;
    const off = mustHold(readOffLine(fit, [y0]));
    const expected = (fit.residualSd / b) * Math.sqrt(1 + 1 / 6 + (y0 - meanY) ** 2 / (b * b * sxx));
    expect(off.x).toBeCloseTo((y0 - a) / b, 12);
    expect(off.u).toBeCloseTo(expected, 12);
    expect(Math.hypot(off.fromReadings, ...off.fromLine)).toBeCloseTo(off.u, 12);
    // Three readings: their scatter pooled with the line's, (4 s² + 2 s_w²)/6, over three.
    const three = mustHold(readOffLine(fit, [0.3, 0.304, 0.299]));
    const pooled = (4 * fit.residualSd ** 2 + 2 * 0.0026457513 ** 2) / 6;
    expect(three.fromReadings).toBeCloseTo(Math.sqrt(pooled / 3) / b, 9);
    expect([three.degreesOfFreedom, three.within?.pooled]).toEqual([6, true]);
  });

  test("of a standard addition gives a/b and its ±, by the same formula at y = 0", () => {
    const [a, b] = fit.coefficients;
    const meanY = points.reduce((sum, p) => sum + p.y, 0) / 6;
    const off = mustHold(readOffAxis(fit));
    expect(off.x).toBeCloseTo(a / b, 12);
    expect(off.u).toBeCloseTo((fit.residualSd / b) * Math.sqrt(1 / 6 + meanY ** 2 / (b * b * 70)), 12);
  });

  test("on a bent line takes the branch of the standards, and says when it is never reached", () => {
    const bent = mustHold(
      fitCalibration(
        [0, 1, 2, 3, 4].map((x) => ({ x, y: x - 0.1 * x * x })),
        "quadratic",
      ),
    );
    expect(mustHold(readOffLine(bent, [1.6])).x).toBeCloseTo(2, 9);
    const beyond = readOffLine(bent, [2.7]);
    expect(plain(beyond.ok ? "" : beyond.problem.message)).toMatch(/never reaches 2.700/);
  });

  test("the line at an amount read off gives back the absorbance, whatever the model and the weights", () => {
    const model = fc.constantFrom("line" as const, "origin" as const, "quadratic" as const);
    const weights = fc.constantFrom("none" as const, "1/x" as const, "1/x²" as const);
    const noise = fc.array(fc.double({ min: -0.01, max: 0.01, noNaN: true }), { minLength: 6, maxLength: 6 });
    fc.assert(
      fc.property(model, weights, noise, fc.double({ min: 0.1, max: 0.5, noNaN: true }), (m, w, e, y) => {
        const noisy = [1, 2, 4, 6, 8, 10].map((x, i) => ({ x, y: 0.06 * x + e[i]! }));
        const line = mustHold(fitCalibration(noisy, m, w));
        expect(line.valueAt(mustHold(readOffLine(line, [y])).x)).toBeCloseTo(y, 9);
      }),
    );
  });

  test("readings that scatter more than the line explains widen the interval by their own few degrees of freedom", () => {
    const agree = mustHold(readOffLine(fit, [0.3, 0.304, 0.299]));
    expect(halfWidthReadOff(agree, fit) / agree.u).toBeCloseTo(studentT(0.95, 4), 9);
    const apart = mustHold(readOffLine(fit, [0.318, 0.418]));
    expect(apart.within?.pooled).toBe(false);
    // s = 0.1/√2 of two readings, over √2: 0.05, on one degree of freedom; the line brings a hundredth of that.
    expect(apart.fromReadings).toBeCloseTo(0.05 / fit.coefficients[1], 9);
    expect(halfWidthReadOff(apart, fit) / apart.u).toBeCloseTo(12.7, 0);
  });

  test.each([
    ["that agree", [0.331, 0.336, 0.334]],
    ["that scatter more than the line explains", [0.28, 0.39, 0.33, 0.35]],
  ])(
    "the bootstrap, which knows no linear propagation, gives the same ± within a sixth for readings %s",
    (_, readings) => {
      const random = randomStream(5);
      const many = Array.from({ length: 30 }, (_, i) => ({
        x: 2 * (i % 6),
        y: 0.06 * 2 * (i % 6) + 0.004 * random.normal(),
      }));
      const line = mustHold(fitCalibration(many, "line"));
      const off = mustHold(readOffLine(line, readings));
      const steps = bootstrapReadOff(line, readings, { draws: 4000, seed: 7 });
      let [parts, step] = [0, steps.next()];
      for (; !step.done; step = steps.next()) parts++;
      expect(parts).toBe(20);
      expect(step.value.draws).toBe(4000);
      expect(Math.abs(step.value.mean - off.x)).toBeLessThan(0.1 * off.u);
      expect(Math.abs(step.value.standardDeviation / off.u - 1)).toBeLessThan(1 / 6);
      expect(step.value.interval[0]).toBeLessThan(off.x);
    },
  );
});

describe("what the data say of the line", () => {
  const twice = (y: (x: number) => number, spread = 0.002) =>
    [0, 1, 2, 3, 4, 5].flatMap((x) => [-spread, spread].map((e) => ({ x, y: y(x) + e * (x % 2 ? 1 : -1) })));

  test("Lack of fit, against sums of squares by hand", () => {
    const fit = mustHold(
      fitCalibration(
        [
          { x: 0, y: 0 },
          { x: 0, y: 2 },
          { x: 1, y: 4 },
          { x: 1, y: 6 },
          { x: 2, y: 3 },
          { x: 2, y: 5 },
        ],
        "line",
      ),
    );
    // Means 1, 5, 4; line 11/6 + 1.5 x; lack 2(25/36 + 25/9 + 25/36) = 25/3 on 1, within 6 on 3.
    expect(lackOfFit(fit)?.f).toBeCloseTo(25 / 3 / 2, 10);
    expect(lackOfFit(fit)?.df).toEqual([1, 3]);
  });

  test("A bent line is told by lack of fit and by its square term, however good R² looks", () => {
    const fit = mustHold(
      fitCalibration(
        twice((x) => 0.2 * x - 0.006 * x * x),
        "line",
      ),
    );
    expect(fit.rSquared).toBeGreaterThan(0.997);
    const advice = adviseLine(fit);
    expect(advice.filter((a) => !a.good).map((a) => a.about)).toEqual(
      expect.arrayContaining(["lack of fit", "curvature"]),
    );
    expect(plain(advice.find((a) => a.about === "curvature")?.text)).toMatch(/flattens/);
    expect(advice.find((a) => a.about === "curvature")?.model).toBe("quadratic");
  });

  test("A line with an intercept that is forced through the origin is told so", () => {
    const fit = mustHold(
      fitCalibration(
        twice((x) => 0.03 + 0.1 * x),
        "origin",
      ),
    );
    expect(adviseLine(fit).find((a) => a.about === "intercept")?.model).toBe("line");
    expect(
      adviseLine(
        mustHold(
          fitCalibration(
            twice((x) => 0.1 * x),
            "origin",
          ),
        ),
      ).every((a) => a.good),
    ).toBe(true);
  });

  test("Scatter that grows with the amount asks for weights", () => {
    const random = randomStream(3);
    const points = [1, 2, 5, 10, 20, 50].flatMap((x) =>
      Array.from({ length: 5 }, () => ({ x, y: 0.01 * x * (1 + 0.05 * random.normal()) })),
    );
    expect(adviseLine(mustHold(fitCalibration(points, "line"))).some((a) => a.weighting === "1/s²")).toBe(
      true,
    );
    expect(adviseLine(mustHold(fitCalibration(points, "line", "1/s²"))).some((a) => a.weighting)).toBe(false);
  });

  test("The chance of few runs of signs, against counting every order there is", () => {
    const orders = (plus: number, minus: number): number[][] =>
      plus + minus === 0
        ? [[]]
        : [
            ...(plus > 0 ? orders(plus - 1, minus).map((o) => [1, ...o]) : []),
            ...(minus > 0 ? orders(plus, minus - 1).map((o) => [-1, ...o]) : []),
          ];
    const runsIn = (o: readonly number[]) => o.filter((s, i) => i === 0 || s !== o[i - 1]).length;
    for (const row of [
      [1, 1, 1, 1, -1, -1, -1],
      [1, -1, -1, 1, 1],
      [-1, -1, 1, 1, 1, 1, -1, -1],
    ]) {
      const plus = row.filter((s) => s > 0).length;
      const all = orders(plus, row.length - plus);
      const few = all.filter((o) => runsIn(o) <= runsIn(row)).length;
      expect(runsOfSigns(row)).toEqual({ runs: runsIn(row), probability: few / all.length });
    }
  });

  test("One reading off the line is found, and only that one", () => {
    const points = twice((x) => 0.1 * x);
    points[5] = { x: 2, y: 0.26 };
    expect(offTheLine(mustHold(fitCalibration(points, "line")))).toEqual([5]);
    expect(
      offTheLine(
        mustHold(
          fitCalibration(
            twice((x) => 0.1 * x),
            "line",
          ),
        ),
      ),
    ).toEqual([]);
  });
});

test("What keeps a line from being had is said in words", () => {
  const at = (xs: readonly number[]) => xs.map((x) => ({ x, y: 0.1 * x }));
  const messages = (...args: Parameters<typeof fitCalibration>) => {
    const fit = fitCalibration(...args);
    return fit.ok ? "" : fit.problem.message;
  };
  expect(plain(messages([], "line"))).toMatch(/No standard/);
  expect(plain(messages(at([1, 2]), "line"))).toMatch(/needs at least 3 different standards: there are 2/);
  expect(plain(messages(at([5, 5, 5]), "line"))).toMatch(/same concentration/);
  expect(plain(messages(at([1, 2, 3]), "quadratic"))).toMatch(/needs at least 4/);
  expect(plain(messages(at([0, 1, 2]), "line", "1/x"))).toMatch(/zero standard/);
  expect(plain(messages(at([0, 1, 2]), "line", "1/s²"))).toMatch(/two readings of every standard: 0 has one/);
});

test("Limits of detection and quantitation: 3.3 and 10 standard deviations over the slope", () => {
  const points = [0, 1, 2, 3].map((x, i) => ({ x, y: 0.1 * x + [0.001, -0.001, -0.001, 0.001][i]! }));
  const fit = mustHold(fitCalibration(points, "line"));
  expect(limitsFromLine(fit)?.detection).toBeCloseTo((3.3 * Math.sqrt(4e-6 / 2)) / 0.1, 9);
  expect(limitsFromBlanks([0.001, 0.002, 0.003], fit)?.quantitation).toBeCloseTo(0.1, 9);
  expect(limitsFromBlanks([0.001, 0.002], fit)).toBeNull();
});

test("Absorbance and transmittance: 10 % is 1, and back; stray light hides what lies beyond it", () => {
  expect(absorbanceOf(10)).toBeCloseTo(1, 12);
  expect(transmittanceOf(absorbanceOf(37.2))).toBeCloseTo(37.2, 9);
  // 1 % of stray light: a true 2 shows as -log((0.01 + 0.01)/1.01) = 1.703.
  expect(withStrayLight(2, 0.01)).toBeCloseTo(1.7033, 4);
  expect(withStrayLight(8, 0.01)).toBeLessThan(2.01);
});

test("Bands are narrowest amid the standards, and that of a reading is the wider", () => {
  const fit = mustHold(fitCalibration(norrisPoints, "line"));
  const [low, middle] = [bandsAt(fit, 0), bandsAt(fit, 430)];
  expect(low.confidence).toBeGreaterThan(middle.confidence);
  expect(middle.prediction).toBeGreaterThan(middle.confidence);
  // At x = 0 the band of the line is t times the standard error of the intercept.
  expect(low.confidence).toBeCloseTo(studentT(0.95, 34) * fit.standardErrors[0], 9);
});

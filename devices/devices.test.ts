import { describe, expect, test } from "@jest/globals";
import { methods } from "~/catalog/methods";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { plusMinus } from "~/core/judgement";
import { compareOrders } from "~/core/kinetics";
import { mustHold, type Result } from "~/core/result";
import { evaluateRun } from "~/core/evaluate";
import { resultQuantity } from "~/core/stages";
import { simulateRun } from "~/core/simulate";
import {
  absorberNear,
  absorbers,
  clearCuvette,
  cuvetteOf,
  epsilonAt,
  type InstrumentReading,
  SimulatedPhotometer,
  simulatedPhotometer,
} from ".";
import { handClock } from "./tests/hand-clock";
import { plain } from "~/core/testing/plain";

const quiet = { seed: 4, noise: 0, strayLight: 0, driftPerHour: 0 };
const orange = absorbers.find((a) => a.id === "orange-complex")!;

describe("the simulated photometer", () => {
  test("follows Beer and Lambert's law: twice as much, or twice the path, reads twice", () => {
    const model = new SimulatedPhotometer({ ...quiet, wavelengthNm: 510 });
    const read = (molPerL: number, pathCm = 1) =>
      model.show({ absorber: orange, molPerL: () => molPerL, pathCm }, 0);
    const c = 0.3 / epsilonAt(orange, 510);
    expect([read(c), read(2 * c), read(c, 2)]).toEqual([0.3, 0.6, 0.6]);
    expect(absorberNear(510).id).toBe("orange-complex");
  });

  test("stray light holds it down, warming up and drift move it, zeroing takes away what it shows", () => {
    const strayed = new SimulatedPhotometer({ ...quiet, strayLight: 0.01, wavelengthNm: 510 });
    expect(strayed.show(cuvetteOf(orange, 510, 2), 0)).toBeCloseTo(1.703, 3);
    const cold = new SimulatedPhotometer({ ...quiet, warmUpSeconds: 300, wavelengthNm: 510 });
    expect(cold.show(clearCuvette, 0)).toBe(0.03);
    cold.zero(clearCuvette, 0);
    expect(cold.show(clearCuvette, 0)).toBeCloseTo(0, 6);
    expect(cold.show(clearCuvette, 3000)).toBeCloseTo(-0.03, 3);
    const drifting = new SimulatedPhotometer({ ...quiet, driftPerHour: 0.02, wavelengthNm: 510 });
    expect(drifting.show(clearCuvette, 3600)).toBeCloseTo(0.02, 6);
  });

  test("noise is the same for the same seed, and grows where little light gets through", () => {
    const scatter = (absorbance: number, seed: number) => {
      const model = new SimulatedPhotometer({ seed, noise: 0.001, wavelengthNm: 510 });
      return Array.from({ length: 400 }, () => model.show(cuvetteOf(orange, 510, absorbance), 0));
    };
    expect(scatter(0.3, 1)).toEqual(scatter(0.3, 1));
    expect(scatter(0.3, 1)).not.toEqual(scatter(0.3, 2));
    const sd = (values: number[]) => {
      const mean = values.reduce((a, b) => a + b, 0) / values.length;
      return Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / values.length);
    };
    expect(sd(scatter(1.3, 1))).toBeGreaterThan(5 * sd(scatter(0.1, 1)));
  });

  test("a filter that it has not, and a wavelength beyond it, are told in words", () => {
    const filters = new SimulatedPhotometer({ ...quiet, filtersNm: [420, 520, 620] });
    const message = (r: Result<number>) => (r.ok ? "" : r.problem.message);
    expect(plain(message(filters.setWavelength(510)))).toMatch(
      /no filter for 510 nm: the instrument has 420, 520, 620/,
    );
    expect(plain(message(filters.setWavelength(1200)))).toMatch(/beyond the instrument/);
    expect(filters.setWavelength(620)).toEqual({ ok: true, value: 620 });
  });
});

describe("an instrument behind the interface of all instruments", () => {
  test("streams readings that settle, follows another cuvette, and leaves nothing running when it is let go", async () => {
    const { clock, advance, timers } = handClock();
    const made = mustHold(await simulatedPhotometer({ ...quiet, wavelengthNm: 510 }).connect(clock));
    const seen: InstrumentReading[] = [];
    made.insert(cuvetteOf(orange, 510, 0.5));
    made.stream((r) => r.ok && seen.push(r.value));
    advance(3);
    expect(seen[0]).toMatchObject({ stable: false });
    expect(seen.at(-1)).toMatchObject({ stable: true, text: "0.500", value: 0.5 });
    made.insert(cuvetteOf(orange, 510, 0.2));
    advance(0.5);
    expect(seen.at(-1)?.stable).toBe(false);
    advance(2);
    expect(seen.at(-1)?.text).toBe("0.200");
    made.disconnect();
    expect(timers()).toBe(0);
    const after: Result<InstrumentReading>[] = [];
    made.stream((r) => after.push(r));
    expect(plain(after[0])).toMatchObject({
      ok: false,
      problem: { message: expect.stringMatching(/not connected/) },
    });
  });

  test("is connected once at a time", async () => {
    const instrument = simulatedPhotometer(quiet);
    const first = mustHold(await instrument.connect(handClock().clock));
    expect(plain(await instrument.connect(handClock().clock))).toMatchObject({ ok: false });
    first.disconnect();
    expect(plain(await instrument.connect(handClock().clock))).toMatchObject({ ok: true });
  });

  test("scans a spectrum whose top is that of the absorber", async () => {
    const { clock, advance } = handClock();
    const made = mustHold(await simulatedPhotometer({ ...quiet, wavelengthNm: 400 }).connect(clock));
    made.insert(cuvetteOf(orange, 510, 0.8));
    const points: [number, number][] = [];
    let done = false;
    made.scan(
      { fromNm: 400, toNm: 700, stepNm: 2 },
      (nm, a) => points.push([nm, a]),
      () => (done = true),
    );
    advance(5);
    expect([done, points.length]).toEqual([true, 151]);
    const top = points.reduce((a, b) => (b[1] > a[1] ? b : a));
    expect(Math.abs(top[0] - 505)).toBeLessThan(8);
  });
});

test("Over 1,000 assays on the simulated photometer the 95 % interval holds the truth in 93 to 97 of 100", () => {
  const method = methods.find((m) => m.id === "phosphate-as-molybdenum-blue")!;
  const nm = 882;
  const absorber = absorberNear(nm);
  let held = 0;
  for (let seed = 1; seed <= 1000; seed++) {
    const instrument = new SimulatedPhotometer({
      seed: 7000 + seed,
      noise: 0.0015,
      strayLight: 0.0002,
      wavelengthNm: nm,
    });
    let clock = 0;
    const { record, truths } = mustHold(
      simulateRun({
        method,
        houseRules: defaultHouseRules,
        truth: { results: {}, amounts: { "wavelength.λ": 880 } },
        seed,
        photometer: (absorbance) => instrument.show(cuvetteOf(absorber, nm, absorbance), (clock += 20)),
      }),
    );
    const stage = evaluateRun(record).stages.find((s) => s.key === "unknown");
    const q = stage ? resultQuantity(stage) : null;
    if (q && Math.abs(q.value - (truths.get("unknown") ?? NaN)) <= plusMinus(q, "i95")) held++;
  }
  expect(held / 1000).toBeGreaterThanOrEqual(0.93);
  expect(held / 1000).toBeLessThanOrEqual(0.97);
});

test("A cuvette that fades by a true rate law in the simulated photometer gives back its order and its constant", async () => {
  const { clock, advance } = handClock();
  const violet = absorberNear(590);
  const made = mustHold(
    await simulatedPhotometer({ seed: 12, noise: 0.001, wavelengthNm: 590 }).connect(clock),
  );
  made.zero();
  made.insert({ absorber: violet, molPerL: (t) => (0.9 * Math.exp(-0.012 * t)) / epsilonAt(violet, 590) });
  const [seconds, absorbance]: [number[], number[]] = [[], []];
  made.stream((r) => {
    if (!r.ok || !r.value.stable) return;
    const at = Math.floor(r.value.seconds);
    if (at <= (seconds.at(-1) ?? -1)) return;
    seconds.push(at);
    absorbance.push(r.value.value);
  });
  advance(200);
  made.disconnect();
  expect(seconds.length).toBeGreaterThan(190);
  const found = mustHold(compareOrders({ seconds, absorbance }));
  expect(found.best).toBe(1);
  expect(Math.abs(found.fits[1].k - 0.012)).toBeLessThan(4 * found.fits[1].u);
});

test("A cold lamp bends nothing but moves every reading: the blank read again at the end shows it", () => {
  const cold = new SimulatedPhotometer({ ...quiet, warmUpSeconds: 400, wavelengthNm: 510 });
  cold.zero(clearCuvette, 0);
  const first = cold.show(clearCuvette, 10);
  const last = cold.show(clearCuvette, 1200);
  expect(Math.abs(last - first)).toBeGreaterThan(0.02);
  const warm = new SimulatedPhotometer({ ...quiet, wavelengthNm: 510 });
  warm.zero(clearCuvette, 0);
  expect(Math.abs(warm.show(clearCuvette, 1200))).toBe(0);
});

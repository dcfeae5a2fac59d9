import { describe, expect, test } from "@jest/globals";
import { bufferPH, buffers, calibrateElectrode, electrodeMv, shownPH } from "~/core/measure";
import { mustHold } from "~/core/result";
import { plain } from "~/core/testing/plain";
import { acidOf } from "~/catalog/constants/acids";
import { bestFit, readCurve } from "~/core/curves";
import { room, titrationCurve } from "~/core/equilibria";
import { type InstrumentReading, type MeterOptions, simulatedMeter } from ".";
import { handClock } from "./tests/hand-clock";

const bufferOf = (name: string) => buffers.find((b) => b.name === name)!;

describe("an electrode in its buffers", () => {
  test("buffers are what their tables say, and between two entries in between", () => {
    // NBS values as they are commonly printed (from memory): phthalate 4.008 and borax 9.180 at 25 °C.
    expect(bufferPH(bufferOf("4.01"), 25)).toBeCloseTo(4.008, 3);
    expect(bufferPH(bufferOf("9.18"), 25)).toBeCloseTo(9.18, 3);
    expect(bufferPH(bufferOf("10.01"), 22.5)).toBeCloseTo((10.062 + 10.012) / 2, 6);
    expect(bufferPH(bufferOf("6.86"), -5)).toBe(6.984);
  });

  test("slope and offset come out as they were put in; 59.16 mV at 25 °C are 100 %", () => {
    const electrode = { slopePercent: 94.2, offsetMv: -11 };
    const read = ["4.01", "7.00", "10.01"].map((name) => {
      const pH = bufferPH(bufferOf(name), 18);
      return { pH, mV: electrodeMv(pH, electrode, 18) };
    });
    const found = mustHold(calibrateElectrode(read, 18));
    expect(found.slopePercent).toBeCloseTo(94.2, 9);
    expect(found.offsetMv).toBeCloseTo(-11, 9);
    expect(found.offLine).toBeLessThan(1e-9);
    expect(shownPH(electrodeMv(3.3, electrode, 18), found, 18)).toBeCloseTo(3.3, 9);
    const ideal = [
      { pH: 4, mV: 177.48 },
      { pH: 7, mV: 0 },
    ];
    expect(mustHold(calibrateElectrode(ideal, 25)).slopePercent).toBeCloseTo(100, 1);
    const stale = mustHold(calibrateElectrode([...ideal, { pH: 10, mV: -165 }], 25));
    expect(stale.offLine).toBeGreaterThan(0.05);
  });

  test("one buffer is too few, and two that were swapped are told", () => {
    const one = calibrateElectrode([{ pH: 7, mV: 2 }], 25);
    expect(one.ok ? null : plain(one.problem.message)).toMatch(/two buffers/);
    const swapped = calibrateElectrode(
      [
        { pH: 4, mV: -170 },
        { pH: 7, mV: 3 },
      ],
      25,
    );
    expect(swapped.ok ? null : plain(swapped.problem.message)).toMatch(/swapped/);
  });
});

describe("the simulated meter", () => {
  const connected = async (change: Partial<MeterOptions> = {}) => {
    const hand = handClock();
    const made = mustHold(
      await simulatedMeter({ seed: 3, reads: "pH", celsius: 25, ...change }).connect(hand.clock),
    );
    const shown: InstrumentReading[] = [];
    made.stream((r) => void (r.ok && shown.push(r.value)));
    const { act } = made;
    act.calibrate({ slopePercent: 97.5, offsetMv: 7 });
    /** Seconds until the display is steady again. */
    const settle = () => {
      for (let s = 0.5; s <= 200; s += 0.5) {
        hand.advance(0.5);
        if (shown.at(-1)?.stable) return s;
      }
      return Infinity;
    };
    return { ...hand, act, shown, settle, last: () => shown.at(-1)! };
  };
  // A jump at 20 mL.
  const curve = (ml: number) => 7 + 4 * Math.tanh((ml - 20) / 0.3);

  test("comes to what is in the beaker, and takes longer in a jump than on the flat, and unstirred", async () => {
    const { act, settle, last } = await connected();
    act.dip(curve);
    const flat = settle();
    expect(last().value).toBeCloseTo(3, 1);
    act.added(19.95);
    const jump = settle();
    expect(Math.abs(last().value - curve(19.95))).toBeLessThan(0.03);
    act.added(20);
    act.stir(false);
    const still = settle();
    expect(flat).toBeLessThan(20);
    expect(jump).toBeGreaterThan(flat);
    expect(still).toBeGreaterThan(jump);
  });

  test("of a curve that is taken without haste shows what a fit describes, with as many protons as there are", async () => {
    const flask = { acids: [{ acid: acidOf("tartaric"), concentration: 0.013 }], ions: [] };
    const titrant = { acids: [], ions: [{ charge: 1 as const, concentration: 0.1 }] };
    const solved = new Map<number, number>();
    const pHAt = (ml: number) => {
      const pH = solved.get(ml) ?? titrationCurve({ flask, flaskMl: 100, titrant }, [ml], room)[0]!.pH;
      solved.set(ml, pH);
      return pH;
    };
    const near = [-0.6, -0.3, -0.15, -0.05, 0.05, 0.15, 0.3, 0.6, 1].map((off) => 26 + off);
    for (const seed of [3, 4, 5]) {
      const { act, last, advance } = await connected({ seed });
      act.calibrate({ slopePercent: 97.5, offsetMv: 7 });
      act.dip(pHAt);
      const points = [...Array.from({ length: 13 }, (_, i) => 2 * i), ...near].map((volume) => {
        act.added(volume);
        // An hour at each point: three minutes of somebody's own time, where the meter lives twenty times as fast.
        advance(3600);
        return { volume, value: Number(last().text) };
      });
      const setting = { flaskMl: 100, titrant: 0.1, pKw: 13.995, uPH: 0.01, uMl: 0.01 };
      expect(bestFit(readCurve(points, setting))?.protons).toBe(2);
    }
  });

  test("is off by its electrode until it is calibrated, flickers with a bare bulb, and loses base to the air", async () => {
    const { act, settle, last, advance, shown } = await connected();
    act.dip(() => 10.5);
    act.calibrate({ slopePercent: 100, offsetMv: 0 });
    settle();
    expect(last().value).toBeCloseTo(10.5 - 7 / 59.16 - 0.025 * 3.5, 1);
    act.calibrate({ slopePercent: 97.5, offsetMv: 7 });
    // Whoever is slow between two additions has not lost more than whoever is quick; each addition opens the beaker anew.
    advance(600);
    expect(last().value).toBeGreaterThan(10.48);
    for (let addedMl = 1; addedMl <= 30; addedMl++) {
      act.added(addedMl);
      advance(100);
    }
    expect(last().value).toBeLessThan(10.48);
    act.dip(() => 10.5);
    settle();
    expect(last().value).toBeGreaterThan(10.48);
    act.cover(false);
    advance(30);
    expect(last().stable).toBe(false);
    const bare = shown.slice(-20).map(({ value }) => value);
    expect(Math.max(...bare) - Math.min(...bare)).toBeGreaterThan(0.1);
  });

  test("shows a buffer while it is in one, a potential as it is, and two of one seed the same", async () => {
    const [a, b] = [await connected(), await connected()];
    for (const { act, settle } of [a, b]) {
      act.buffer(4.01);
      settle();
    }
    expect(a.last().value).toBeCloseTo(4.01, 1);
    expect(a.shown.map(({ text }) => text)).toEqual(b.shown.map(({ text }) => text));
    const { act, settle, last } = await connected({ reads: "mV" });
    act.dip(() => 314);
    settle();
    expect(last()).toMatchObject({ unit: "mV", stable: true });
    expect(Math.abs(last().value - 314)).toBeLessThan(2);
  });
});

import { describe, expect, test } from "@jest/globals";
import { acidOf } from "~/catalog/constants/acids";
import { dissolved } from "~/catalog/constants/solutes";
import { readCurveTable } from "~/formats/curve-table";
import { type Mixture, room, titrationCurve } from "../equilibria";
import { randomStream } from "../montecarlo";
import { inEnglish } from "../text";
import { bestFit, candidatesFor, type CurvePoint, protonsAt, protonWeights, readCurve, waysTo } from ".";

const setting = { flaskMl: 50, titrant: 0.1, pKw: 13.995, uPH: 0.01, uMl: 0.01 };
const strong = (charge: 1 | -1): Mixture => ({ acids: [], ions: [{ charge, concentration: 0.1 }] });
const acid = (key: string, concentration: number): Mixture => ({
  acids: [{ acid: acidOf(key), concentration }],
  ions: [],
});

/** A recorded curve: close about its ends, with the noise of a meter and a burette. */
function recorded(
  flask: Mixture,
  titrant: Mixture,
  ends: readonly number[],
  to: number,
  seed: number | null,
): CurvePoint[] {
  const random = seed === null ? null : randomStream(seed);
  const near = ends.flatMap((end) =>
    [-1, -0.6, -0.3, -0.15, -0.05, 0.05, 0.15, 0.3, 0.6].map((off) => end + off),
  );
  const volumes = [...Array.from({ length: to + 1 }, (_, i) => i), ...near].toSorted((a, b) => a - b);
  const delivered = volumes.map((v) => Math.max(0, v + 0.01 * (random?.normal() ?? 0)));
  const solved = titrationCurve({ flask, flaskMl: 50, titrant }, delivered, room);
  return volumes.map((volume, i) => ({ volume, value: solved[i]!.pH + 0.01 * (random?.normal() ?? 0) }));
}

describe("a recorded curve", () => {
  test("of tartaric acid: one jump for two protons, its constants, concentration and name", () => {
    const points = recorded(acid("tartaric", 0.02), strong(1), [20], 26, 3);
    const reading = readCurve(points, setting);
    const [end, ...others] = reading.ends;
    expect([others.length, reading.byBase, reading.strong]).toEqual([0, true, false]);
    const [best] = reading.fits;
    expect([best!.protons, bestFit(reading)]).toEqual([2, best]);
    expect(protonsAt(reading, end!, 2)).toBe(2);
    const [p1, p2] = best!.fit.pKas;
    expect(Math.abs(p1!.value - 3.036) / p1!.u).toBeLessThan(4);
    expect(Math.abs(p2!.value - 4.366) / p2!.u).toBeLessThan(4);
    // Every way finds 20 mL, and the fit is taken.
    const ways = waysTo(reading, end!, setting);
    expect(ways.map(({ way }) => way)).toContain("gran beyond");
    expect(ways[0]!.way).toBe("fit");
    for (const { way, volume, half } of ways)
      expect([way, Math.abs(volume - 20) < Math.max(2 * half, 0.06)]).toEqual([way, true]);
    expect(protonWeights(reading)!.find(({ protons }) => protons === 2)!.weight).toBeGreaterThan(0.9);
    // 150.09 g/mol, and what was found of it 0.2 % off.
    const known = [
      { name: "tartaric", molarMass: 150.087, pKas: [3.036, 4.366] },
      { name: "malic", molarMass: 134.09, pKas: [3.4, 5.1] },
      { name: "of another constant", molarMass: 150, pKas: [2, 6] },
    ];
    const pKas = best!.fit.pKas.map(({ value }) => value);
    expect(candidatesFor(known, 150.4, pKas).map(({ name }) => name)).toEqual(["tartaric"]);
  });

  test("of phosphoric acid: two jumps for three protons, each with its constant half way", () => {
    const reading = readCurve(recorded(acid("phosphoric", 0.02), strong(1), [10, 20], 30, 5), setting);
    expect(reading.ends.map(({ jump }) => Math.round(jump.volume * 10) / 10)).toEqual([10, 20]);
    expect(reading.ends[0]!.halfWay).toBeCloseTo(2.148, 1);
    expect(reading.ends[1]!.halfWay).toBeCloseTo(7.198, 1);
    expect(Math.abs(reading.ends[1]!.before!.volume - 20)).toBeLessThan(0.1);
  });

  test("of a strong acid: Gran's line of the strong one, and no constant is invented", () => {
    const reading = readCurve(recorded(dissolved("HCl", 0.04)!, strong(1), [20], 26, 7), setting);
    expect([reading.strong, reading.fits, reading.ends[0]!.halfWay]).toEqual([true, [], null]);
    expect(Math.abs(reading.ends[0]!.before!.volume - 20)).toBeLessThan(0.1);
    expect(protonWeights(reading)).toBeNull();
    expect(waysTo(reading, reading.ends[0]!, setting)[0]!.way).toMatch(/^gran/);
  });

  test("of ammonia by an acid: the constant is that of ammonium", () => {
    const reading = readCurve(recorded(dissolved("NH3", 0.04)!, strong(-1), [20], 26, 9), setting);
    expect(reading.byBase).toBe(false);
    expect(reading.fits[0]!.fit.pKas[0]!.value).toBeCloseTo(9.25, 1);
    expect(reading.ends[0]!.halfWay).toBeCloseTo(9.25, 1);
  });

  test("that stops before its jump, or is a straight line, has no end", () => {
    const points = recorded(acid("acetic", 0.04), strong(1), [], 26, null);
    expect(
      readCurve(
        points.filter(({ volume }) => volume < 18),
        setting,
      ).ends,
    ).toEqual([]);
    expect(
      readCurve(
        [0, 1, 2, 3, 4, 5].map((volume) => ({ volume, value: 3 })),
        setting,
      ).ends,
    ).toEqual([]);
  });
});

describe("pasted pairs", () => {
  const read = (text: string, start = 0) => {
    const { points, problems } = readCurveTable(text, { startMl: start });
    return { points: points.map(({ volume, value }) => [volume, value]), problems: problems.map(inEnglish) };
  };
  const rows = (all: readonly string[]) => all.join("\n");

  test("come with tabs, semicolons, commas or blanks, with headings, and with times before them", () => {
    const expected = [
      [0, 2.88],
      [1, 3.1],
      [2, 3.5],
      [3, 4.1],
      [4, 4.9],
    ];
    expect(read(rows(["volume\tpH", "0\t2.88", "1\t3.10", "2\t3.50", "3\t4.10", "4\t4.90"]))).toEqual({
      points: expected,
      problems: [],
    });
    expect(read(rows(["0;2,88", "1;3,10", "2;3,50", "3;4,10", "4;4,90"])).points).toEqual(expected);
    expect(read(rows(["0,2.88", "1,3.10", "2,3.50", "3,4.10", "4,4.90"])).points).toEqual(expected);
    expect(read(rows(["0 2.88", "1 3.10", "2 3.50", "3 4.10", "4 4.90"])).points).toEqual(expected);
    const logged = [
      "time,drops,mL,pH",
      "10:01,0,0,2.88",
      "10:02,20,1,3.10",
      "10:03,40,2,3.50",
      "10:04,60,3,4.10",
      "10:05,80,4,4.90",
    ];
    expect(read(rows(logged)).points).toEqual(expected);
    // A burette that stood at 5.00 at the start.
    expect(read(rows(["5\t2.88", "6\t3.10", "7\t3.50", "8\t4.10", "9\t4.90"]), 5).points).toEqual(expected);
  });

  test("tell what is wrong by their line", () => {
    expect(read(rows(["0\t2.88", "1\t31.0", "2\tpH", "1\t3.5", "0.5\t3.6"])).problems).toEqual([
      "Line 2: pH 31 is outside -1 to 15",
      'Line 3: "2 pH" is no volume with its pH',
      "Line 5: 0.5 mL after 1 mL: the volume goes back",
    ]);
    expect(read(rows(["0\t2.88", "1\t3.0", "2\t3.1"])).problems).toEqual([
      "3 points are no curve yet: 5 at least",
    ]);
    expect(read(rows(["mL\tpH", "", "0\t2.88", "", "1\t31"])).problems).toEqual([
      "Line 5: pH 31 is outside -1 to 15",
    ]);
    expect(read("4\t3", 5).problems[0]).toBe("Line 1: -1 mL is below the reading at the start");
    expect(read("")).toEqual({ points: [], problems: [] });
  });
});

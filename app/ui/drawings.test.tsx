import { describe, expect, test } from "@jest/globals";
import { renderToStaticMarkup } from "react-dom/server";
import { BeadRail, type RailBead } from "./bead-rail";
import { BuretteColumn } from "./burette-column";
import type { BuretteMarks } from "./burette-glass";
import { numbersOut, unbroken } from "./number-text";

const attribute = (tag: string, name: string) => Number(new RegExp(` ${name}="([-\\d.]+)"`).exec(tag)?.[1]);

describe("the burette column", () => {
  const marks: BuretteMarks = {
    capacityMl: 50,
    decimals: 2,
    start: 10,
    slowAt: 28,
    endNear: 30.5,
    endTexts: ["30.5"],
    now: null,
  };
  const draw = (change: Partial<BuretteMarks> = {}) =>
    renderToStaticMarkup(<BuretteColumn {...marks} {...change} />);

  /** Where the scale's numbers stand, by their text. */
  const scale = (svg: string) =>
    new Map(
      [...svg.matchAll(/<text x="[\d.]+" y="([\d.]+)" text-anchor="end"[^>]*>([\d.]+)<\/text>/g)].map((m) => [
        Number(m[2]),
        Number(m[1]) - 5,
      ]),
    );

  test("is drawn to scale: equal volumes are equal lengths, bands reach from mark to mark", () => {
    const svg = draw();
    const y = scale(svg);
    const perMl = ((y.get(50) ?? 0) - (y.get(0) ?? 0)) / 50;
    for (const [ml, at] of y) expect(at).toBeCloseTo((y.get(0) ?? 0) + ml * perMl, 6);
    const freely = /<rect[^>]*fill="url\(#run-freely\)"[^>]*>/.exec(svg)?.[0] ?? "";
    expect(attribute(freely, "height")).toBeCloseTo(18 * perMl, 6);
    expect(attribute(freely, "y")).toBeCloseTo((y.get(0) ?? 0) + 10 * perMl, 6);
    const slowly = /<rect[^>]*fill="#eab9d0"[^>]*>/.exec(svg)?.[0] ?? "";
    expect(attribute(slowly, "height")).toBeCloseTo(2.5 * perMl, 6);
  });

  test("says in words what it shows", () => {
    expect(draw({ now: 29.9 })).toContain(
      'aria-label="Burette of 50 mL. start 10.00 mL. slow at 28.0 mL. end near 30.5 mL. now 29.90 mL."',
    );
    expect(draw({ endNear: 54 })).toContain("The end lies past the last mark.");
    expect(draw({ start: null, slowAt: null, endNear: null })).toContain("read the");
  });

  test("keeps its labels apart where marks lie close together", () => {
    const svg = draw({ slowAt: 30, endNear: 30.5, now: 30.4 });
    const titles = [...svg.matchAll(/y="([\d.]+)"[^>]*font-weight="700"/g)].map((m) => Number(m[1]));
    expect(titles).toHaveLength(4);
    const sorted = [...titles].sort((a, b) => a - b);
    sorted.slice(1).forEach((at, i) => expect(at - (sorted[i] ?? 0)).toBeGreaterThanOrEqual(39.9));
  });
});

describe("the bead rail", () => {
  const beads: RailBead[] = [
    { id: "r", name: "rough", value: 20.1, role: "rough" },
    { id: "a", name: "1", value: 19.58, role: "member" },
    { id: "b", name: "2", value: 19.6, role: "member" },
    { id: "c", name: "3", value: 19.9, role: "other" },
    { id: "d", name: "4", value: 20.3, role: "struck" },
  ];
  const svg = renderToStaticMarkup(<BeadRail beads={beads} collars={[[19.5, 19.68]]} label="titer, mL" />);
  const circles = [...svg.matchAll(/<circle[^>]*>/g)].map(([tag]) => ({
    x: attribute(tag, "cx"),
    y: attribute(tag, "cy"),
    dashed: tag.includes("stroke-dasharray"),
  }));

  test("puts the beads on one scale with the collar around those that agree", () => {
    const collar = /<rect[^>]*>/.exec(svg)?.[0] ?? "";
    const [left, right] = [attribute(collar, "x"), attribute(collar, "x") + attribute(collar, "width")];
    const inside = circles.filter(({ x }) => x >= left && x <= right);
    expect(inside).toHaveLength(2);
    const perMl = (right - left) / 0.18;
    const xs = circles.map(({ x }) => x).sort((a, b) => a - b);
    expect(((xs.at(-1) ?? 0) - (xs[0] ?? 0)) / (20.3 - 19.58)).toBeCloseTo(perMl, 6);
  });

  test("never lets one bead cover another, and draws the rough one hollow", () => {
    circles.forEach((a, i) =>
      circles
        .slice(i + 1)
        .forEach((b) => expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThanOrEqual(17.9)),
    );
    expect(circles.filter(({ dashed }) => dashed)).toHaveLength(1);
  });

  test("never lets one caption run into another", () => {
    const close: RailBead[] = [
      { id: "e", name: "5", value: 18.1, role: "other" },
      ...beads.map((bead) => (bead.role === "struck" ? { ...bead, value: 20.33 } : bead)),
    ];
    const drawn = renderToStaticMarkup(
      <BeadRail beads={close} collars={[[19.5, 19.68]]} label="titer, mL" />,
    );
    const captions = [...drawn.matchAll(/(<text[^>]*>)(?:rough|struck)</g)].map(([, tag = ""]) => ({
      x: attribute(tag, "x"),
      y: attribute(tag, "y"),
    }));
    expect(captions).toHaveLength(2);
    const [a, b] = captions as [(typeof captions)[0], (typeof captions)[0]];
    expect(Math.abs(a.x - b.x)).toBeLessThan(42);
    expect(Math.abs(a.y - b.y)).toBeGreaterThan(13);
  });

  test("says in words what it shows", () => {
    expect(svg).toContain(
      "titer, mL. rough: 20.10, 1: 19.58, 2: 19.60, 3: 19.90, 4: 20.30. In agreement: 1, 2.",
    );
  });
});

test("a number is never parted from its unit, and stands out in a sentence", () => {
  expect(unbroken("between 19.54 and 19.68 mL closes the set")).toBe(
    "between 19.54 and 19.68\u00a0mL closes the set",
  );
  expect(unbroken("0.1 ± 0.2 mol/L")).toBe("0.1 ±\u00a00.2\u00a0mol/L");
  expect(renderToStaticMarkup(<>{numbersOut("run freely to 39.5, then")}</>)).toMatch(
    /^run freely to <b[^>]*>39\.5<\/b>, then$/,
  );
});

import { describe, expect, test } from "@jest/globals";
import jsQR from "jsqr";
import { renderToStaticMarkup } from "react-dom/server";
import { MemoryRouter } from "react-router";
import type { SolutionView } from "~/protocol/shelf";
import { LabelsPage } from "./labels-page";

const bottle: SolutionView = {
  id: "00000000-0000-7000-8000-000000000001",
  code: "S-12",
  form: "solution",
  formula: "NaOH",
  name: "sodium hydroxide, 0.1 mol/L",
  madeAt: new Date("2026-11-20T12:00:00Z"),
  madeBy: "bench 3",
  amountMade: "1000",
  amountLeft: "900",
  amountUnit: "mL",
  restandardizeBy: "2026-11-27",
  state: "in use",
  hazards: "corrosive",
  note: "",
  revision: 1,
  current: {
    id: "00000000-0000-7000-8000-000000000002",
    solutionId: "00000000-0000-7000-8000-000000000001",
    at: new Date("2026-11-20T12:00:00Z"),
    person: "bench 3",
    how: "standardized",
    value: "0.102134",
    plusMinus: "0.000131",
    shape: "normal",
    unit: "mol/L",
    runId: null,
    runTitle: null,
    stageKey: null,
  },
};

const draw = (bottles: readonly SolutionView[]) =>
  renderToStaticMarkup(
    <MemoryRouter>
      <LabelsPage bottles={bottles} />
    </MemoryRouter>,
  );

/** What a reader sees: the code's path painted on white, eight pixels a module. */
function scan(svg: string): string | undefined {
  const box = /viewBox="-2 -2 (\d+) (\d+)"/.exec(svg);
  const modules = Number(box?.[1]);
  const scale = 8;
  const size = modules * scale;
  const pixels = new Uint8ClampedArray(size * size * 4).fill(255);
  for (const [, x, y] of svg.matchAll(/M(\d+) (\d+)h1v1h-1z/g)) {
    for (let row = 0; row < scale; row++) {
      for (let column = 0; column < scale; column++) {
        const at = (((Number(y) + 2) * scale + row) * size + (Number(x) + 2) * scale + column) * 4;
        pixels.fill(0, at, at + 3);
      }
    }
  }
  return jsQR(pixels, size, size)?.data;
}

describe("a label", () => {
  test("says what is in it, how strong, ±, made when and by whom, due when, and what it does to people", () => {
    const label = draw([bottle])
      .replace(/<[^>]+>/g, " ")
      .replace(/\s+/g, " ");
    for (const words of [
      "sodium hydroxide, 0.1 mol/L",
      "0.10213",
      "± 0.00026 mol/L",
      "(k = 2)",
      "corrosive",
      "S-12",
      "made 2026-11-20 by bench 3",
      "restandardize by 2026-11-27",
    ])
      expect(label).toContain(words);
  });

  test("carries the same in a code that a reader reads", () => {
    expect(scan(draw([bottle]))).toBe("S-12; sodium hydroxide, 0.1 mol/L; 0.102134 mol/L; 2026-11-20");
  });

  test("of a long name still has a code that is read; a bottle without a concentration says so", () => {
    const name =
      "ammonium iron(II) sulfate hexahydrate, for the second afternoon group of the quarantine bench";
    const html = draw([{ ...bottle, name, current: null }]);
    expect(scan(html)).toBe(`S-12; ${name}; 2026-11-20`);
    expect(html).toContain("not known yet");
  });

  test("none to print says so", () => {
    expect(draw([])).toContain("choose some on the shelf");
  });
});

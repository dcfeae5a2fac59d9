import { describe, expect, test } from "@jest/globals";
import katex from "katex";
import { calculate, fiveFigures } from "./calculation";
import { inEnglish } from "../text";
import { plain } from "../testing/plain";

describe("a small calculation", () => {
  /** 0.05 mol/L in 250 mL of 133.998 g/mol (CHECKS.md), purity 99.95 %. */
  test("is worked out line by line, names, numbers, value", () => {
    const result = calculate(
      [
        { symbol: "c", value: 0.05, unit: "mol/L" },
        { symbol: "V", value: 250, unit: "mL" },
        { symbol: "P", value: 99.95, unit: "%" },
      ],
      [
        { relation: "n = c * V", title: "Amount", unit: "mmol" },
        { relation: "m = n * M(Na2C2O4) / P", title: "Mass", unit: "g" },
      ],
    );
    if (!result.ok) throw new Error(inEnglish(result.problem.message));
    expect(plain(result.value.map(({ text }) => text))).toEqual(["12.5 mmol", "1.6758 g"]);
    expect(result.value[1]?.number).toBeCloseTo((0.0125 * 133.998) / 0.9995, 6);
    expect(result.value[0]?.names).toBe("n = c \\cdot V");
    expect(result.value[0]?.numbers).toBe("= 0.05~\\text{mol/L} \\cdot 250~\\text{mL}");
    for (const { names, numbers, value } of result.value) {
      for (const tex of [names, numbers, value])
        expect(() => katex.renderToString(tex, { throwOnError: true, strict: "ignore" })).not.toThrow();
    }
  });

  test("takes ratios from the equation, over several of them", () => {
    const result = calculate(
      [
        { symbol: "n_o", value: 1, unit: "mmol" },
        { symbol: "c", value: 0.1, unit: "mol/L" },
      ],
      [{ relation: "V = n_o * ratio(S2O3^2-, KIO3) / c", title: "Titer", unit: "mL" }],
      ["KIO3 + 5 I- + 6 H+ -> 3 I2 + 3 H2O + K+", "I2 + 2 S2O3^2- -> 2 I- + S4O6^2-"],
    );
    expect(plain(result)).toMatchObject({ ok: true, value: [{ text: "60 mL" }] });
    if (result.ok) expect(result.value[0]?.numbers).toContain("\\dfrac{6}{1}");
  });

  test.each([
    ["a relation half typed", [{ relation: "V = n /", title: "x", unit: "mL" }], [], /./],
    ["an unknown unit", [{ relation: "V = n", title: "x", unit: "cups" }], [], /"cups" is not a known unit/],
    ["a division by zero", [{ relation: "V = n / (n - n)", title: "x", unit: "1" }], [], /check for a zero/],
    ["an equation that is none", [{ relation: "V = n", title: "x", unit: "mmol" }], ["HCl + NaOH"], /./],
  ])("refuses %s in words", (_name, lines, equations, message) => {
    const result = calculate([{ symbol: "n", value: 1, unit: "mmol" }], lines, equations);
    expect(plain(result)).toMatchObject({ ok: false, problem: { message: expect.stringMatching(message) } });
  });
});

test.each([
  [1.6757909, "1.6758"],
  [0.00001234567, "1.2346 × 10^-5"],
  [12345678, "1.2346 × 10^7"],
  [0, "0"],
  [NaN, "–"],
])("%p is shown as %s", (x, shown) => {
  expect(fiveFigures(x)).toBe(shown);
});

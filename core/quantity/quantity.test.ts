import { describe, expect, test } from "@jest/globals";
import {
  add,
  divide,
  exact,
  figuresOf,
  inUnit,
  leaf,
  measured,
  multiply,
  printedUnit,
  roundWithUncertainty,
  showSignificant,
  significantFromText,
  significantProduct,
  standardUncertainty,
  studentT,
  subtract,
  toDecimals,
  toSignificant,
  unitOf,
} from ".";

const massOf = (id: string, g: number, u: number) =>
  measured(g, "g", [{ leaf: leaf({ id, label: id, group: id, u }), by: 1 }]);

describe("uncertainty follows causes", () => {
  test("x - x has none, x / x has none, x + x has twice", () => {
    const x = massOf("x", 0.5, 0.001);
    expect(standardUncertainty(subtract(x, x))).toBe(0);
    expect(standardUncertainty(divide(x, x))).toBeCloseTo(0, 15);
    expect(standardUncertainty(add(x, x))).toBeCloseTo(0.002, 12);
  });

  test("independent causes combine as the root of squares", () => {
    const sum = add(massOf("a", 3, 0.003), massOf("b", 4, 0.004));
    expect(standardUncertainty(sum)).toBeCloseTo(0.005, 12);
    const product = multiply(massOf("a", 3, 0.003), massOf("b", 4, 0.004));
    expect(standardUncertainty(product) / 12).toBeCloseTo(Math.hypot(0.001, 0.001), 12);
  });

  test("units change the number and nothing else", () => {
    expect(inUnit(exact(25, "mL"), "L")).toBeCloseTo(0.025, 15);
    expect(inUnit(divide(exact(2, "mmol"), exact(20, "mL")), "mol/L")).toBeCloseTo(0.1, 15);
    expect(() => add(exact(1, "g"), exact(1, "mL"))).toThrow();
  });
});

/** CHECKS.md: Student t, 95 % two-sided, df 1 to 5 (three decimals). */
test.each([
  [1, "12.706"],
  [2, "4.303"],
  [3, "3.182"],
  [4, "2.776"],
  [5, "2.571"],
])("Student t at 95 %% with %i degrees of freedom is %s", (df, expected) => {
  expect(studentT(0.95, df).toFixed(3)).toBe(expected);
});

test("Student t tends to the normal distribution's 1.960", () => {
  expect(studentT(0.95, Infinity).toFixed(3)).toBe("1.960");
});

/** Rounding rule of the Particle Data Group, from memory: its own example is 0.827 ± 0.119, and 0.827 ± 0.367. */
test.each([
  [0.827, 0.119, "0.83", "0.12"],
  [0.827, 0.367, "0.8", "0.4"],
  [0.10213614, 0.0000991, "0.10214", "0.00010"],
  [1.9752, 0.0094, "1.975", "0.009"],
  [12345, 96, "12350", "100"],
  [0.0100712, 0.0000121, "0.010071", "0.000012"],
])("%f with u %f is shown as %s ± %s", (value, u, shown, plusMinus) => {
  expect(roundWithUncertainty(value, u)).toMatchObject({ value: shown, uncertainty: plusMinus });
});

test("halves are rounded on the decimal, not on the binary number", () => {
  expect([0.285, 1.005, 19.995, -0.004].map((x) => toDecimals(x, 2))).toEqual([
    "0.29",
    "1.01",
    "20.00",
    "0.00",
  ]);
});

describe("figures over a power of ten", () => {
  test.each([
    [0.0995, 2, "0.10"],
    [9.9996, 4, "10.00"],
    [0.0994, 2, "0.099"],
    [99.6, 2, "100"],
    [-0.0995, 2, "−0.10"],
    [0.102, 4, "0.1020"],
  ])("%d to %i figures is %s", (x, figures, text) => {
    expect(toSignificant(x, figures)).toBe(text);
  });

  test("the taught rules round over it likewise", () => {
    const product = significantProduct(0.0995, significantFromText("0.10"), significantFromText("0.995"));
    expect([showSignificant(product), figuresOf(product)]).toEqual(["0.10", 2]);
  });
});

test("units with brackets, powers or neither below the line mean the same, and are printed with brackets", () => {
  const same = ["L/(mol·cm)", "L/mol·cm", "L·mol⁻¹·cm⁻¹", "L·mol^-1·cm^-1"].map(unitOf);
  for (const { factor, dimension } of same) expect([factor, dimension]).toEqual([10, [2, 0, -1, 0, 0]]);
  expect(["L/mol·cm", "L/(mol·s)", "mol/L", "1", "% w/w"].map(printedUnit)).toEqual([
    ...["L/(mol·cm)", "L/(mol·s)", "mol/L", "", "% w/w"],
  ]);
  expect(() => unitOf("L/(mol·foo)")).toThrow(/not known/);
});

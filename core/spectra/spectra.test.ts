import { expect, test } from "@jest/globals";
import { randomStream } from "../montecarlo";
import { proposeWavelengths, visiblePart } from ".";
import { plain } from "../testing/plain";

const nm = Array.from({ length: 301 }, (_, i) => 400 + i);
const band = (center: number, width: number, height: number) => (x: number) =>
  height * Math.exp(-(((x - center) / width) ** 2) / 2);
const spectrum = (bands: readonly ((x: number) => number)[], sd = 0) => {
  const random = randomStream(2);
  return { nm, absorbance: nm.map((x) => bands.reduce((sum, b) => sum + b(x), 0) + sd * random.normal()) };
};

test("The highest top is proposed first, noise or not, and its reason names the light absorbed and the color seen", () => {
  const [best, second] = proposeWavelengths(spectrum([band(620, 45, 0.8), band(460, 20, 0.3)], 0.002));
  expect(Math.abs((best?.nm ?? 0) - 620)).toBeLessThan(5);
  expect(best?.best).toBe(true);
  expect(plain(best?.reason)).toMatch(
    /Largest absorbance.*absorbs orange light there, so the solution looks green-blue/,
  );
  expect(Math.abs((second?.nm ?? 0) - 460)).toBeLessThan(4);
  expect(second?.best).toBe(false);
});

test("A flat top is told from a sharp one: within 1 % a Gaussian is 0.28 of its width flat", () => {
  const flat = proposeWavelengths(spectrum([band(550, 60, 0.9)]))[0];
  expect(Math.abs((flat?.flatNm ?? 0) - 2 * 60 * Math.sqrt(2 * Math.log(1 / 0.99)))).toBeLessThan(3);
  expect(plain(flat?.reason)).toMatch(/flat over 1\d nm, so/);
  expect(plain(proposeWavelengths(spectrum([band(550, 12, 0.9)]))[0]?.reason)).toMatch(/sharp.*with care/);
});

test("A rise toward the end of the scan is no top, and a strong top warns of stray light", () => {
  expect(proposeWavelengths(spectrum([band(760, 60, 1)]))).toEqual([]);
  expect(plain(proposeWavelengths(spectrum([band(540, 30, 2.1)]))[0]?.reason)).toMatch(/stray light/);
});

test("The visible band runs from violet to red, and ends", () => {
  expect([visiblePart(500)?.light, visiblePart(700)?.light, visiblePart(350), visiblePart(880)]).toEqual([
    "green",
    "red",
    null,
    null,
  ]);
});

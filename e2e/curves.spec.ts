import { defaultHouseRules } from "../catalog/rules/defaults";
import {
  atRest,
  confirmVolumes,
  expect,
  long,
  noGraveFaults,
  openRun,
  test,
  titration,
  typeReadings,
} from "./app";
import { noOverflow, typeOnce } from "./photometer";
import type { Page } from "@playwright/test";

const steady = (page: Page) => page.getByTestId("meter-state").filter({ hasText: "● steady" });
const points = (page: Page, count: number) =>
  page.getByRole("heading", { name: count === 1 ? "1 point" : `${count} points`, exact: true });

/** What is weighed and the burette, by keyboard. */
async function fillBeaker(page: Page, texts: readonly string[]) {
  for (const text of texts) {
    await expect(page.locator("[data-cursor]")).toBeFocused();
    await page.keyboard.insertText(text);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("button", { name: /^Undo: / })).toContainText(text.replace(/^0+(?=\d)/, ""));
  }
}

test("A diprotic acid point by point from the simulated meter, its advice followed: equivalent mass and name, by keyboard", async ({
  page,
}) => {
  test.setTimeout(240_000);
  await openRun(page, "diprotic-acid-by-curve", "Sour crystals of the gift shop");
  await page.getByRole("button", { name: "Connect the simulated meter" }).press("Enter");
  await page.getByRole("button", { name: "Calibrate with buffers" }).press("Enter");
  const dialog = page.getByRole("dialog");
  for (const place of [0, 2, 4]) {
    await dialog.getByRole("button", { name: "Dip into it" }).nth(place).press("Enter");
    await dialog.getByRole("button", { name: "Take it" }).press("Enter");
    await expect(dialog.getByRole("button", { name: "Dip into it" })).toHaveCount(5);
  }
  await expect(page.getByTestId("calibration")).toContainText(/Slope 9\d\.\d % of theory/);
  await dialog.getByRole("button", { name: "Use this calibration" }).press("Enter");
  await expect(dialog).toBeHidden();
  await page.locator("[data-cursor]").focus();
  await fillBeaker(page, ["12.3456", "12.1512", "0.00"]);

  let count = 0;
  for (; count < 70; count++) {
    const head = page.getByTestId("next-reading");
    if (count > 0 && (await head.count()) === 0) break;
    await expect(page.locator("[data-cursor]")).toBeFocused();
    // The first Enter takes the burette as advised, the second what the meter shows once it is steady.
    await page.keyboard.press("Enter");
    // Noise may carry the meter out of steady again just before the key: then it is pressed once more, as a hand would. A point
    // that was taken is waited for, however busy the machine is: a key too many would go into the next pair.
    await expect(async () => {
      await steady(page).waitFor();
      await page.keyboard.press("Enter");
      await atRest(page);
      await expect(points(page, count + 1)).toBeVisible({ timeout: 1000 });
    }).toPass({ timeout: 30_000 });
  }
  expect(count).toBeGreaterThan(15);
  expect(count).toBeLessThan(60);
  // The curve is fitted by a worker, which a busy machine runs late. Where no fit describes it, the points tell why.
  const found = expect(page.getByTestId("candidates")).toContainText("tartaric acid", { timeout: 20_000 });
  await found.catch(async (error: Error) => {
    const read = await page.request.get(`${new URL(page.url()).pathname}/export/lines`);
    throw new Error(`${error.message}\n${await read.text()}`);
  });
  await expect(page.getByTestId("protons")).toHaveText("The jump stands for 2 protons.");
  const mass = Number(/^[\d.]+/.exec((await page.getByTestId("result").textContent()) ?? "")?.[0]);
  // What the simulated beaker holds is tartaric acid, nearly pure: half of 150.086 g/mol.
  expect(Math.abs(mass - 75.04)).toBeLessThan(0.8);

  // A point struck out by mistake, and brought back by undo: the result is as before.
  const before = await page.getByTestId("result").textContent();
  await page
    .getByRole("button", { name: /^Change the point at/ })
    .first()
    .press("Enter");
  await dialog.getByRole("button", { name: "taken too soon" }).press("Enter");
  await dialog.getByRole("button", { name: "Strike it out" }).press("Enter");
  await expect(points(page, count - 1)).toBeVisible();
  await page.getByRole("button", { name: /^Undo: reading .* struck out/ }).press("Enter");
  await expect(points(page, count)).toBeVisible();
  await expect(page.getByTestId("result")).toHaveText(before ?? "");
  await noGraveFaults(page, "a curve that is read");
  await noOverflow(page);
  await page.getByRole("link", { name: "Show the working" }).press("Enter");
  await expect(page.getByText("by the fit of the whole curve").first()).toBeVisible();
});

test("A curve pasted from a logger, with what is wrong told before anything is taken; a pair typed with two Enters", async ({
  page,
}) => {
  await openRun(page, "weak-base-by-curve", "Ammonia of the otter pool");
  await page.locator("[data-cursor]").focus();
  await fillBeaker(page, ["25.00", "0.00"]);
  await page.getByRole("button", { name: "Paste points, or take them from a file" }).click();
  const table = page.getByRole("textbox", { name: "Table" });
  await table.fill("time\tdrops\tpH\n08:00:00\t0\t10.8x\n08:00:20\t20\t10.12\n");
  await page.getByRole("combobox", { name: "First of the two columns" }).click();
  await page.getByRole("option", { name: "drops counted" }).click();
  await table.fill("time\tdrops\tpH\n08:00:00\t0\t10.80\n08:00:20\t20\t10.42\n08:00:40\t10\t10.10\n");
  await expect(page.getByRole("dialog")).toContainText("the volume goes back");
  await table.fill("time\tdrops\tpH\n08:00:00\t0\t10.80\n08:00:20\t20\t10.42\n08:00:40\t40\t10.12\n");
  await page.getByRole("button", { name: "Take 3 points" }).click();
  await expect(points(page, 3)).toBeVisible();
  await expect(page.getByRole("button", { name: /^Undo: 3 readings/ })).toBeVisible();

  const burette = page.getByRole("textbox", { name: "Burette, mL" });
  await burette.fill("1.00");
  await page.keyboard.press("Enter");
  await expect(
    page.getByRole("status").or(page.getByRole("alert")).filter({ hasText: "volume go back" }),
  ).toBeVisible();
  await burette.fill("3.00");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("textbox", { name: "pH", exact: true })).toBeFocused();
  await page.keyboard.insertText("16");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("16 is more than 15");
  await page.getByRole("textbox", { name: "pH", exact: true }).fill("9.95");
  await page.keyboard.press("Enter");
  await expect(points(page, 4)).toBeVisible();
  await page.reload();
  await expect(points(page, 4)).toBeVisible();
});

/** Titers by Freundlich's law with 3 mmol/g at 1 mol/L and 1/n = 0.4: what is left of 0.5 mol/L, 50 to 10 mL of it in 50 mL with a gram. */
const titers = [
  ["bottle-1", "10.00", "45.60"],
  ["bottle-2", "10.00", "36.00"],
  ["bottle-3", "10.00", "26.47"],
  ["bottle-4", "10.00", "17.05"],
  ["bottle-5", "25.00", "19.58"],
] as const;

test(
  "An adsorption of five bottles: weighed, titrated, both laws side by side, and the one that is taken",
  long,
  async ({ page }) => {
    test.setTimeout(180_000);
    await openRun(page, "acetic-acid-on-charcoal", "Filter charcoal of the reef");
    const { pathname } = new URL(page.url());
    const rules = {
      ...defaultHouseRules,
      agreement: { rule: "n-within", replicates: 1, withinMl: "0.10" },
      burette: { ...defaultHouseRules.burette, start: "zero" },
    };
    const sent = await page.request.post(`${pathname}/changes`, {
      data: JSON.stringify({ intent: "rules", rules, reason: "one titration of each bottle" }),
      headers: { "Content-Type": "application/json" },
    });
    expect(await sent.json()).toMatchObject({ status: "done" });
    await page.reload();
    await page.getByRole("button", { name: "counts", exact: true }).click();
    await page.getByRole("textbox", { name: "Aliquot of the start acid, mL" }).focus();
    await typeReadings(page, [["Aliquot of the start acid, mL", "5.00"], ...titration("0.00", "25.00")]);
    for (const [stage, aliquot, titer] of titers) {
      await page.goto(`${pathname}?stage=${stage}`);
      await confirmVolumes(page);
      await typeOnce(page, /^Charcoal type it/, "1.0000");
      await page.getByRole("button", { name: "counts", exact: true }).click();
      await page.getByRole("textbox", { name: "Aliquot of the filtrate, mL" }).focus();
      await typeReadings(page, [["Aliquot of the filtrate, mL", aliquot], ...titration("0.00", titer)]);
    }
    await page.goto(`${pathname}?stage=isotherm`);
    await expect(page.getByTestId("verdict")).toHaveText(
      /^Freundlich describes the titers better: .* with 3 degrees of freedom\.$/,
    );
    const laws = page.getByRole("region", { name: "Both laws" });
    await expect(laws.getByRole("row", { name: /^K, mmol\/g at 1 mol\/L 3\.0/ })).toBeVisible();
    await expect(laws.getByRole("row", { name: /^1\/n 0\.40/ })).toBeVisible();
    await expect(page.getByTestId("result")).toContainText(/^1\.(19|2)/);
    await page.getByRole("button", { name: "log q against log c" }).press("Enter");
    await noGraveFaults(page, "the isotherm");
    await noOverflow(page);
  },
);

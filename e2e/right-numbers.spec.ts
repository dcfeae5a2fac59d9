import type { Page } from "@playwright/test";
import {
  atRest,
  confirmVolumes,
  expect,
  ledgerRow,
  openRun,
  test,
  titration,
  typeReadings,
  weighing,
} from "./app";
import { absorbance, inHand, read, takeUsualWavelength } from "./photometer";

/*
 * What must never pass in silence: verdicts that take sides, values that nobody stated, readings that disagree, ends that are
 * taken for those of another burette.
 */

const verdict = (page: Page) => page.getByTestId("verdict");
const result = (page: Page) => page.getByTestId("result");
const watch = (page: Page) => page.getByRole("group", { name: "Does the color stay?" });

const stage = async (page: Page, key: string) => {
  await page.goto(`${new URL(page.url()).pathname}?stage=${key}`);
  await expect(page.getByRole("region", { name: "Trial in hand" })).toBeVisible();
};

/** The trial in hand counts, and the cursor stands in its first field. */
async function counts(page: Page, first: string) {
  await page.getByRole("button", { name: "counts", exact: true }).click();
  await page.getByRole("textbox", { name: first, exact: true }).focus();
}

test("a sample has a burette of its own: it ends no trial, and the end that was marked is the titrant's", async ({
  page,
}) => {
  await openRun(page, "water-hardness", "Water of the seal pool");
  await stage(page, "total");
  await counts(page, "Water: initial reading, mL");
  await typeReadings(page, [
    ["Water: initial reading, mL", "1.00"],
    ["Water: final reading, mL", "26.00"],
    ["Initial reading, mL", "0.00"],
  ]);
  await expect(watch(page)).toHaveCount(0);
  const final = page.getByRole("textbox", { name: "Final reading, mL", exact: true });
  await final.fill("16.05");
  await final.press("Enter");
  await watch(page).getByRole("button", { name: "Faded: keep titrating" }).press("Enter");
  await expect(page.getByRole("list", { name: "Possible end points" })).toContainText("16.05");
  await final.fill("16.20");
  await final.press("Enter");
  await watch(page).getByRole("button", { name: "Kept" }).press("Enter");
  await expect(ledgerRow(page, "1")).toContainText("16.20");
  await ledgerRow(page, "1")
    .getByRole("button", { name: /^Actions for/ })
    .click();
  await page.getByRole("menuitem", { name: "The end was 16.05, as marked" }).click();
  await expect(ledgerRow(page, "1")).toContainText("16.05");
  // One reading was corrected, and the water that was taken stays what it was.
  await expect(ledgerRow(page, "1").locator("s")).toHaveText(["16.05", "16.20"]);
  await expect(ledgerRow(page, "1")).toContainText("26.00");
});

test("two trials that disagree: nothing is outside, both windows are named, and the third is no slip", async ({
  page,
}) => {
  await openRun(page, "acid-by-base", "Acid of two minds");
  await page.getByRole("button", { name: /^Concentration of the base 0\.1/ }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("textbox").first().fill("0.1000");
  await dialog.getByRole("button", { name: /Correct|Save/ }).click();
  await expect(dialog).toBeHidden();
  // What was typed took the ± of the presumed value away, on the screen and in the result.
  await expect(page.getByRole("button", { name: /^Half width of concentration of the base/ })).toHaveText(
    "not stated",
  );
  await counts(page, "Aliquot of acid, mL");
  const trial = (initial: string, final: string) =>
    [["Aliquot of acid, mL", "25.00"], ...titration(initial, final)] as const;
  await typeReadings(page, trial("0.00", "20.00"));
  // One trial alone is what the second is held against: it may be a slip, and is kept by Enter.
  await typeReadings(page, trial("20.00", "41.20"));
  await expect(page.getByText("Enter again keeps 41.20.")).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(verdict(page)).toContainText("Trials 1 and 2 disagree: they are 1.20 mL apart");
  await expect(verdict(page)).not.toContainText("outside");
  await expect(result(page)).toHaveCount(0);
  await expect(page.getByTestId("next-trial")).toHaveText(
    "Two more trials; the next agrees between 19.90 and 20.10 mL, or between 21.10 and 21.30 mL",
  );
  await page.getByRole("textbox", { name: "Aliquot of acid, mL" }).press("Enter");
  await page.getByRole("button", { name: "Refilled" }).press("Enter");
  await typeReadings(page, titration("0.00", "21.20"));
  // 21.20 agrees with trial 2 exactly: it is saved as typed, and nobody asks whether 20.20 is meant.
  await expect(ledgerRow(page, "3")).toContainText("21.20");
  await expect(verdict(page)).toContainText("Trials 2 and 3");
  await expect(page.getByTestId("footing")).toContainText(
    "Not counted in the ±: the ± of concentration of the base",
  );
});

test("more than all of it cannot be: it is no result, and says where to look first", async ({ page }) => {
  await openRun(page, "oxalate-in-solid", "Too good a solid");
  const value = page.getByRole("button", { name: /^Concentration of the permanganate/ }).first();
  await value.click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("textbox").first().fill("0.0400");
  await dialog.getByRole("button", { name: /Correct|Save/ }).click();
  await expect(dialog).toBeHidden();
  await counts(page, "Boat with solid, g");
  for (const [initial, final] of [
    ["0.00", "40.00"],
    ["0.00", "40.02"],
    ["0.00", "39.98"],
  ] as const) {
    await typeReadings(page, weighing("2.2500", "2.0000"));
    const refilled = page.getByRole("button", { name: "Refilled" });
    if (await refilled.isVisible()) await refilled.press("Enter");
    await typeReadings(page, titration(initial, final));
  }
  // 0.0400 · 40.00 · 5/2 = 4.000 mmol of 88.018 g/mol are 0.3521 g, in 0.2500 g of solid.
  const implausible = page.getByTestId("implausible");
  await expect(implausible).toContainText("that is impossible");
  await expect(implausible.getByRole("listitem").first()).toContainText(/permanganate/);
  await expect(page.getByRole("link", { name: "Go on: Conclude" })).toHaveCount(0);
});

test("a blank that is not zero is asked about, and subtracting it changes a standard addition", async ({
  page,
}) => {
  await openRun(page, "iron-by-standard-addition", "Iron with a blank");
  await takeUsualWavelength(page, 510, "Read the additions");
  await read(page, "Blank", "0.030");
  for (const [i, ml] of ["0.00", "2.00", "4.00", "6.00", "8.00"].entries()) {
    await read(page, `Flask with ${ml} mL`, (0.24 + 0.16 * i + (i % 2 ? 0.001 : -0.001)).toFixed(3));
  }
  // 0.24 at nothing added and 0.20 for each mg/L: 3.00 mg/L of the sample; less 0.030, 0.21: 2.62 mg/L.
  const numbers = page.getByTestId("line-numbers");
  const question = page.getByRole("group", { name: "The blank is not zero" });
  await expect(page.getByTestId("next-reading")).toContainText("The blank reads 0.030, not zero");
  await expect(numbers).toContainText(/Iron in the sample ?(2\.9\d|3\.0\d)/);
  const bead = page.getByRole("list", { name: "Stages" }).locator("[aria-current=step]");
  await expect(bead).toContainText("in progress");
  await question.getByRole("button", { name: /subtract/i }).click();
  await expect(numbers).toContainText(/Iron in the sample ?2\.6\d/);
  await expect(question).toHaveCount(0);
  await expect(bead).toContainText("done");
});

test("readings of one flask and flasks of one sample that disagree give no quiet number", async ({
  page,
}) => {
  await openRun(page, "copper-with-ammonia", "Copper of two minds");
  await takeUsualWavelength(page, 620, "Read the standards");
  await read(page, "Blank", "0.000");
  for (const [ml, a] of [
    ["2.00", "0.137"],
    ["4.00", "0.275"],
    ["6.00", "0.411"],
    ["8.00", "0.550"],
    ["10.00", "0.686"],
  ] as const) {
    await read(page, `Flask with ${ml} mL`, a);
  }
  await page.getByRole("link", { name: /^Go on/ }).click();
  await expect(inHand(page)).toHaveText("Unknown, flask 1");
  await confirmVolumes(page);
  await read(page, "Unknown, flask 1", "0.318");
  await read(page, "Unknown, flask 1", "0.418");
  const flasks = page.getByRole("region", { name: "Flasks of the unknown" });
  await expect(flasks).toContainText("0.100 apart, more than the 0.010 that the house rules allow");
  await page.getByRole("button", { name: "Another flask of it" }).click();
  await read(page, "Unknown, flask 2", "0.500");
  await read(page, "Unknown, flask 2", "0.501");
  await expect(absorbance(page)).toHaveValue("");
  await atRest(page);
  await expect(page.getByRole("main")).toContainText(/Flasks 1 and 2 (disagree|agree)/);
});

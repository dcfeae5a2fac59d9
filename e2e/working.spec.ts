import { expect, ledgerRow, startRun, test, titration, typeReadings, weighing } from "./app";

/*
 * Three flasks as in the main job: c_b = 0.100009, 0.099951 and 0.100082, mean 0.100014 mol/L. One aliquot of 25.00 mL
 * takes 20.00 mL: n = 0.100014 · 20.00 = 2.00028 mmol, c = 2.00028 / 25.00 = 0.080011 mol/L.
 */
test("the working opens from every result, step by step, down to the readings and up the chain", async ({
  page,
}) => {
  await startRun(page, "On the board");
  for (const [after, final] of [
    ["2.1000", "25.00"],
    ["2.1205", "24.01"],
    ["2.0796", "25.98"],
  ] as const) {
    await typeReadings(page, weighing("2.6106", after));
    const refilled = page.getByRole("button", { name: "Refilled" });
    if (await refilled.isVisible()) await refilled.press("Enter");
    await typeReadings(page, titration("0.00", final));
  }
  await page.getByRole("link", { name: "Go on: Titrate the acid" }).press("Enter");
  // The stage before has such a button too: wait until its own stands there.
  await expect(page.getByRole("textbox", { name: "Aliquot of acid, mL" })).toBeVisible();
  await page.getByRole("button", { name: "counts", exact: true }).click();
  await page.getByRole("textbox", { name: "Aliquot of acid, mL" }).focus();
  await typeReadings(page, [["Aliquot of acid, mL", null], ...titration("0.00", "20.00")]);
  await expect(page.getByTestId("result")).toContainText("0.0800");

  await test.step("from the ledger", async () => {
    await ledgerRow(page, "1")
      .getByRole("link", { name: /working of trial 1/ })
      .click();
    const board = page.getByRole("region", { name: "The board" });
    await expect(board.getByRole("listitem")).toHaveCount(7);
    for (const value of ["20.00 ± 0.05 mL", "2.00028 mmol", "0.080011 mol/L"]) {
      await expect(board.getByRole("group", { name: value, exact: true }).first()).toBeVisible();
    }
    await expect(board).toContainText("One trial, taken as the mean");
  });

  await test.step("the equation and the aliquot open in place", async () => {
    await page.getByRole("button", { name: "the equation" }).click();
    await expect(page.getByText("HCl + NaOH → NaCl + H₂O")).toBeVisible();
    await page.getByRole("button", { name: "the aliquot" }).click();
    await expect(page.getByText("Pipette, 25 mL class A").first()).toBeVisible();
    await page.getByRole("button", { name: "the aliquot" }).click();
    await expect(page.getByText("Its standard uncertainty, by source")).toHaveCount(0);
  });

  await test.step("the base's concentration leads to its own working", async () => {
    await page.getByRole("button", { name: "where 0.100014 comes from" }).click();
    await page.getByRole("link", { name: "Open its working" }).click();
    await expect(page.getByRole("group", { name: "0.10001 ± 0.00021 mol/L" })).toBeVisible();
    await expect(page.getByText("Mean of the concordant trials 1, 2 and 3")).toBeVisible();
    await page.getByRole("main").getByRole("link", { name: "trial 2", exact: true }).click();
    // 0.4901 / 204.222 = 2.39984 mmol; / 24.01 mL = 0.099952 mol/L
    await expect(page.getByText("Titer of trial 2")).toBeVisible();
    await expect(page.getByRole("group", { name: "0.099952 mol/L" })).toBeVisible();
  });

  await test.step("the shares add up to all of it, and the earlier stage's stand together", async () => {
    await page.getByRole("link", { name: "Titrate the acid" }).click();
    const shares = page.getByRole("region", { name: "Uncertainty budget" });
    await expect(shares.getByRole("link", { name: "Concentration of the base" })).toBeVisible();
    await expect(shares).toContainText("of which burette, 50 mL class A");
    const figures = (await shares.innerText()).split("\n").filter((line) => /^\d+ %$/.test(line.trim()));
    const sum = figures.reduce((total, figure) => total + parseInt(figure), 0);
    expect(sum).toBeGreaterThan(96);
    expect(sum).toBeLessThan(103);
  });

  await test.step("a million draws in a worker stand beside the ±; drawing again can be cancelled", async () => {
    await page.getByRole("link", { name: "Standardize the base" }).click();
    // The panel belongs to its stage: drawing begun in the one before ends with it.
    await expect(page.getByText("Mass of phthalate")).toBeVisible();
    const panel = page.getByRole("region", { name: "Check of the ±" });
    await panel.getByRole("button", { name: "Run 1,000,000 Monte Carlo trials" }).click();
    await expect(panel.getByRole("img", { name: /How the draws lie/ })).toBeVisible({ timeout: 60_000 });
    // Half of the interval: 1.96 u or, with Student's t for three trials, somewhat more.
    const [low, high] = (await panel.getByRole("definition").nth(3).innerText()).split(" to ").map(Number);
    expect(high! - low!).toBeGreaterThan(2 * 1.9 * 0.0001);
    expect(high! - low!).toBeLessThan(2 * 3.5 * 0.0001);
    expect((low! + high!) / 2).toBeCloseTo(0.100014, 5);
    await expect(panel).toContainText("with only three trials their scatter is itself uncertain");
    await panel.getByRole("button", { name: "Draw again" }).click();
    await panel.getByRole("button", { name: "Cancel" }).click();
    await expect(panel.getByRole("button", { name: "Run 1,000,000 Monte Carlo trials" })).toBeVisible();
    await expect(panel.getByRole("progressbar")).toHaveCount(0);
  });

  await page.getByRole("link", { name: "Back to the run" }).click();
  await expect(page.getByRole("textbox", { name: "Boat with solid, g" })).toBeVisible();
});

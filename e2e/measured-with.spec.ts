import { defaultHouseRules } from "../catalog/rules/defaults";
import { expect, ledgerRow, long, openRun, test, titration, typeReadings } from "./app";

/* A run fits the bench at hand: other glass than the method's, chosen in the run and before it is read. */

test(
  "acid by cylinder instead of by pipette: chosen by keyboard, the ± follows, and the next sample is measured so too",
  long,
  async ({ page }) => {
    await openRun(page, "acid-by-base", "First lesson with a cylinder");
    const aliquot = page.getByRole("textbox", { name: "Aliquot of acid, mL" });
    await expect(page.getByText(/class A pipette/)).toBeVisible();
    const measuredWith = async () => {
      await page.getByRole("button", { name: "More about this run" }).press("Enter");
      await page.getByRole("menuitem", { name: "Measured with …" }).press("Enter");
    };
    const dialog = page.getByRole("dialog", { name: /measured with/ });
    await measuredWith();
    const way = dialog.getByRole("combobox", { name: "Aliquot of acid", exact: true });
    await expect(way).toContainText("one-mark pipette, as the method says");
    await way.press("Enter");
    await page.getByRole("option", { name: "25 mL measuring cylinder" }).press("Enter");
    await expect(dialog).toContainText("Good to 1.0 % at best: its tolerance would rule the result.");
    await dialog.getByRole("button", { name: "Use in this run" }).press("Enter");
    await expect(dialog).toBeHidden();
    await expect(
      page.getByRole("button", { name: /^Undo: way of measuring aliquot of acid: 25 mL/ }),
    ).toBeVisible();
    await expect(page.getByText("25 mL cylinder")).toBeVisible();

    await page.getByRole("button", { name: "counts", exact: true }).click();
    await aliquot.focus();
    await typeReadings(page, [["Aliquot of acid, mL", "25.0"], ...titration("0.00", "25.00")]);
    await typeReadings(page, [["Aliquot of acid, mL", "25.0"], ...titration("0.00", "25.04")]);
    await expect(ledgerRow(page, "2")).toContainText("25.04");
    // 0.1000 mol/L · 25.02 mL / 25.0 mL = 0.10008. The cylinder's 0.25 mL are 1 % of 25 mL, as a triangle u = 0.41 %, the same cylinder
    // for both; with 0.1 % of the base's concentration and the titers', k = 2: 0.0009.
    await expect(page.getByTestId("result")).toContainText(/^0\.1001\s*± 0\.0009 mol\/L/);

    // What was read with the cylinder is no reading of a burette: it is kept, and counts again with the cylinder.
    await measuredWith();
    await way.press("Enter");
    await page.getByRole("option", { name: "burette, by difference" }).press("Enter");
    await expect(dialog).toContainText("Readings taken the other way are kept (2)");
    await dialog.getByRole("button", { name: "Use in this run" }).press("Enter");
    await expect(dialog).toBeHidden();
    await expect(page.getByTestId("result")).toHaveCount(0);
    await measuredWith();
    await way.press("Enter");
    await page.getByRole("option", { name: "25 mL measuring cylinder" }).press("Enter");
    await dialog.getByRole("button", { name: "Use in this run" }).press("Enter");
    await expect(dialog).toBeHidden();
    await expect(page.getByTestId("result")).toContainText(/^0\.1001\s*± 0\.0009 mol\/L/);

    await page.getByRole("button", { name: "More about this run" }).press("Enter");
    await page.getByRole("menuitem", { name: "Same again: next sample …" }).press("Enter");
    await page.getByRole("textbox", { name: "Sample" }).fill("R-10");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("heading", { level: 1, name: /^R-10/ })).toBeVisible();
    await expect(page.getByText("25 mL cylinder")).toBeVisible();
  },
);

test("a weighing by a tared balance instead of by difference is one reading, to the decimals of the balance", async ({
  page,
}) => {
  await openRun(page, "base-by-phthalate-then-acid", "Tared");
  await page.getByRole("button", { name: "More about this run" }).press("Enter");
  await page.getByRole("menuitem", { name: "Measured with …" }).press("Enter");
  const dialog = page.getByRole("dialog", { name: /measured with/ });
  await dialog.getByRole("combobox", { name: "Mass of phthalate", exact: true }).press("Enter");
  await page.getByRole("option", { name: "tared balance" }).press("Enter");
  const balance = dialog.getByRole("combobox", { name: "Mass of phthalate: balance" });
  await balance.selectOption({ label: "2 decimals" });
  await expect(dialog).toContainText("the balance would rule the result");
  await balance.selectOption({ label: "3 decimals" });
  await dialog.getByRole("button", { name: "Use in this run" }).press("Enter");
  await expect(dialog).toBeHidden();
  const mass = page.getByRole("textbox", { name: /^Mass of phthalate/ });
  await expect(mass).toBeFocused();
  await expect(page.getByText("3 decimals")).toBeVisible();
  await page.keyboard.insertText("0.511");
  await page.keyboard.press("Enter");
  await typeReadings(page, titration("0.00", "25.00"));
  // 0.511 g of 204.222 g/mol are 2.5022 mmol, in 25.00 mL.
  await expect(ledgerRow(page, "1")).toContainText(/0\.1001/);
});

test(
  "peroxide as it is, without the dilution of the method, each portion weighed: by keyboard, in twelve keys or fewer",
  long,
  async ({ page }) => {
    await page.goto("/methods/peroxide-by-volume");
    let keys = 0;
    const press = async (key: string) => {
      keys++;
      await page.keyboard.press(key);
    };
    await page.getByRole("link", { name: "Start a run" }).first().focus();
    await press("Enter");
    await expect(page.getByRole("textbox", { name: "Sample" })).toBeFocused();
    await page.keyboard.insertText("PX-1");
    await press("Enter");
    await expect(page.getByRole("heading", { level: 1, name: /^PX-1/ })).toBeVisible();
    await page.getByRole("button", { name: "More about this run" }).press("Enter");
    await page.getByRole("menuitem", { name: "Measured with …" }).press("Enter");
    const dialog = page.getByRole("dialog", { name: /measured with/ });
    await dialog
      .getByRole("combobox", { name: "Dilution", exact: true })
      .selectOption({ label: "not diluted" });
    await expect(dialog.getByRole("combobox", { name: "Peroxide taken", exact: true })).toHaveCount(0);
    await dialog.getByRole("combobox", { name: "Aliquot of the dilution", exact: true }).press("Enter");
    await page.getByRole("option", { name: "by mass, with its density" }).press("Enter");
    // A density is nobody's to presume: without one nothing is changed.
    await dialog.getByRole("button", { name: "Use in this run" }).press("Enter");
    await expect(dialog).toContainText("Type the density in g/mL");
    keys += 7;
    await dialog.getByRole("textbox", { name: /: Density, g\/mL/ }).fill("1.0100");
    await dialog.getByRole("textbox", { name: /: ±, g\/mL/ }).fill("0.0005");
    await press("Enter");
    await expect(dialog).toBeHidden();
    const portion = page.getByRole("textbox", { name: "Aliquot of the dilution, weighed, g" });
    await expect(portion).toBeFocused();
    await expect(page.getByRole("button", { name: /^It was / })).toHaveCount(0);
    expect(keys).toBeLessThanOrEqual(12);

    await typeReadings(page, [
      ["Aliquot of the dilution, weighed, g", "1.0100"],
      ...titration("0.00", "20.00"),
    ]);
    // 1.0100 g / 1.0100 g/mL = 1.0000 mL. 0.02000 mol/L · 20.00 mL · 5/2 = 1.0000 mmol in it: 1.000 mol/L, 34.015 g/L, 3.40 % w/v.
    await expect(ledgerRow(page, "1")).toContainText(/1\.000/);
    await page
      .getByRole("link", { name: /[Ww]orking/ })
      .first()
      .click();
    const working = page.getByRole("main");
    await expect(working).toContainText("Aliquot of the dilution");
    await expect(
      working
        .getByRole("group", { name: /Aliquot of the dilution.*1\.000 ± / })
        .or(working.getByText(/1\.000 ± /))
        .first(),
    ).toBeVisible();
  },
);

test(
  "a first lesson by cylinder: read to 0.1 mL, two trials; a normality on a label is put into mol/L",
  long,
  async ({ page }) => {
    await openRun(page, "acid-by-cylinder", "Second form");
    const rules = {
      ...defaultHouseRules,
      agreement: { rule: "n-within", replicates: 2, withinMl: "0.10" },
      burette: { ...defaultHouseRules.burette, resolutionMl: "0.1", readingHalfWidthMl: "0.05" },
    };
    const sent = await page.request.post(`${new URL(page.url()).pathname}/changes`, {
      data: JSON.stringify({ intent: "rules", rules, reason: "a first lesson" }),
      headers: { "Content-Type": "application/json" },
    });
    expect(await sent.json()).toMatchObject({ status: "done" });
    await expect(page.getByText("one decimal").first()).toBeVisible();
    await page
      .getByRole("button", { name: /Concentration of the base.*0\.1000|^0\.1000$/ })
      .first()
      .click();
    const correction = page.getByRole("dialog");
    await correction.getByRole("textbox", { name: /Concentration of the base/ }).fill("0.10 N");
    await page.keyboard.press("Enter");
    await expect(correction).toContainText("0.10 N is 0.10 mol/L: one equivalent in a mole of NaOH");
    await correction.getByRole("textbox", { name: /Concentration of the base/ }).fill("0.1000");
    await page.keyboard.press("Enter");
    await expect(correction).toBeHidden();
    await page.getByRole("button", { name: "counts", exact: true }).click();
    // The method pipettes it: the steps follow what the run measures with, and it can be changed back.
    await page.getByText("How it is done").click();
    await expect(
      page.getByText(/^With a cylinder at eye level, measure 20\.0 mL of the acid into a flask/),
    ).toBeVisible();
    const cylinder = "Acid by cylinder, mL";
    await page.getByRole("textbox", { name: cylinder }).focus();
    await typeReadings(page, [[cylinder, "20.0"], ...titration("0.0", "18.4")]);
    await typeReadings(page, [[cylinder, "20.0"], ...titration("18.4", "36.9")]);
    // 0.1000 · 18.45 / 20.0 = 0.09225 mol/L. The cylinder's 0.25 mL are 1.25 % of 20 mL, triangular: 0.51 %, the same for both trials;
    // its reading, half of that, for each.
    await expect(page.getByTestId("result")).toContainText(/^0\.09[0-9]+\s*± 0\.001/);
    await expect(page.getByTestId("verdict")).toContainText("two within 0.10 mL");
  },
);

test("the change of the oxidation number of oxalate from two burettes, both volumes read as they come", async ({
  page,
}) => {
  await openRun(page, "oxidation-number-of-oxalate", "Two burettes");
  await page.getByRole("button", { name: "counts", exact: true }).click();
  const oxalate = (end: "initial" | "final") => `Oxalate delivered: ${end} reading, mL`;
  await page.getByRole("textbox", { name: oxalate("initial") }).focus();
  await typeReadings(page, [
    [oxalate("initial"), "0.00"],
    [oxalate("final"), "25.00"],
    ...titration("0.00", "24.90"),
  ]);
  // 0.0500 · 25.00 = 1.250 mmol of oxalate; 0.02000 · 24.90 · 5 = 2.490 mmol of electrons: 1.992 of each.
  await expect(ledgerRow(page, "1")).toContainText(/1\.992/);
});

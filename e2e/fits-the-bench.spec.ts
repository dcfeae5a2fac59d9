import type { Page } from "@playwright/test";
import { expect, ledgerRow, long, noFaults, test, titration, typeReadings } from "./app";

/*
 * Pieces of real work that need no method of their own: what is known already, what it is held against and what is expected are chosen
 * in the run. Keys are counted from "Start a run" to the first reading; characters that are typed into fields of text are not.
 */

const field = (page: Page, name: string | RegExp) => page.getByRole("textbox", { name });
const mostKeys = 12;

/** Presses keys one by one, and counts them. */
class Keys {
  count = 0;
  constructor(private readonly page: Page) {}
  async press(key: string) {
    this.count++;
    await this.page.keyboard.press(key);
  }
}

/** Puts a bottle on the shelf that was standardized elsewhere. */
async function bottle(page: Page, formula: string, name: string, molPerL: string, plusMinus: string) {
  await page.goto("/shelf/new?as=add");
  await page.getByRole("combobox", { name: "It is a", exact: true }).click();
  await page.getByRole("option", { name: /^solution$/ }).click();
  await field(page, "Formula").fill(formula);
  await field(page, "Name").fill(name);
  await field(page, "Concentration, mol/L").fill(molPerL);
  await field(page, "±, mol/L").fill(plusMinus);
  await field(page, "Amount, mL").fill("500");
  await field(page, "Made by").fill("stores");
  await page.getByRole("button", { name: "Put it on the shelf" }).click();
  await expect(page.getByTestId("concentration")).toContainText(molPerL);
}

/** Opens the dialog and chooses a method, by keyboard. */
async function choose(page: Page, keys: Keys, words: string) {
  await page.goto("/");
  await page.getByRole("button", { name: "Start a run" }).focus();
  await keys.press("Enter");
  await expect(page.getByRole("combobox", { name: "Method" })).toBeFocused();
  await page.keyboard.insertText(words);
  await expect(page.getByRole("option").first()).toBeVisible();
  await keys.press("Enter");
  await expect(page.getByRole("listbox")).toHaveCount(0);
  await keys.press("Tab");
  await expect(field(page, "Sample")).toBeFocused();
}

test("iron by permanganate from the shelf: nothing is standardized again", long, async ({ page }) => {
  await bottle(page, "KMnO4", "permanganate of Monday", "0.02012", "0.00004");
  const keys = new Keys(page);
  await choose(page, keys, "iron in a solution");
  await page.keyboard.insertText("IR-2");
  const known = page.getByRole("combobox", { name: "Standardize the permanganate" });
  await expect(known.locator("option:checked")).toContainText(
    "0.02012 ± 0.00004 mol/L, permanganate of Monday",
  );
  await keys.press("Enter");
  await expect(page.getByRole("heading", { level: 1, name: /^IR-2/ })).toBeVisible();

  await test.step("the chain shows the bottle, and the work begins at the iron", async () => {
    const chain = page.getByRole("list", { name: "Stages" });
    await expect(chain.getByRole("listitem").first()).toContainText(
      /0\.02012 ± 0\.0000[45] mol\/L.*from S-\d+/,
    );
    await expect(chain.locator("[aria-current=step]")).toContainText("Titrate the iron");
  });
  await page.getByRole("button", { name: /^It was 250\.0/ }).press("Enter");
  keys.count++;
  await expect(page.getByRole("status")).toContainText(
    "the end point is not known: titrate a rough one first",
  );
  const aliquot = field(page, "Aliquot of the iron solution, mL");
  await expect(aliquot).toBeFocused();
  await keys.press("Enter");
  expect(keys.count).toBeLessThanOrEqual(mostKeys);
  await typeReadings(page, titration("0.00", "20.00"));
  await typeReadings(page, [["Aliquot of the iron solution, mL", null], ...titration("20.00", "40.04")]);
  await typeReadings(page, [["Aliquot of the iron solution, mL", null], ...titration("0.00", "20.02")]);
  // N1V1 = N2V2: 5 × 0.02012 mol/L × 20.02 mL = 2.0140 mmol of iron in 25.00 mL, ten times that in the flask, times 55.845 g/mol:
  // 1.1247 g.
  await expect(page.getByTestId("result")).toContainText(/^1\.12[45]/);

  await test.step("done here after all, and known again: nothing that was stated or read is lost", async () => {
    await page.getByRole("link", { name: /Standardize the permanganate/ }).press("Enter");
    await expect(page.getByText("Known already: not done in this run.")).toBeVisible();
    await page.getByRole("button", { name: "Do it here" }).press("Enter");
    await expect(field(page, "Boat with solid, g")).toBeVisible();
    await page
      .getByRole("button", { name: /^Undo: "Standardize the permanganate": done in this run/ })
      .press("Enter");
    await expect(page.getByText("Known already: not done in this run.")).toBeVisible();
    await expect(page.getByTestId("result-standardize")).toContainText("0.02012");
  });
});

test(
  "an acid whose base is known otherwise, held against what it should be: percent error, and the next sample alike",
  long,
  async ({ page }) => {
    const keys = new Keys(page);
    await choose(page, keys, "phthalate, then");
    await page.keyboard.insertText("R-20");
    const known = page.getByRole("combobox", { name: "Standardize the base" });
    await expect(known).toBeVisible();
    await keys.press("Tab");
    await keys.press("Tab");
    await keys.press("Tab");
    await expect(known).toBeFocused();
    await known.selectOption({ label: "known otherwise: state it" });
    keys.count++;
    await keys.press("Tab");
    await page.keyboard.insertText("no number");
    await keys.press("Enter");
    await expect(page.getByRole("dialog")).toContainText(`"n" is not a digit`);
    await field(page, /^Concentration of the base/).fill("0.1000");
    await field(page, "±").fill("0.0001");
    await field(page, "Where it is from").fill("certificate of the stores");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("heading", { level: 1, name: /^R-20/ })).toBeVisible();
    await expect(page.getByRole("list", { name: "Stages" }).getByRole("listitem").first()).toContainText(
      "certificate of the stores",
    );

    const dialog = page.getByRole("dialog", { name: /held against/ });
    await page.getByRole("button", { name: "More about this run" }).press("Enter");
    await page.getByRole("menuitem", { name: "Held against …" }).press("Enter");
    await expect(field(page, "Known value, mol/L")).toBeFocused();
    await dialog.getByRole("button", { name: "Use in this run" }).press("Enter");
    await expect(dialog).toContainText("Type the value");
    // What cannot be is told before anything is changed.
    await field(page, "Known value, mol/L").fill("x");
    await page.keyboard.press("Enter");
    await expect(dialog).toContainText(`"x" is not a digit`);
    await expect(
      page.getByRole("button", { name: /^Undo: "Titrate the acid": held/, includeHidden: true }),
    ).toHaveCount(0);
    await field(page, "Known value, mol/L").fill("0.0790");
    await dialog.getByRole("textbox", { name: "±" }).fill("0.0005");
    await field(page, "Allowed").fill("-1");
    await page.keyboard.press("Enter");
    await expect(dialog).toContainText("Type a number above zero, or nothing");
    await dialog.getByRole("button", { name: "1 %", exact: true }).click();
    await dialog.getByRole("button", { name: "Use in this run" }).press("Enter");
    await expect(dialog).toBeHidden();
    await expect(field(page, "Aliquot of acid, mL")).toBeFocused();
    await page.getByRole("button", { name: "counts", exact: true }).click();
    await field(page, "Aliquot of acid, mL").focus();
    await typeReadings(page, [["Aliquot of acid, mL", null], ...titration("0.00", "20.00")]);
    await typeReadings(page, [["Aliquot of acid, mL", null], ...titration("20.00", "40.02")]);
    await typeReadings(page, [["Aliquot of acid, mL", null], ...titration("0.00", "20.01")]);
    // 0.1000 × 20.01 / 25.00 = 0.08004 mol/L; of 0.0790 it is 1.3 % too much. Trial 1, 0.08000, is 1.27 % off.
    await expect(ledgerRow(page, "1")).toContainText("1.27");
    await expect(
      page
        .getByText(
          /The result is 1\.3 % above the known value, 0\.07900 mol\/L: outside the 1 % allowed\. Recovery: 101\.3 %\./,
        )
        .first(),
    ).toBeVisible();

    await page.getByRole("button", { name: "More about this run" }).press("Enter");
    await page.getByRole("menuitem", { name: "Held against …" }).press("Enter");
    // Another value, and the ± that stands there: a new value does not take it away.
    await field(page, "Known value, mol/L").fill("0.0800");
    await dialog.getByRole("button", { name: "Use in this run" }).press("Enter");
    await expect(dialog).toBeHidden();
    await expect(page.getByRole("button", { name: /^Known value 0\.0800/ })).toBeVisible();
    await expect(page.getByRole("button", { name: /^Half width of known value 0\.0005/ })).toBeVisible();
    await page.getByRole("button", { name: "More about this run" }).press("Enter");
    await page.getByRole("menuitem", { name: "Same again: next sample …" }).press("Enter");
    await field(page, "Sample").fill("R-21");
    await expect(known.locator("option:checked")).toHaveText("known otherwise: state it");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("heading", { level: 1, name: /^R-21/ })).toBeVisible();
    await expect(page.getByRole("list", { name: "Stages" }).getByRole("listitem").first()).toContainText(
      /0\.1000.*certificate of the stores/,
    );
    await expect(page.getByRole("button", { name: /^Known value 0\.0800 mol\/L/ })).toBeVisible();
  },
);

test("what a person expects finds the end before any trial does, and a trial says more", async ({ page }) => {
  const keys = new Keys(page);
  await choose(page, keys, "strong acid by a known base");
  await page.keyboard.insertText("R-30");
  await keys.press("Enter");
  await expect(page.getByRole("heading", { level: 1, name: /^R-30/ })).toBeVisible();
  await typeReadings(page, [
    ["Aliquot of acid, mL", null],
    ["Initial reading, mL", "0.00"],
  ]);
  const status = page.getByRole("status").first();
  await expect(status).toContainText("End point unknown. Run a quick rough titration first.");
  await page.getByRole("button", { name: "Expect …" }).press("Enter");
  const dialog = page.getByRole("dialog", { name: /what do you expect/ });
  await expect(dialog.getByRole("textbox")).toBeFocused();
  await page.keyboard.insertText("30");
  await dialog.getByRole("combobox", { name: "in" }).selectOption({ label: "mL of titrant" });
  await dialog.getByRole("button", { name: "Expect it" }).press("Enter");
  await expect(dialog).toBeHidden();
  await expect(field(page, "Final reading, mL")).toBeFocused();
  // 30 less a tenth.
  await expect(status).toContainText(
    "run freely to 27.0, then drop by drop. Expect the end point near 30.0 mL, as you expect",
  );
  await page.keyboard.insertText("24.00");
  await page.keyboard.press("Enter");
  await typeReadings(page, [["Aliquot of acid, mL", null]]);
  await expect(status).toContainText(
    "run freely to 46.0, then drop by drop. Expect the end point near 48.0 mL, by the rough trial.",
  );
});

test("twelve runs by one paste and one button: their results stand in one table, with duplicates, a spike and a check", async ({
  page,
}) => {
  const keys = new Keys(page);
  await choose(page, keys, "strong acid by a known base");
  await page.getByRole("button", { name: "Several …" }).press("Enter");
  const list = field(page, "Samples, one line each");
  await expect(list).toBeFocused();
  await page.keyboard.insertText("R-1, bench 1\nR-1, bench 1");
  const start = page.getByRole("button", { name: "Start", exact: true });
  await start.press("Enter");
  await expect(page.getByRole("dialog")).toContainText(
    "Line 2: R-1 is in line 1 already: write duplicate behind it if it is one.",
  );
  const samples = Array.from({ length: 9 }, (_, i) => `R-${i + 1}\tbench ${i + 1}`);
  await list.fill(
    [...samples, "R-1\tbench 1\tduplicate", "R-2\tbench 2\tspike 0.050", "QC-1\tAB\tcheck 0.1000"].join("\n"),
  );
  const began = Date.now();
  await start.press("Enter");
  await expect(page.getByRole("heading", { level: 1, name: "Table of results" })).toBeVisible();
  test.info().annotations.push({ type: "begun in", description: `${Date.now() - began} ms` });
  const rows = page.getByRole("region", { name: "Table of results" }).getByRole("row");
  await expect(rows).toHaveCount(13);
  await expect(rows.nth(10)).toContainText("duplicate");
  await expect(page.getByText("0 of 12 with a result")).toBeVisible();

  await test.step("the check's value is stated in its run already; its result comes into the table", async () => {
    await rows.nth(12).getByRole("link", { name: "QC-1" }).press("Enter");
    await expect(page.getByRole("button", { name: /^Known value 0\.1000/ })).toBeVisible();
    await page.getByRole("button", { name: "counts", exact: true }).click();
    await field(page, "Aliquot of acid, mL").focus();
    for (const [initial, final] of [
      ["0.00", "25.25"],
      ["0.00", "25.25"],
      ["0.00", "25.25"],
    ] as const)
      await typeReadings(page, [["Aliquot of acid, mL", null], ...titration(initial, final)]);
    // 0.1000 · 25.25 / 25.00 = 0.1010, 1 % above.
    await expect(page.getByTestId("result")).toContainText(/^0\.1010/);
    await page.getByRole("button", { name: "More about this run" }).press("Enter");
    await page.getByRole("menuitem", { name: "Table of results" }).press("Enter");
    await expect(rows.nth(12)).toContainText(/0\.10100 ± 0\.000\d+.*1\.00/);
    await page.getByRole("combobox", { name: "Unit" }).selectOption("mmol/L");
    await expect(rows.nth(12)).toContainText(/101\.0\d? ± 0\.\d/);
  });
  await noFaults(page, "a run of many trials");
  const csv = await page.request.get(`${page.url().split("?")[0] ?? ""}/export`);
  expect(await csv.text()).toMatch(/^sample,bench,kind,.*\r\nR-1,bench 1,sample,/);
});

/** Opens one of the choices of a run, by keyboard. */
async function fromMenu(page: Page, item: string) {
  await page.getByRole("button", { name: "More about this run" }).press("Enter");
  await page.getByRole("menuitem", { name: item }).press("Enter");
}

test(
  "an acid by hydrogen carbonate, with its percent error beside each trial and in the working",
  long,
  async ({ page }) => {
    const keys = new Keys(page);
    await choose(page, keys, "hydrogen carbonate");
    await page.keyboard.insertText("SA-1");
    await keys.press("Enter");
    await expect(page.getByRole("heading", { level: 1, name: /^SA-1/ })).toBeVisible();
    await fromMenu(page, "Held against …");
    await expect(field(page, "Known value, mol/L")).toBeFocused();
    await page.keyboard.insertText("0.2500");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("dialog")).toHaveCount(0);
    await expect(field(page, "Boat with solid, g")).toBeFocused();
    for (const final of ["24.00", "24.02", "23.98"])
      await typeReadings(page, [
        ["Boat with solid, g", "2.0000"],
        ["Boat after transfer, g", "1.0000"],
        ...titration("0.00", final),
      ]);
    // 1.0000 g · 0.995 / 84.007 g/mol / 2 / 24.00 mL = 0.24676 mol/L: 1.30 % below 0.2500; 1.21 and 1.38 beside it.
    await expect(ledgerRow(page, "1")).toContainText("−1.30");
    await expect(
      page
        .getByText(/The result is 1\.3 % below the known value, 0\.2500 mol\/L: within the 5 % allowed\./)
        .first(),
    ).toBeVisible();
    await page.goto(`${new URL(page.url()).pathname}/working?stage=determine`);
    await expect(page.getByText(/^Error against the known value; recovery 98\.7 %/)).toBeVisible();
  },
);

test(
  "oxalate by a tared balance and permanganate from the shelf, and water from a burette whose end is scaled",
  long,
  async ({ page }) => {
    await test.step("oxalate, tared", async () => {
      const keys = new Keys(page);
      await choose(page, keys, "oxalate in a solid");
      await page.keyboard.insertText("OX-1");
      await keys.press("Enter");
      await expect(page.getByRole("heading", { level: 1, name: /^OX-1/ })).toBeVisible();
      await fromMenu(page, "Measured with …");
      const dialog = page.getByRole("dialog", { name: /measured with/ });
      await dialog.getByRole("combobox", { name: "Mass of the solid", exact: true }).press("Enter");
      await page.getByRole("option", { name: "tared balance" }).press("Enter");
      await dialog.getByRole("button", { name: "Use in this run" }).press("Enter");
      await expect(dialog).toBeHidden();
      await typeReadings(page, [["Mass of the solid, g", "0.2000"], ...titration("0.00", "20.00")]);
      // 5/2 · c · 20.00 mL · 88.019 g/mol / 0.2000 g, with 0.02012 mol/L of the bottle or 0.02 presumed: 44.0 to 44.3 %.
      await expect(ledgerRow(page, "1")).toContainText(/44\.[0-3]/);
    });
    await test.step("calcium by known EDTA: the next end by the water that was taken", async () => {
      const keys = new Keys(page);
      await choose(page, keys, "hardness");
      await page.keyboard.insertText("W-1");
      const edta = page.getByRole("combobox", { name: "Standardize the EDTA" });
      await edta.selectOption({ label: "known otherwise: state it" });
      await field(page, /^Concentration of the EDTA/).fill("0.0100");
      await page.getByRole("textbox", { name: "Title" }).focus();
      await page.keyboard.press("Enter");
      await expect(page.getByRole("heading", { level: 1, name: /^W-1/ })).toBeVisible();
      const chain = page.getByRole("list", { name: "Stages" });
      // What was done for the EDTA alone is left out.
      await expect(chain.getByRole("listitem")).toHaveCount(4);
      await expect(chain.locator("[aria-current=step]")).toContainText("Total hardness");
      const [waterInitial, waterFinal] = ["Water: initial reading, mL", "Water: final reading, mL"] as const;
      await page.getByRole("button", { name: "counts", exact: true }).click();
      await field(page, waterInitial).focus();
      await typeReadings(page, [
        [waterInitial, "0.00"],
        [waterFinal, "25.00"],
        ...titration("0.00", "22.50"),
      ]);
      await typeReadings(page, [
        [waterInitial, null],
        [waterFinal, "35.00"],
        ["Initial reading, mL", null],
      ]);
      // 10.00 mL of it take 9.00 mL: from 22.50 to 31.50. The result: 0.0100 · 22.50 / 25.00 = 9.00 mmol/L.
      await expect(page.getByRole("status").first()).toContainText("near 31.50 mL");
      await expect(ledgerRow(page, "1")).toContainText(/9\.00/);
    });
  },
);

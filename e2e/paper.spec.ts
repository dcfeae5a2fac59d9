import { expect, ledgerRow, noGraveFaults, startRun, test } from "./app";

/** The pages that a screen is printed on. */
const pagesOf = (pdf: Buffer) => pdf.toString("latin1").match(/\/Type\s*\/Page\b/g)?.length ?? 0;

test("a data sheet is printed for each bench, and entered later with the times that were written", async ({
  page,
}) => {
  await startRun(page, "On paper");
  const run = new URL(page.url()).pathname;
  await page.getByRole("button", { name: "More about this run" }).click();
  await page.getByRole("menuitem", { name: "Data sheet to print" }).click();
  const sheet = page.getByRole("region", { name: /^Data sheet of/ });
  await expect(sheet).toHaveCount(1);
  await expect(sheet.getByRole("columnheader", { name: "Boat with solid, g" })).toBeVisible();
  await page.getByRole("textbox", { name: "Benches" }).fill("3");
  await expect(sheet).toHaveCount(3);
  expect(pagesOf(await page.pdf({ format: "A4" }))).toBe(3);
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("button", { name: "Print" })).toBeHidden();
  await page.emulateMedia({ media: null });

  await page.getByRole("link", { name: "Enter from paper" }).click();
  const stage = page.getByRole("region", { name: /^Standardize/ });
  const cell = (what: string) => stage.getByRole("textbox", { name: `1, ${what}`, exact: true });
  await cell("Boat with solid").fill("2.6106");
  // Enter goes on to the next place of the sheet.
  for (const text of ["2.1000", "0.00", "52.00", "0:05"]) {
    await page.keyboard.press("Enter");
    await page.keyboard.type(text);
  }
  await expect(cell("time")).toHaveValue("0:05");
  await expect(stage.getByText(/50/).first()).toBeVisible();
  await stage.getByRole("button", { name: /^Enter/ }).click();
  await expect(stage.getByRole("alert")).toHaveText(
    "Fix the marked fields first. Nothing has been entered yet.",
  );
  // What was typed outlives the page.
  await page.reload();
  await expect(cell("Final reading")).toHaveValue("52.00");
  await cell("Final reading").fill("25.00");
  await noGraveFaults(page, "readings from paper");
  await stage.getByRole("button", { name: "Enter four readings" }).click();
  await expect(stage.getByRole("status")).toHaveText("Four readings entered, marked as from paper.");
  // The next row is the next trial.
  await expect(cell("Boat with solid")).toHaveCount(0);
  await expect(stage.getByRole("textbox", { name: "2, Boat with solid" })).toHaveValue("");

  await page.goto(run);
  await expect(ledgerRow(page, "1")).toContainText("0.10001");
  await expect(ledgerRow(page, "1")).toContainText("entered from paper");
  await page.goto(`${run}/trail`);
  const line = page.getByRole("row", { name: /4 readings, from paper/ });
  await expect(line).toContainText("2.6106 g, 2.1000 g, 0.00 mL, 25.00 mL");
  await expect(line).toContainText("00:05:00");
});

import type { Page } from "@playwright/test";
import {
  atRest,
  confirmVolumes,
  expect,
  ledgerRow,
  openRun,
  startRun,
  test,
  titration,
  typeReadings,
  weighing,
} from "./app";

/* The entry of readings by keyboard: how few keys it takes, where the cursor stands after each action, what a field does. */

const focused = (page: Page) => page.locator(":focus");
/** The name of what the cursor stands in; nothing where it stands nowhere. */
const cursorName = (page: Page) =>
  page.evaluate(() => {
    const at = document.activeElement;
    if (at === document.body) return "";
    const label = at?.id ? document.querySelector(`label[for="${CSS.escape(at.id)}"]`)?.textContent : null;
    return label ?? at?.getAttribute("aria-label") ?? at?.textContent ?? "";
  });
const cursorIn = (page: Page, name: string | RegExp) => expect.poll(() => cursorName(page)).toMatch(name);

/** Types texts one after the other, each with Enter, wherever the cursor stands; returns how many keys that took. */
async function keysFor(page: Page, texts: readonly (string | null)[]): Promise<number> {
  let keys = 0;
  for (const text of texts) {
    await expect(focused(page)).toHaveAttribute("data-reading", "");
    const before = await cursorName(page);
    if (text !== null) await page.keyboard.type(text);
    await page.keyboard.press("Enter");
    keys += (text?.length ?? 0) + 1;
    await atRest(page);
    expect(await cursorName(page)).not.toBe(text === texts.at(-1) ? "" : before);
  }
  return keys;
}

test.describe("a trial takes its digits, an Enter for each reading, and at most one key more", () => {
  const families = [
    { id: "base-by-phthalate-then-acid", stage: "standardize", trial: ["2.6106", "2.1000", "0.00", "24.99"] },
    { id: "permanganate-by-iron-solution", stage: "standardize", trial: ["25.00", "0.00", "24.60"] },
    { id: "thiosulfate-by-iodate", stage: "standardize", trial: ["25.00", "0.00", "24.80"] },
    { id: "edta-by-zinc", stage: "standardize", trial: ["25.00", "0.00", "25.10"] },
  ];
  for (const { id, stage, trial } of families) {
    test(id, async ({ page }) => {
      await openRun(page, id, `Keys of ${id}`, { stage });
      await confirmVolumes(page);
      const least = trial.reduce((sum, text) => sum + text.length + 1, 0);
      const used = await keysFor(page, trial);
      expect(used).toBeLessThanOrEqual(least + 1);
      // The trial is written, and the cursor waits in the first field of the next one.
      await expect(page.getByRole("region", { name: "Ledger" })).toContainText(trial.at(-1)!);
      await expect(focused(page)).toHaveAttribute("data-reading", "");
    });
  }

  test("phosphate-as-molybdenum-blue: the blank, then each standard by its absorbance alone", async ({
    page,
  }) => {
    await openRun(page, "phosphate-as-molybdenum-blue", "Keys of an assay");
    // A wavelength that is taken leaves the cursor on the way on.
    await page.getByRole("button", { name: "Take the usual 880 nm" }).press("Enter");
    await cursorIn(page, /^Go on/);
    await page.keyboard.press("Enter");
    await expect(page.getByTestId("stage-coming")).toHaveCount(0);
    await confirmVolumes(page);
    await cursorIn(page, "Absorbance");
    for (const shown of ["0.002", "0.141", "0.282"]) {
      await page.keyboard.type(shown);
      await page.keyboard.press("Enter");
      await expect(page.getByRole("group", { name: "Standards and their readings" })).toContainText(shown);
      await cursorIn(page, "Absorbance");
    }
  });
});

test("a value that is offered is replaced by what is typed, in the row and in a dialog", async ({ page }) => {
  await startRun(page, "Offered and typed");
  await typeReadings(page, [...weighing("2.6106", "2.1000"), ...titration("0.00", "25.00")]);
  await page.keyboard.type("2.5901");
  await page.keyboard.press("Enter");
  await page.keyboard.type("2.1000");
  await page.keyboard.press("Enter");
  const initial = page.getByRole("textbox", { name: "Initial reading, mL" });
  await expect(initial).toBeFocused();
  await expect(initial).toHaveValue("25.00");
  await page.keyboard.type("1.20");
  await expect(initial).toHaveValue("1.20");
  // Arrived at by the mouse it is no different.
  await initial.fill("");
  await page.getByRole("textbox", { name: "Final reading, mL" }).click();
  await page.keyboard.type("26.20");
  await initial.click();
  await page.keyboard.type("1.20");
  await page.keyboard.press("Enter");
  await page.getByRole("textbox", { name: "Final reading, mL" }).press("Enter");
  await expect(ledgerRow(page, "2")).toContainText("26.20");
});

test("after each action the cursor stands in the next field; = writes what was meant in a dialog, and the question goes", async ({
  page,
}) => {
  await startRun(page, "Where the cursor stands");
  await typeReadings(page, [...weighing("2.6106", "2.1000"), ...titration("0.00", "25.00")]);
  await cursorIn(page, "Boat with solid, g");
  const kept = page.getByRole("button", { name: "Kept", exact: true });
  await kept.press("Enter");
  await expect(kept).toHaveCount(0);
  await cursorIn(page, "Boat with solid, g");

  await page.keyboard.type("2.5901");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Correct Boat with solid" }).press("Enter");
  const dialog = page.getByRole("dialog");
  const again = dialog.getByRole("textbox", { name: "Boat with solid, g" });
  await again.fill("2.59");
  await dialog.getByRole("textbox", { name: "Reason" }).fill("misread");
  await dialog.getByRole("textbox", { name: "Reason" }).press("Enter");
  await expect(dialog).toContainText("fourth decimal");
  await again.focus();
  const proposed = (await dialog.getByRole("button", { name: /^Write / }).innerText()).replace("Write ", "");
  await page.keyboard.press("=");
  await expect(again).toHaveValue(proposed);
  await expect(dialog).not.toContainText("fourth decimal");
  await page.keyboard.press("Enter");
  await expect(dialog).toBeHidden();
  await cursorIn(page, "Boat after transfer, g");

  // Undone and made again, with the cursor where the work goes on.
  await page.getByRole("button", { name: /^Undo/ }).click();
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByRole("textbox", { name: "Boat with solid, g" })).toBeVisible();
  await cursorIn(page, "Boat with solid, g");
  await page.getByRole("button", { name: /^Redo/ }).click();
  await cursorIn(page, "Boat after transfer, g");
  await page.getByRole("button", { name: /^Redo/ }).click();
  await expect(page.getByRole("button", { name: /^Redo/ })).toHaveCount(0);
  await expect(page.getByRole("region", { name: "Trial in hand" })).toContainText(proposed);
  // Another change ends it: what was undone before stays so.
  await page.getByRole("button", { name: /^Undo/ }).click();
  // The cursor moves once the undo is answered; a key pressed before that would go where it moves to.
  await expect(page.getByRole("button", { name: "Undo: boat with solid 2.5901" })).toBeVisible();
  await cursorIn(page, "Boat after transfer, g");
  await page.getByRole("button", { name: "rough", exact: true }).press("Enter");
  await expect(page.getByRole("button", { name: /^Redo/ })).toHaveCount(0);

  // The last reading of a preparation leaves the cursor on the way on.
  await openRun(page, "thiosulfate-by-dichromate", "A preparation by keyboard");
  for (const [label, text] of [
    ["Boat with solid", "3.2258"],
    ["Boat after transfer", "2.0000"],
  ]) {
    await cursorIn(page, `Record: ${label}`);
    await page.keyboard.press("Enter");
    await page.keyboard.type(text!);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("dialog")).toBeHidden();
  }
  await cursorIn(page, "It was 250.0 mL");
  await page.keyboard.press("Enter");
  await cursorIn(page, /^Go on: Standardize/);
});

test("several flasks stand: the one that is due comes next, its timer ends with it, and nobody concludes without them", async ({
  page,
}) => {
  await openRun(page, "sulfur-dioxide", "Flasks that stand", { stage: "determine" });
  await confirmVolumes(page);
  const dock = page.getByRole("region", { name: "Timers" });
  const flasks = page.getByRole("group", { name: "Flasks" });
  for (const flask of [1, 2, 3]) {
    if (flask > 1) await flasks.getByRole("button", { name: /Next flask/ }).click();
    await typeReadings(page, [["Drink taken, mL", "25.00"]]);
    await page
      .getByRole("button", { name: /^Start the time/ })
      .first()
      .press("Enter");
    await expect(dock.getByRole("button", { name: /^Done: (?!.*the color)/ })).toHaveCount(flask);
    // Time runs, and the cursor stands in the burette's field.
    await cursorIn(page, "Initial reading, mL");
  }
  await flasks.getByRole("button", { name: /^Trial 1/ }).click();
  await typeReadings(page, titration("0.00", "5.10"));
  await expect(dock.getByRole("button", { name: /^Done: (?!.*the color)/ })).toHaveCount(2);
  await expect(page.getByRole("heading", { level: 2, name: /^Trial 2/ })).toBeVisible();
  await typeReadings(page, titration("0.00", "5.12"));
  await expect(page.getByRole("heading", { level: 2, name: /^Trial 3/ })).toBeVisible();
  await page.goto(`${new URL(page.url()).pathname}?stage=conclude`);
  await expect(page.getByText("One flask is still waiting to be titrated.")).toBeVisible();
});

test("a burette refilled midway: each of its four readings is checked, undone and corrected like any other", async ({
  page,
}) => {
  await startRun(page, "Refilled midway");
  await typeReadings(page, weighing("3.3212", "2.1000"));
  await typeReadings(page, titration("0.00", null as unknown as string).slice(0, 1));
  await page.getByRole("button", { name: "Refill midway" }).press("Enter");
  await cursorIn(page, "Before the refill, mL");
  await typeReadings(page, [["Before the refill, mL", "48.00"]]);
  await cursorIn(page, "After the refill, mL");
  await page.keyboard.type("48.10");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("48.10 is not below 48.00. Was it refilled?");
  await page.keyboard.press("ControlOrMeta+a");
  await typeReadings(page, [["After the refill, mL", "1.00"]]);
  await typeReadings(page, [["Final reading, mL", "12.80"]]);
  // 48.00 - 0.00 + 12.80 - 1.00 = 59.80 mL; 1.2212 / 204.22 / 0.05980 = 0.1000 mol/L
  const row = ledgerRow(page, "1");
  await expect(row).toContainText("59.80");
  await expect(row).toContainText("0.1000");
  await expect(row).toContainText("refilled at 48.00, went on from 1.00");
  await page.getByRole("link", { name: /working of trial 1/ }).click();
  await expect(page.getByText("Titer of trial 1")).toBeVisible();
  await expect(page.locator("main")).toContainText(/48\.00.*0\.00.*12\.80.*1\.00/);
});

test("an archived run is asked about, listed, and found again; the same again begins the next sample", async ({
  page,
}) => {
  await startRun(page, "Put away for good");
  await typeReadings(page, weighing("2.6106", "2.1000"));
  await page.getByRole("button", { name: "More about this run" }).click();
  await page.getByRole("menuitem", { name: "Archive …" }).click();
  await expect(page.getByRole("dialog")).toContainText("It leaves the bench and keeps all its readings");
  await page.getByRole("button", { name: "Archive", exact: true }).click();
  await expect(page.getByRole("heading", { level: 1, name: "On the bench" })).toBeVisible();
  await page.getByRole("checkbox", { name: "archived runs" }).check();
  await page.getByRole("link", { name: "Put away for good", exact: true }).click();
  await page.getByRole("button", { name: "More about this run" }).click();
  await page.getByRole("menuitem", { name: "Same again: next sample …" }).click();
  await expect(page.getByRole("textbox", { name: "Sample" })).toBeFocused();
  await expect(page.getByRole("textbox", { name: "Bench or person" })).toHaveValue("bench 4");
  await page.keyboard.type("R-10");
  await expect(page.getByRole("textbox", { name: "Title" })).toHaveValue(
    /^R-10, base by potassium hydrogen phthalate/,
  );
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { level: 1, name: /^R-10, base/ })).toBeVisible();
});

import { devices } from "@playwright/test";
import {
  chooseMethod,
  doItHere,
  expect,
  follow,
  ledgerRow,
  long,
  saveRules,
  startRun,
  test,
  titration,
  typeReadings,
  weighing,
} from "./app";

test("two people at one run: the later correction is told of the earlier one, and loses nothing", async ({
  page,
  context,
}) => {
  await startRun(page, "Shared bench");
  await typeReadings(page, [...weighing("2.6106", "2.1000"), ...titration("0.00", "25.00")]);
  await expect(ledgerRow(page, "1")).toContainText("0.10001");
  const other = follow(await context.newPage());
  await other.goto(page.url());

  const open = async (who: typeof page) => {
    await ledgerRow(who, "1").getByRole("button", { name: "Final reading 25.00, correct" }).click();
    return who.getByRole("dialog");
  };
  const correct = async (who: typeof page, text: string) => {
    const dialog = who.getByRole("dialog");
    await dialog.getByRole("textbox", { name: "Final reading, mL" }).fill(text);
    await dialog.getByRole("button", { name: "misread" }).click();
    await dialog.getByRole("button", { name: "Correct" }).click();
    return dialog;
  };
  // Both have it open when the first of them corrects it.
  await open(other);
  await open(page);
  await expect(await correct(page, "25.10")).toBeHidden();
  const refused = await correct(other, "25.20");
  await expect(refused).toContainText("This was read as 25.10 meanwhile");
  await expect(refused.getByRole("textbox", { name: "Final reading, mL" })).toHaveValue("25.20");
  await other.reload();
  await expect(ledgerRow(other, "1").locator("s")).toHaveText("25.00");
  await expect(ledgerRow(other, "1")).toContainText("25.10");
});

test("on a phone, by touch: one field after the other, and the way on within reach", async ({
  browser,
  app,
}) => {
  const context = await browser.newContext({
    ...devices["Pixel 7"],
    baseURL: app.url,
    viewport: { width: 390, height: 844 },
  });
  const page = follow(await context.newPage());
  await page.goto("/");
  await page.getByRole("button", { name: "Start a run" }).tap();
  await chooseMethod(page);
  await page.getByRole("textbox", { name: "Title" }).fill("By touch");
  await doItHere(page, "Standardize the base");
  await page.getByRole("button", { name: "Start", exact: true }).tap();
  const boat = page.getByRole("textbox", { name: "Boat with solid, g" });
  // No keypad springs up unasked; it is the one for numbers once asked.
  await expect(boat).toBeVisible();
  await expect(boat).not.toBeFocused();
  await expect(boat).toHaveAttribute("inputmode", "decimal");
  for (const [label, text] of [...weighing("2.6106", "2.1000"), ...titration("0.00", "25.00")]) {
    await page.getByRole("textbox", { name: label }).tap();
    await page.keyboard.type(text ?? "");
    await page.getByRole("button", { name: /^Record/ }).tap();
  }
  await expect(ledgerRow(page, "1")).toContainText("0.10001");
  await expect(page.getByTestId("verdict")).toContainText("Only trial 1 so far");
  const record = page.getByRole("button", { name: /^Record/ });
  await expect(record).toBeVisible();
  await expect.poll(async () => (await record.boundingBox())?.height ?? 0).toBeGreaterThanOrEqual(40);
  await context.close();
});

test("house rules take hold in runs begun from then on", long, async ({ page }) => {
  const save = async (rule: string, text: string) => {
    await page.goto("/house-rules");
    await page.getByRole("textbox", { name: rule }).fill(text);
    await saveRules(page);
    await expect(page.getByText("Saved. Runs begun from now on follow them.")).toBeVisible();
  };
  await startRun(page, "Three of them");
  const before = page.url();
  await save("Trials that must agree", "2");
  try {
    await startRun(page, "Two will do");
    await typeReadings(page, [...weighing("2.6106", "2.1000"), ...titration("0.00", "25.00")]);
    await typeReadings(page, weighing("2.5901", "2.1000"));
    await page.getByRole("button", { name: "Refilled" }).click();
    await typeReadings(page, titration("0.10", "24.11"));
    await expect(page.getByTestId("verdict")).toContainText("House rule: two within 0.10 mL of each other");
    await expect(page.getByRole("link", { name: "Go on: Titrate the acid" })).toBeFocused();
    await page.goto(before);
    await expect(page.getByTestId("verdict")).toContainText("House rule: three within 0.10 mL of each other");
  } finally {
    await save("Trials that must agree", "3");
  }
});

test("another school's rule: its own fields, its own verdict, its own advice", long, async ({ page }) => {
  const choose = async (label: string, option: string) => {
    await page.getByRole("combobox", { name: label, exact: true }).click();
    await page.getByRole("option", { name: option, exact: true }).click();
  };
  const save = async () => {
    await saveRules(page);
    await expect(page.getByText("Saved. Runs begun from now on follow them.")).toBeVisible();
  };
  await page.goto("/house-rules");
  await choose("Concordance rule", "two within a window, else a third");
  await expect(page.getByRole("textbox", { name: "Trials that must agree" })).toHaveCount(0);
  await page.getByRole("textbox", { name: "Within, mL" }).fill("");
  await saveRules(page);
  await expect(page.getByText("Type a number")).toBeVisible();
  await page.getByRole("textbox", { name: "Within, mL" }).fill("0.20");
  await choose("Rounding", "by significant figures");
  await save();
  try {
    await page.reload();
    await expect(page.getByRole("combobox", { name: "Concordance rule" })).toHaveText(/two within a window/);
    await startRun(page, "Two, else a third");
    await typeReadings(page, [...weighing("2.6106", "2.1000"), ...titration("0.00", "25.00")]);
    await typeReadings(page, [...weighing("2.6107", "2.1001"), ...titration("25.00", "50.00")].slice(0, 2));
    await page.getByRole("button", { name: "Refilled" }).click();
    await typeReadings(page, titration("0.10", "25.35"));
    await expect(page.getByTestId("verdict")).toContainText(
      "Trials 1 and 2 disagree: they are 0.25 mL apart. House rule: two within 0.20 mL, else a third.",
    );
    await typeReadings(page, weighing("2.6108", "2.1002"));
    await page.getByRole("button", { name: "Refilled" }).click();
    await typeReadings(page, titration("0.00", "25.10"));
    await expect(page.getByTestId("verdict")).toContainText("Trials 1 and 3 lie within 0.10 mL");
    await expect(page.getByTestId("verdict")).toContainText("Trial 2 is left out");
    // 0.5106 g and 25.00 mL have four figures each: so has the result.
    await expect(page.getByTestId("result")).toContainText("0.0998");
  } finally {
    await page.goto("/house-rules");
    await choose("Concordance rule", "n titers within a window");
    await page.getByRole("textbox", { name: "Trials that must agree" }).fill("3");
    await page.getByRole("textbox", { name: "Within, mL" }).fill("0.10");
    await choose("Rounding", "to the uncertainty");
    await save();
  }
});

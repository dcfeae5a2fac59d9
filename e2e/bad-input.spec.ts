import {
  chooseMethod,
  expect,
  ledgerRow,
  saveRules,
  startRun,
  test,
  titration,
  typeReadings,
  weighing,
} from "./app";

test("each bad reading gets its message beside the field, and nothing typed is lost", async ({ page }) => {
  await startRun(page, "Bad input");
  const field = (label: string) => page.getByRole("textbox", { name: label });
  const alert = page.getByRole("alert");
  const refuses = async (label: string, text: string, message: RegExp) => {
    await field(label).fill(text);
    await field(label).press("Enter");
    await expect(alert).toContainText(message);
    await expect(field(label)).toHaveValue(text);
    await expect(field(label)).toHaveAttribute("aria-invalid", "true");
    await expect(field(label)).toBeFocused();
  };

  const before = "Boat with solid, g";
  await refuses(before, "2.61", /read to the fourth decimal and decimals are missing: 2\.6100\?/);
  await refuses(before, "heavy", /"h" is not a digit/);
  await refuses(before, "2..6106", /two decimal points/);
  await refuses(before, "-2.6106", /below zero/);
  await field(before).fill("2,6106");
  await field(before).press("Enter");
  await expect(page.getByText("✓ saved").first()).toBeVisible();
  const after = "Boat after transfer, g";
  await refuses(after, "2.7000", /weighs more after the transfer \(2\.7000 g\) than before \(2\.6106 g\)/);
  await refuses(after, "2.6106", /nothing was transferred/);
  // Outside the method's window: a caution, not a refusal.
  await field(after).fill("2.4106");
  await field(after).press("Enter");
  await expect(page.getByText("0.2000 g is below the 0.4 to 0.8 g that this method asks for")).toBeVisible();

  const initial = "Initial reading, mL";
  await refuses(initial, "50.01", /beyond the last mark, 50 mL/);
  await refuses(initial, "10.5", /read to the hundredth and a decimal is missing: 10\.50\?/);
  await page.getByRole("button", { name: "Write 10.50" }).click();
  await expect(field(initial)).toHaveValue("10.50");
  await field(initial).press("Enter");
  const final = "Final reading, mL";
  await refuses(final, "10.50", /final reading 10\.50 is not above the initial 10\.50/);
  await refuses(final, "9.90", /final reading 9\.90 is not above the initial 10\.50/);
  await refuses(final, "20.255", /1 too many/);

  // What was refused is still there after the tab was closed.
  await page.reload();
  await expect(field(final)).toHaveValue("20.255");
  await expect(page.getByText("10.50").first()).toBeVisible();
  await field(final).fill("20.25");
  await field(final).press("Enter");
  await expect(page.getByRole("region", { name: "Ledger" })).toContainText("9.75");
});

test("an aliquot is more than zero", async ({ page }) => {
  await startRun(page, "Aliquots");
  await page.getByRole("link", { name: /Titrate the acid/ }).click();
  const aliquot = page.getByRole("textbox", { name: "Aliquot of acid, mL" });
  for (const text of ["0", "-25.00"]) {
    await aliquot.fill(text);
    await aliquot.press("Enter");
    await expect(page.getByRole("alert")).toContainText("more than zero");
    await expect(aliquot).toHaveValue(text);
  }
});

test("a run needs a title, house rules need numbers", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "Start a run" }).click();
  await page.getByRole("textbox", { name: "Sample" }).fill("R-3");
  await page.getByRole("button", { name: "Start", exact: true }).click();
  await expect(page.getByText("Choose a method", { exact: true })).toBeVisible();
  await page.getByRole("combobox", { name: "Method" }).focus();
  await chooseMethod(page);
  await page.getByRole("textbox", { name: "Title" }).fill(" ");
  await page.getByRole("button", { name: "Start", exact: true }).click();
  await expect(page.getByText("Give the run a title so you can find it again")).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Sample" })).toHaveValue("R-3");

  await page.goto("/house-rules");
  await page.getByRole("textbox", { name: "Within, mL" }).fill("a tenth");
  await page.getByRole("textbox", { name: "Trials that must agree" }).fill("0");
  await saveRules(page);
  await expect(page.getByText('"a tenth" is not a plain number such as 0.10')).toBeVisible();
  await expect(page.getByText("A whole number from 1 to 12")).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Within, mL" })).toHaveValue("a tenth");
  await page.reload();
  await expect(page.getByRole("textbox", { name: "Within, mL" })).toHaveValue("0.10");
});

test("a dead network loses no reading", async ({ page, context }) => {
  await startRun(page, "Dead network");
  await typeReadings(page, weighing("2.6106", "2.1000"));
  await expect(page.getByText("0.5106 g")).toBeVisible();
  await context.setOffline(true);
  await typeReadings(page, titration("0.10", "25.10"));
  const kept = page.getByRole("region", { name: "Kept in this browser" });
  await expect(kept).toContainText("3 changes are waiting for the server");
  const ledger = page.getByRole("region", { name: "Ledger" });
  await expect(ledger).toContainText("25.00");
  await context.setOffline(false);
  await expect(kept).toBeHidden({ timeout: 60_000 });
  await page.reload();
  await expect(ledger).toContainText("25.00");
});

test("where the browser keeps nothing either, a reading stays in its field and Enter tries again", async ({
  page,
}) => {
  await page.addInitScript(() => {
    window.indexedDB.open = () => {
      throw new Error("Not in this browser");
    };
  });
  await startRun(page, "Nothing kept");
  await page.route("**/changes", (route) => route.abort());
  const boat = page.getByRole("textbox", { name: "Boat with solid, g" });
  await boat.fill("2.6106");
  await boat.press("Enter");
  await expect(page.getByText(/this browser cannot store anything/)).toBeVisible();
  await expect(boat).toHaveValue("2.6106");
  await page.unroute("**/changes");
  await boat.press("Enter");
  await expect(page.getByRole("button", { name: "Correct Boat with solid" })).toBeVisible();
  // What comes after it is saved as ever.
  await typeReadings(page, weighing("2.6106", "2.1000").slice(1));
  await expect(page.getByText("0.5106 g")).toBeVisible();
});

test("a likely slip is asked about, with the right value one key away, and can be kept all the same", async ({
  page,
}) => {
  await startRun(page, "Called out across the room");
  await typeReadings(page, [...weighing("2.6106", "2.1000"), ...titration("0.00", "25.00")]);
  await typeReadings(page, [...weighing("2.6110", "2.1000"), ["Initial reading, mL", "0.00"]]);
  const final = page.getByRole("textbox", { name: "Final reading, mL" });
  // 0.5110 g take 25.02 mL: 20.52 has two digits the wrong way round.
  await final.fill("20.52");
  await expect(
    page.getByText(/expect about 25\.02 mL\. Two digits swapped\? Is 25\.02 meant\?/),
  ).toBeVisible();
  await page.getByRole("button", { name: "Write 25.02" }).click();
  await expect(final).toHaveValue("25.02");
  await expect(page.getByText(/Two digits swapped/)).toHaveCount(0);
  await final.fill("20.52");
  await final.press("=");
  await expect(final).toHaveValue("25.02");
  await final.fill("20.52");
  await final.press("Enter");
  await expect(page.getByText(/Is 25\.02 meant\? Enter again keeps 20\.52/)).toBeVisible();
  await final.press("Enter");
  await expect(page.getByRole("group", { name: "Does the color stay?" })).toContainText("End of trial 2");
  await expect(ledgerRow(page, "2")).toContainText("20.52");
  // What resembles nothing, and lies far off all the same, is asked about too.
  await typeReadings(page, [...weighing("2.6110", "2.1000"), ["Initial reading, mL", "0.00"]]);
  await final.fill("36.81");
  await final.press("Enter");
  await expect(
    page.getByText(/36\.81 is far from that: is it correct\? Enter again keeps 36\.81/),
  ).toBeVisible();
  await final.fill("25.03");
  await final.press("Enter");
  await expect(ledgerRow(page, "3")).toContainText("25.03");
});

import type { Page } from "@playwright/test";
import { expect, noFaults, sayWhy, test } from "./app";

const field = (page: Page, name: string | RegExp) => page.getByRole("textbox", { name });
const choose = async (page: Page, label: string, option: RegExp) => {
  await page.getByRole("combobox", { name: label, exact: true }).click();
  await page.getByRole("option", { name: option }).click();
};

test("a stock is diluted: bad plans are told, the burette is stopped, what was made stands on the stock", async ({
  page,
}) => {
  await page.goto("/shelf/new?as=add");
  await choose(page, "It is a", /^solution$/);
  await field(page, "Formula").fill("HCl");
  await field(page, "Name").fill("stock acid of the tide pool");
  await field(page, "Concentration, mol/L").fill("0.538");
  await field(page, "±, mol/L").fill("0.002");
  await field(page, "Amount, mL").fill("500");
  await field(page, "Made by").fill("stores");
  await page.getByRole("button", { name: "Put it on the shelf" }).click();
  await expect(page.getByTestId("concentration")).toContainText("0.538");

  await page.goto("/shelf/new?as=dilute");
  await choose(page, "Stock", /stock acid of the tide pool/);
  await expect(page.getByText(/Acid into water, never water into acid/)).toBeVisible();
  const problem = page.getByTestId("plan-problem");
  await test.step("weaker than wanted, beyond the burette, below what it measures", async () => {
    await field(page, "Concentration wanted, mol/L").fill("0.6");
    await expect(problem).toContainText("The stock is weaker than the target (0.538 against 0.6)");
    await field(page, "Concentration wanted, mol/L").fill("0.3");
    await expect(problem).toContainText("more than the 50 mL burette holds");
    await field(page, "Concentration wanted, mol/L").fill("0.00001");
    await expect(problem).toContainText("less than this glass can measure");
  });
  await field(page, "Concentration wanted, mol/L").fill("0.023");
  // 0.023 · 250 / 0.538 = 10.688 mL: a drop is 0.05, so 10.7
  await field(page, "Burette stands at, mL").fill("13.30");
  await expect(page.getByTestId("plan-volume")).toHaveText("10.7 mL");
  await expect(page.getByText(/stop at 24/)).toBeVisible();
  await field(page, "Start reading, mL").fill("13.30");
  await field(page, "Stop reading, mL").fill("13.10");
  await expect(page.getByText(/final reading 13\.10 is not above the initial 13\.30/)).toBeVisible();
  await field(page, "Stop reading, mL").fill("24.00");
  await expect(page.getByTestId("made")).toContainText("0.02303");
  await field(page, "Name on the label").fill("thin acid of the tide pool");
  await field(page, "Made by").fill("bench 2");
  await noFaults(page, "the shelf");
  await page.getByRole("button", { name: "Put it on the shelf" }).click();
  await expect(page.getByTestId("concentration")).toContainText("0.0230");
  await expect(page.getByRole("region", { name: "Rests on" })).toContainText("stock acid of the tide pool");
  await page.getByRole("link", { name: /stock acid of the tide pool/ }).click();
  await expect(field(page, "Left, mL")).toHaveValue("489.3");
});

test("a series of standards from one stock, and a bottle that is used up", async ({ page }) => {
  await page.goto("/shelf/new?as=add");
  await choose(page, "It is a", /^solution$/);
  await field(page, "Formula").fill("CuSO4");
  await field(page, "Name").fill("copper stock");
  // A label in normality: which of them it is in mol/L depends on the reaction, and one key takes it.
  await field(page, "Concentration, mol/L").fill("0.1000 N");
  await expect(page.getByRole("group", { name: "0.1000 N in mol/L" }).getByRole("button")).toHaveText([
    ...["1: 0.1000", "2: 0.05000", "3: 0.03333", "4: 0.02500", "5: 0.02000", "6: 0.01667"],
  ]);
  await page.keyboard.press("Tab");
  await page.keyboard.press("Enter");
  await expect(field(page, "Concentration, mol/L")).toHaveValue("0.1000");
  await field(page, "Made by").fill("stores");
  await page.getByRole("button", { name: "Put it on the shelf" }).click();
  await expect(page.getByTestId("concentration")).toContainText("0.1000");

  await page.goto("/shelf/new?as=series");
  await choose(page, "Stock", /copper stock/);
  await field(page, "Lowest, mol/L").fill("0.01");
  await field(page, "Highest, mol/L").fill("0.15");
  await field(page, "How many").fill("3");
  const series = page.getByRole("region", { name: "Pipetting sheet" });
  await expect(series.getByRole("row", { name: /^1 0\.01 5 0\.00 5\.00 0\.01000/ })).toBeVisible();
  await expect(series).toContainText("The stock is weaker than the target (0.1 against 0.15)");
  await field(page, "Highest, mol/L").fill("0.05");
  await field(page, "Made by").fill("bench 5");
  await noFaults(page, "the shelf");
  await page.getByRole("button", { name: "Put 3 standards on the shelf" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Shelf" })).toBeVisible();
  for (const n of [1, 2, 3])
    await expect(page.getByRole("link", { name: `copper stock: standard ${n}` })).toBeVisible();

  await page.getByRole("link", { name: "copper stock: standard 3" }).click();
  await page.getByRole("checkbox", { name: "Used up" }).check();
  await field(page, "Left, mL").fill("60");
  await sayWhy(page);
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("There were 50 mL of it: there cannot be more left")).toBeVisible();
  await field(page, "Left, mL").fill("0");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Saved.")).toBeVisible();
  await page.goto("/shelf");
  await expect(page.getByRole("link", { name: "copper stock: standard 1" })).toBeVisible();
  await expect(page.getByRole("link", { name: "copper stock: standard 3" })).toBeHidden();
  await page.getByRole("link", { name: "Show used-up bottles" }).click();
  await expect(page.getByRole("link", { name: "copper stock: standard 3" })).toBeVisible();

  await test.step("labels of what was chosen, in the size that was chosen", async () => {
    await page.goto("/shelf");
    await page.getByRole("checkbox", { name: /copper stock: standard 1/ }).check();
    await page.getByRole("checkbox", { name: /copper stock: standard 2/ }).check();
    await page.getByRole("link", { name: "Labels (2)" }).click();
    const labels = page.getByRole("group", { name: /^Label S-/ });
    await expect(labels).toHaveCount(2);
    await field(page, "Of each").fill("3");
    await expect(labels).toHaveCount(6);
    const wide = async () => (await labels.first().boundingBox())?.width ?? 0;
    const medium = await wide();
    await choose(page, "Size", /^small/);
    // 64 mm beside 96 mm
    expect((await wide()) / medium).toBeCloseTo(64 / 96, 2);
  });
});

test("what is not there is told: a bottle, a method, a version", async ({ page }) => {
  for (const [path, words] of [
    ["/shelf/nowhere", "There is no such bottle"],
    ["/shelf/00000000-0000-7000-8000-000000000000", "There is no such bottle"],
    ["/methods/nothing", "There is no such method"],
    ["/methods/water-hardness?version=99", "There is no such method"],
    ["/methods/nothing/plan", "There is no such method"],
  ] as const) {
    const answer = await page.goto(path);
    expect(answer?.status()).toBe(404);
    await expect(page.getByText(words)).toBeVisible();
  }
});

import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { shortLived } from "./lab-template";
import { chooseMethod, expect, test } from "./app";

test("an empty lab greets: three ways in lead to fitting methods, the demo is loaded once, and a full bench is searched and grouped", async ({
  page,
}) => {
  const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-first-"));
  const server = shortLived(folder, 4176);
  await server.start();
  try {
    await page.goto(server.url);
    await expect(page.getByRole("heading", { name: "Welcome to Steady Bead" })).toBeVisible();
    for (const [way, there, missing] of [
      [/^Standardize a solution/, "EDTA by zinc", "molybdenum blue"],
      [/^Find an unknown/, "total hardness", "EDTA by zinc"],
      [/^Read absorbances/, "molybdenum blue", "EDTA by zinc"],
    ] as const) {
      await page.getByRole("button", { name: way }).click();
      await expect(page.getByRole("combobox", { name: "Method" })).toBeFocused();
      const options = page.getByRole("option");
      await expect(options.first()).toBeVisible();
      const all = (await options.allInnerTexts()).join("\n");
      expect(all).toContain(there);
      expect(all).not.toContain(missing);
      await page.keyboard.press("Escape");
      await page.getByRole("button", { name: "Cancel" }).click();
    }
    await page.getByRole("button", { name: "Load the demo data" }).click();
    await expect(page.getByRole("article", { name: "Phosphate of the pond" })).toBeVisible({
      timeout: 60_000,
    });
    // A lab that is in use takes no demo data.
    const again = await page.request.post(`${server.url}/?index`, {
      form: { intent: "demo" },
      headers: { Origin: server.url },
    });
    expect(again.status()).toBe(400);

    // The eighth run makes the bench a list.
    await page.getByRole("button", { name: "Start a run" }).click();
    await chooseMethod(page);
    await page.keyboard.type("R-20");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("heading", { level: 1, name: /^R-20, base/ })).toBeVisible();
    await page.goto(server.url);
    const runs = page.getByRole("region", { name: "Runs in progress" }).getByRole("article");
    await expect(runs).toHaveCount(10);
    await page.getByRole("searchbox", { name: "Search runs in progress" }).fill("hardness tap");
    await expect(runs).toHaveCount(1);
    await page.getByRole("searchbox", { name: "Search runs in progress" }).fill("");
    await page.getByRole("combobox", { name: "Order" }).click();
    await page.getByRole("option", { name: "by method" }).click();
    await expect(
      page.getByRole("heading", { level: 2, name: /^Base by potassium hydrogen phthalate/ }),
    ).toBeVisible();
    await page.reload();
    await expect(
      page.getByRole("heading", { level: 2, name: /^Base by potassium hydrogen phthalate/ }),
    ).toBeVisible();
  } finally {
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});

import { readFileSync } from "node:fs";
import { atRest, doItHere, expect, follow, long, sayWhy, test } from "./app";

test("a method is made in the editor, told what is wrong in words, saved, versioned, exported and imported", async ({
  page,
}) => {
  await page.goto("/methods/new");
  const holds = page.getByRole("region", { name: "Check", exact: true });
  const save = page.getByRole("button", { name: "Save the method" });
  await expect(holds).toContainText("Give the method a title");
  await expect(save).toBeDisabled();
  await page.getByRole("textbox", { name: "Title" }).first().fill("Wash acid of the net store");
  await page.getByRole("textbox", { name: "What it is for" }).fill("How strong the wash acid still is.");
  await expect(page.getByTestId("holds")).toBeVisible();
  await expect(page.getByTestId("preview-stage-1")).toHaveText(/^0\.\d+ ± 0\.\d+ mol\/L$/);

  const equation = page.getByRole("textbox", { name: "Equation 1: Equation" });
  await test.step("an equation is balanced by a press; an unknown element is told", async () => {
    await equation.fill("H2SO4 + NaOH -> Na2SO4 + H2O");
    await expect(page.getByRole("alert").first()).toContainText("does not balance yet");
    await page.getByRole("button", { name: "Balance it" }).click();
    await expect(equation).toHaveValue("H2SO4 + 2 NaOH -> Na2SO4 + 2 H2O");
    await expect(holds).toContainText("see the marked stage");
    await equation.fill("Xq + NaOH -> NaCl");
    await expect(page.getByRole("alert").first()).toContainText("Xq");
    await equation.fill("H2SO4 + 2 NaOH -> Na2SO4 + 2 H2O");
  });
  await test.step("relations are checked for units and species as they are typed", async () => {
    const relation = page.getByRole("textbox", { name: "Relation 1: Relation" });
    await relation.fill("n_a = c_b + V");
    await expect(page.getByRole("region", { name: "Stage 1" }).getByRole("alert").last()).toContainText(
      /concentration|volume/,
    );
    await relation.fill("n_a = c_b * V * ratio(H2SO4, NaOH)");
    await expect(page.getByTestId("holds")).toBeVisible();
  });
  await sayWhy(page);
  await save.click();
  await expect(page.getByRole("heading", { level: 1, name: "Wash acid of the net store" })).toBeVisible();
  await expect(page.getByText("Your own method, version 1")).toBeVisible();

  await test.step("saved again it is version 2; a run begun before keeps version 1", async () => {
    await page.getByRole("link", { name: "Start a run" }).click();
    await page.getByRole("textbox", { name: "Title" }).fill("Begun with version 1");
    await page.getByRole("button", { name: "Start", exact: true }).click();
    await expect(page.getByRole("heading", { level: 1, name: "Begun with version 1" })).toBeVisible();
    const run = page.url();
    await page.goto("/methods");
    await page.getByRole("searchbox", { name: "Search" }).fill("wash acid");
    await page.getByRole("link", { name: /Wash acid of the net store/ }).click();
    await page.getByRole("link", { name: "Edit" }).click();
    await page.getByRole("textbox", { name: "Indicator", exact: true }).fill("methyl orange, 2 drops");
    await sayWhy(page);
    await page.getByRole("button", { name: "Save the method" }).click();
    await expect(page.getByText("Your own method, version 2")).toBeVisible();
    await page.goto(run);
    await expect(page.getByText("phenolphthalein, 2 to 3 drops")).toBeVisible();
  });

  await test.step("out as JSON, and in again; a broken or foreign file is told by path", async () => {
    await page.goto("/methods");
    await page.getByRole("link", { name: /Wash acid of the net store/ }).click();
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("link", { name: "Export" }).click(),
    ]);
    const text = readFileSync(await download.path(), "utf8");
    expect(JSON.parse(text)).toMatchObject({ title: "Wash acid of the net store", version: 2 });
    await page.goto("/methods");
    const give = (contents: string) =>
      page
        .getByLabel("Method file")
        .setInputFiles({ name: "method.json", mimeType: "application/json", buffer: Buffer.from(contents) });
    const dialog = page.getByRole("dialog");
    await give("{ not json");
    await expect(dialog).toContainText("is no JSON");
    await dialog.getByRole("button", { name: "Close" }).click();
    await give(text.replace('"redox"', '"x"').replace('"acid-base"', '"alchemy"'));
    await expect(dialog).toContainText("family");
    await dialog.getByRole("button", { name: "Close" }).click();
    await give(text.replace("2 NaOH", "3 NaOH"));
    await expect(dialog).toContainText("does not balance");
    await dialog.getByRole("button", { name: "Close" }).click();
    await give(text.replaceAll("Wash acid of the net store", "Wash acid, brought in"));
    await expect(page.getByRole("heading", { level: 1, name: "Wash acid, brought in" })).toBeVisible();
    await expect(page.getByText("Your own method, version 3")).toBeVisible();
  });
});

test("small calculations show their working, and say what is wrong", async ({ page }) => {
  await page.goto("/calculate");
  await expect(page.getByTestId("answer")).toHaveText("392.125 g/mol");
  await page.getByRole("textbox", { name: "Formula" }).fill("KHC8H4O4");
  await expect(page.getByTestId("answer")).toHaveText("204.222 g/mol");
  await page.getByRole("textbox", { name: "Formula" }).fill("Kx");
  await expect(page.getByText(/Kx/).last()).toBeVisible();

  await page.getByRole("button", { name: "Balance an equation" }).click();
  await expect(page.getByTestId("equation-text")).toHaveText(
    "MnO4- + 5 Fe^2+ + 8 H+ -> Mn^2+ + 5 Fe^3+ + 4 H2O",
  );
  await page.getByRole("button", { name: "Half-reactions" }).click();
  await expect(page.getByRole("img", { name: /2 MnO₄⁻.* → .*10 CO₂/ })).toBeVisible();

  // 0.05 · 0.25 · 133.998 / 0.9995 = 1.6758 g
  await page.getByRole("button", { name: "Mass for a solution" }).click();
  await expect(page.getByTestId("answer")).toHaveText("1.6758 g");
  await page.getByRole("textbox", { name: "Purity, %" }).fill("120");
  await expect(page.getByText(/over 100 %/)).toBeVisible();

  // Common practice, no source: 10.687 mL, and 10.7 is delivered.
  await page.getByRole("button", { name: "Dilution", exact: true }).click();
  await expect(page.getByTestId("delivered")).toContainText("Take 10.7 mL, stop at 10.7");
  await page.getByRole("textbox", { name: "Stock, mol/L" }).fill("0.1");
  await expect(page.getByText(/stock is weaker than the target/)).toBeVisible();

  // 0.5 mol/L sulfuric acid: 1 N, 98.07 g/mol: 4.904 % w/v
  await page.getByRole("button", { name: "mol/L, N, %, ppm" }).click();
  await expect(page.getByRole("row", { name: /^1 N$/ })).toBeVisible();
  await expect(page.getByRole("row", { name: /^4\.90\d+ % w\/v$/ })).toBeVisible();

  await page.getByRole("button", { name: "Expected titer" }).click();
  await expect(page.getByTestId("answer")).toHaveText("20 mL");
});

test(
  "a new standardization renews a bottle: the finished run says so, keeps its result, and is computed again on request",
  long,
  async ({ page }) => {
    const add = async (value: string) => {
      await page.goto("/shelf/new?as=add");
      await page.getByRole("textbox", { name: "Formula" }).fill("NaOH");
      await page.getByRole("textbox", { name: "Name" }).fill("base to be renewed");
      await page.getByRole("textbox", { name: "Concentration, mol/L" }).fill(value);
      await page.getByRole("textbox", { name: "Made by" }).fill("bench 1");
      await page.getByRole("button", { name: "Put it on the shelf" }).click();
      await expect(page.getByTestId("concentration")).toBeVisible();
    };
    await add("0.1000");
    const bottle = page.url();

    const readings = async (all: readonly (readonly [string, string])[]) => {
      for (const [label, text] of all) {
        await page.getByRole("textbox", { name: label, exact: true }).fill(text);
        await page.getByRole("textbox", { name: label, exact: true }).press("Enter");
      }
      await atRest(page);
    };
    const begin = async (method: string, title: string) => {
      await page.goto(`/methods/${method}`);
      await page.getByRole("link", { name: "Start a run" }).click();
      await page.getByRole("textbox", { name: "Title" }).fill(title);
      if (method === "base-by-phthalate-then-acid") await doItHere(page, "Standardize the base");
      await page.getByRole("button", { name: "Start", exact: true }).click();
      await expect(page.getByRole("heading", { level: 1, name: title })).toBeVisible();
      await page.getByRole("button", { name: "counts", exact: true }).click();
    };
    const pick = async () => {
      const dialog = page.getByRole("dialog");
      await dialog.getByRole("combobox", { name: "Bottle" }).click();
      await page.getByRole("option", { name: /base to be renewed/ }).click();
      return dialog;
    };
    await begin("acid-by-base", "Acid kept as it was");
    await page.getByRole("button", { name: "Concentration of the base: take from the shelf" }).click();
    await (await pick()).getByRole("button", { name: "Take it" }).click();
    for (const final of ["25.00", "25.02", "24.98"])
      await readings([
        ["Aliquot of acid, mL", "25.00"],
        ["Initial reading, mL", "0.00"],
        ["Final reading, mL", final],
      ]);
    await page.getByRole("link", { name: "Go on: Conclude" }).click();
    await page.getByRole("button", { name: "Finish the run" }).click();
    await expect(page.getByText("Its readings are kept as they stand")).toBeVisible();
    const finished = page.url();

    await begin("base-by-phthalate-then-acid", "The base, anew");
    for (const final of ["24.00", "24.02", "23.98"])
      await readings([
        ["Boat with solid, g", "2.5106"],
        ["Boat after transfer, g", "2.0000"],
        ["Initial reading, mL", "0.00"],
        ["Final reading, mL", final],
      ]);
    await page.getByRole("button", { name: "Put it on the shelf" }).click();
    await (await pick()).getByRole("button", { name: "Put it on the shelf" }).click();
    await expect(page.getByTestId("shelved-standardize")).toContainText("base to be renewed");

    await page.goto(finished);
    const since = page.getByRole("region", { name: "Concentrations since" });
    await expect(since).toContainText("This run keeps 0.1000 mol/L");
    await since.getByRole("button", { name: "Recalculate with the newest" }).click();
    // 0.5106 / 204.222 / 0.02400 = 0.10418: so is the acid, 25 mL against 25 mL
    await expect(since).toContainText(
      /Concentration of the acid: 0\.104\d* ± [\d.]+ mol\/L instead of 0\.100/,
    );
    await expect(page.getByTestId("result-determine")).toContainText("0.100");

    await test.step("two people edit one bottle: the second is told, and keeps what was typed", async () => {
      await page.goto(bottle);
      await expect(page.getByRole("region", { name: "History" })).toContainText("0.1000");
      const other = follow(await page.context().newPage());
      await other.goto(bottle);
      await other.getByRole("textbox", { name: "Note" }).fill("first");
      await sayWhy(other);
      await other.getByRole("button", { name: "Save" }).click();
      await expect(other.getByText("Saved.")).toBeVisible();
      await page.getByRole("textbox", { name: "Note" }).fill("second");
      await sayWhy(page);
      await page.getByRole("button", { name: "Save" }).click();
      await expect(page.getByText(/Someone else has changed this bottle/)).toBeVisible();
      await expect(page.getByRole("textbox", { name: "Note" })).toHaveValue("second");
      await page.getByRole("button", { name: "Save" }).click();
      await expect(page.getByText("Saved.")).toBeVisible();
    });
  },
);

test("a chain of three stages like one of the library is made in few changes, a letter is renamed everywhere, and it is saved", async ({
  page,
}) => {
  let changes = 0;
  const fill = async (name: string, text: string) => {
    changes++;
    await page.getByRole("textbox", { name }).first().fill(text);
  };
  await page.goto("/methods/new");
  await expect(page.getByRole("region", { name: "Check", exact: true })).toContainText(
    "Give the method a title",
  );
  await fill("Title", "Rinse acid, with its standard");
  await fill("What it is for", "How strong the rinse acid is, from the weighed standard on.");
  await page.getByRole("button", { name: "Standardize the titrant first, by a solution" }).click();
  changes++;
  await expect(page.getByRole("region", { name: /^Stage \d$/ })).toHaveCount(3);
  await expect(page.getByTestId("holds")).toBeVisible();
  const last = page.getByRole("region", { name: "Stage 3" });
  await last.getByRole("textbox", { name: "Reading 2: Letter" }).fill("V_rinse");
  await page.keyboard.press("Tab");
  changes++;
  await expect(last.getByRole("textbox", { name: "Relation 2: Relation" })).toHaveValue(
    "c_a = n_a / V_rinse",
  );
  await expect(last.getByRole("combobox", { name: "What must agree" })).toContainText("V_rinse");
  const volume = last.getByRole("textbox", { name: "Reading 2: mL" });
  await volume.fill("24");
  await expect(last).toContainText("No one-mark pipette delivers 24 mL; 25 mL is nearest");
  await volume.fill("20.00");
  await last.getByRole("combobox", { name: "Result is held against" }).click();
  await page.getByRole("option", { name: "a known or target value" }).click();
  await last.getByRole("textbox", { name: "Allowed difference" }).fill("5");
  changes += 3;
  await expect(page.getByTestId("holds")).toBeVisible();
  await sayWhy(page);
  await page.getByRole("button", { name: "Save the method" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Rinse acid, with its standard" })).toBeVisible();
  expect(changes).toBeLessThan(40);
});

test("a pasted pH curve is read: its end in every way, constants, and which acid it may be", async ({
  page,
}) => {
  await page.goto("/calculate?what=read-curve");
  const pairs = page.getByRole("textbox", { name: "Volume and pH, a pair a line" });
  await expect(async () => {
    await pairs.fill("volume;pH\n0;2,43\n1;2,53\n2;26,9");
    await expect(page.getByText("Line 4: pH 26.9 is outside -1 to 15")).toBeVisible({ timeout: 1000 });
  }).toPass();
  await pairs.fill("");
  await page.getByRole("button", { name: "Use an example" }).click();
  const table = page.getByRole("table", { name: "Equivalence point near 20.0 mL" });
  await expect(table.getByRole("row", { name: /^whole curve fitted, taken/ })).toContainText(
    /(19\.9|20\.0)\d+ ± 0\.0/,
  );
  await expect(table.getByRole("row")).toHaveCount(6);
  await page.getByRole("textbox", { name: "Mass in the flask, g" }).fill("0.1501");
  // 0.1501 g of 150.09 g/mol in 50 mL: 0.0200 mol/L, two protons in one jump.
  await expect(page.getByText(/^Molar mass 150\.\d+ ±/)).toBeVisible();
  await expect(page.getByText(/^It may be tartaric acid/)).toBeVisible();
  await expect(page.getByRole("img", { name: /^37 points; 1 jumps?, at (19\.9|20\.0)\d mL/ })).toBeVisible();
});

import type { Page } from "@playwright/test";
import { confirmVolumes, doItHere, expect, long, noFaults, test, typeReadings } from "./app";

/*
 * One method of each family, by keyboard: planned, its standard made, standardized, put on the shelf, used for a
 * determination, labelled, and seen in the lineage. Expected numbers are worked out from the readings by hand beside them,
 * with the molar masses of CHECKS.md.
 */

const press = async (page: Page, role: "button" | "link", name: string | RegExp, key = "Enter") => {
  const target = page.getByRole(role, { name }).first();
  await target.focus();
  await page.keyboard.press(key);
};

/** Begins a run from the page of its method. */
async function begin(page: Page, methodId: string, title: string, here?: string) {
  await page.goto(`/methods/${methodId}`);
  await press(page, "link", "Start a run");
  await expect(page.getByRole("textbox", { name: "Sample" })).toBeFocused();
  await page.keyboard.press("Tab");
  await page.keyboard.press("Tab");
  await page.keyboard.insertText(title);
  if (here) {
    await doItHere(page, here);
    await page.getByRole("textbox", { name: "Title" }).focus();
  }
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { level: 1, name: title })).toBeVisible();
}

/** What is read once: the button that waits, the reading, Enter. */
async function once(page: Page, readings: readonly (readonly [label: string, text: string])[]) {
  for (const [label, text] of readings) {
    await press(page, "button", `Record: ${label}`);
    const dialog = page.getByRole("dialog");
    await dialog.getByRole("textbox").first().focus();
    await page.keyboard.insertText(text);
    await page.keyboard.press("Enter");
    await expect(dialog).toBeHidden();
  }
  await confirmVolumes(page);
}

/** Trials that count, field by field, each ended by Enter. */
async function trials(page: Page, all: readonly (readonly (readonly [label: string, text: string])[])[]) {
  const counts = page.getByRole("button", { name: "counts", exact: true });
  if ((await counts.getAttribute("aria-pressed")) !== "true") await press(page, "button", "counts");
  const [first] = all[0] ?? [];
  if (first) await page.getByRole("textbox", { name: first[0], exact: true }).focus();
  await typeReadings(page, all.flat());
}

const titer = (initial: string, final: string) =>
  [
    ["Initial reading, mL", initial],
    ["Final reading, mL", final],
  ] as const;

async function shelve(page: Page, name: string) {
  await press(page, "button", "Put it on the shelf");
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("textbox", { name: "Name" }).focus();
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.insertText(name);
  await page.keyboard.press("Enter");
  await expect(dialog).toBeHidden();
}

async function take(page: Page, label: string, bottle: RegExp) {
  await press(page, "button", `${label}: take from the shelf`);
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByRole("combobox", { name: "Bottle" })).toContainText(bottle);
  await press(page, "button", "Take it");
  await expect(dialog).toBeHidden();
}

const result = (page: Page) => page.getByTestId("result");

const boat = (label: "Boat with solid, g" | "Boat after transfer, g", text: string) => [label, text] as const;

test("acid-base: plan, make the standard, standardize, determine, label, lineage", long, async ({ page }) => {
  await test.step("the plan tells the titer and what twenty benches need", async () => {
    await page.goto("/methods/base-by-phthalate-solution/plan");
    // 5.1 g / 204.222 g/mol in 250 mL, 25 mL of it against 0.1 mol/L: 24.97 mL
    await expect(page.getByTestId("titer-standardize")).toHaveText("25.0 mL");
    await page.getByRole("textbox", { name: "Benches" }).fill("20");
    await expect(page.getByRole("region", { name: "Standardize the base" })).toContainText("2500 mL");
    await page.getByRole("textbox", { name: /^Titer you want/ }).fill("20");
    await expect(page.getByTestId("target-standardize")).toContainText("20.02 mL");
    await expect(page.getByText(/^Phenolphthalein, which this method uses, suits/)).toBeVisible();
    await page.getByText("methyl orange", { exact: true }).click();
    const curve = page.getByRole("img", { name: /^Titration curve by theory: pH 9\.\d\d/ });
    await expect(curve).toHaveAttribute("aria-label", /methyl orange changes at pH 3\.1 to 4\.4$/);
    await page.getByRole("textbox", { name: /^Aliquot/ }).fill("much");
    await expect(page.getByText("Type a number above zero")).toBeVisible();
    await noFaults(page, "the plan of a run");
  });
  await test.step("a jar and a standard made from it", async () => {
    await page.goto("/shelf/new?as=add");
    await page.getByRole("textbox", { name: "Formula" }).fill("KHC8H4O4");
    await page.getByRole("textbox", { name: /^Purity/ }).fill("101");
    await page.getByRole("textbox", { name: "Made by" }).fill("stores");
    await press(page, "button", "Put it on the shelf");
    await expect(page.getByText(/purity is over 100 %/)).toBeVisible();
    await page.getByRole("textbox", { name: /^Purity/ }).fill("99.95");
    await press(page, "button", "Put it on the shelf");
    await expect(page.getByTestId("concentration")).toContainText("99.95");

    await page.goto("/shelf/new?as=weigh");
    await expect(page.getByTestId("plan-mass")).toHaveText("5.106 g");
    await page.getByRole("textbox", { name: "Boat with solid, g" }).fill("8.2214");
    await page.getByRole("textbox", { name: "Boat after transfer, g" }).fill("3.1187");
    // 5.1027 g / 204.222 g/mol / 0.2500 L = 0.09994 mol/L
    await expect(page.getByTestId("made")).toContainText("0.09994");
    await press(page, "button", "Put it on the shelf");
    await expect(page.getByText("Say who: initials, or a bench")).toBeVisible();
    await expect(page.getByRole("textbox", { name: "Boat with solid, g" })).toHaveValue("8.2214");
    await page.getByRole("textbox", { name: "Made by" }).fill("bench 3");
    await press(page, "button", "Put it on the shelf");
    await expect(page.getByTestId("concentration")).toContainText("0.09994");
  });
  await test.step("a base standardized, and put on the shelf", async () => {
    await begin(page, "base-by-phthalate-solution", "Base of the families", "Make the standard solution");
    await once(page, [
      ["Boat with solid", "7.1056"],
      ["Boat after transfer", "2.0000"],
    ]);
    await expect(page.getByTestId("result-prepare")).toContainText("0.09995");
    await press(page, "link", "Go on: Standardize the base");
    await expect(page.getByTestId("verdict")).toBeVisible();
    await trials(page, [
      [["Aliquot of standard, mL", "25.00"], ...titer("0.00", "24.85")],
      [["Aliquot of standard, mL", "25.00"], ...titer("0.00", "24.85")],
      [["Aliquot of standard, mL", "25.00"], ...titer("0.00", "24.85")],
    ]);
    // The jar at 99.95 % is the one on the shelf: 0.100001 · 0.9995 · 25.00 / 24.85 = 0.10055
    await expect(result(page)).toContainText("0.10055");
    await shelve(page, "base of the families");
    await expect(page.getByTestId("shelved-standardize")).toContainText("base of the families");
  });
  await test.step("an acid determined with it", async () => {
    await begin(page, "acid-by-base", "Acid of the families");
    await take(page, "Concentration of the base", /base of the families, 0\.1005/);
    await trials(
      page,
      ["20.10", "20.12", "20.08"].map(
        (final) => [["Aliquot of acid, mL", "25.00"], ...titer("0.00", final)] as const,
      ),
    );
    // 0.10055 · 20.10 / 25.00 = 0.08084
    await expect(result(page)).toContainText(/0\.0808|0\.0809/);
  });
  await test.step("label and lineage", async () => {
    await page.goto("/shelf");
    await press(page, "link", "base of the families");
    await expect(page.getByRole("region", { name: "Depends on it" })).toContainText("Acid of the families");
    await press(page, "link", "Label");
    const label = page.getByRole("group", { name: /^Label S-/ });
    await expect(label).toContainText("base of the families");
    await expect(label).toContainText("k = 2");
    await expect(
      label.getByRole("img", { name: /QR code: S-\d+; base of the families; 0\.1005/ }),
    ).toBeVisible();
    await noFaults(page, "a label");
    await page.goto("/shelf/lineage");
    await press(page, "button", /base of the families/);
    await expect(page.getByRole("region", { name: "Selected" })).toContainText("Acid of the families");
  });
});

test("redox with heating: permanganate by hot oxalate, then oxalate in a solid", long, async ({ page }) => {
  await begin(page, "permanganate-by-oxalate", "Permanganate, hot");
  await expect(page.getByRole("list", { name: "Conditions" })).toContainText("55 to 60 °C");
  await expect(page.getByText("two decimals, top of the meniscus").first()).toBeVisible();
  await trials(
    page,
    ["29.84", "29.85", "29.86"].map((final) => [
      boat("Boat with solid, g", "2.2000"),
      boat("Boat after transfer, g", "2.0000"),
      ...titer("0.00", final),
    ]),
  );
  // 0.2 · 0.9995 / 133.998 · 2/5 / 0.02985 = 0.019990; equivalents: fivefold
  await expect(result(page)).toContainText("0.0199");
  await expect(
    page.getByText(/Normality of the permanganate: 0\.0999|Normality of the permanganate: 0\.1000/),
  ).toBeVisible();
  await shelve(page, "permanganate of the families");
  await begin(page, "oxalate-in-solid", "Solid of the families");
  await take(page, "Concentration of the permanganate", /permanganate of the families, 0\.0199/);
  await trials(
    page,
    ["20.00", "20.02", "19.98"].map((final) => [
      boat("Boat with solid, g", "2.2500"),
      boat("Boat after transfer, g", "2.0000"),
      ...titer("0.00", final),
    ]),
  );
  // 0.019990 · 20.00 · 5/2 = 0.9995 mmol of 88.018 g/mol in 0.2500 g: 35.19 %
  await expect(result(page)).toContainText("35.");
  await expect(result(page)).toContainText("% w/w");
});

test(
  "iodometric with standing time: thiosulfate by dichromate, then hypochlorite",
  long,
  async ({ page }) => {
    await begin(page, "thiosulfate-by-dichromate", "Thiosulfate of the families");
    await once(page, [
      ["Boat with solid", "3.2258"],
      ["Boat after transfer", "2.0000"],
    ]);
    await press(page, "link", "Go on: Standardize the thiosulfate");
    await expect(page.getByRole("list", { name: "Conditions" })).toContainText(
      "5 min: stoppered, in the dark",
    );
    await trials(
      page,
      ["25.00", "25.02", "24.98"].map(
        (final) => [["Aliquot of the dichromate, mL", "25.00"], ...titer("0.00", final)] as const,
      ),
    );
    // 1.2258 · 0.9995 / 294.181 / 0.25 · 6 = 0.09995
    await expect(result(page)).toContainText("0.0999");
    await shelve(page, "thiosulfate of the families");
    await begin(page, "hypochlorite", "Disinfectant of the families");
    await take(page, "Concentration of the thiosulfate", /thiosulfate of the families, 0\.0999/);
    // How far the disinfectant was diluted is asked, not presumed.
    await confirmVolumes(page);
    await trials(
      page,
      ["13.00", "13.02", "12.98"].map(
        (final) => [["Aliquot of the dilution, mL", "25.00"], ...titer("0.00", final)] as const,
      ),
    );
    // 0.09995 · 13.00 / 2 / 25.00 · 25 = 0.6497 mol/L
    await expect(result(page)).toContainText("0.6");
    await expect(page.getByText(/As active chlorine: 4\.6/)).toBeVisible();
  },
);

test("complexometric by burette difference: EDTA by calcium carbonate, then hardness and calcium", async ({
  page,
}) => {
  await begin(page, "water-hardness", "Reef water of the families");
  await once(page, [
    ["Boat with solid", "2.2502"],
    ["Boat after transfer", "2.0000"],
  ]);
  await press(page, "link", "Go on: Standardize the EDTA");
  await trials(
    page,
    ["25.00", "25.02", "24.98"].map(
      (final) => [["Aliquot of the standard, mL", "25.00"], ...titer("0.00", final)] as const,
    ),
  );
  await expect(result(page)).toContainText("0.0099");
  await shelve(page, "EDTA of the families");
  await press(page, "link", "Go on: Total hardness");
  const water = (ml: string, final: string) =>
    [
      ["Water: initial reading, mL", "1.00"],
      ["Water: final reading, mL", ml],
      ...titer("0.00", final),
    ] as const;
  await trials(page, [water("26.00", "22.50"), water("26.00", "22.52"), water("26.00", "22.48")]);
  // 0.0099945 · 22.50 / 25.00 = 8.995 mmol/L, 50.4 °dH
  await expect(result(page)).toContainText("mmol/L");
  await expect(page.getByText(/In degrees: 50\.\d+ ± [\d.]+ °dH/)).toBeVisible();
  await press(page, "link", "Go on: Calcium alone");
  await trials(page, [water("26.00", "5.00"), water("26.00", "5.01"), water("26.00", "4.99")]);
  // 8.995 - 1.999 = 6.996 mmol/L
  await expect(page.getByText(/Magnesium, by difference: (6\.99|7\.0)\d* ± [\d.]+ mmol\/L/)).toBeVisible();
  await noFaults(page, "hardness and calcium");
});

test("back-titration with a blank: nickel, both stages on one bottle of EDTA", async ({ page }) => {
  await page.goto("/shelf/new?as=add");
  await page.getByRole("textbox", { name: "Formula" }).fill("Na2C10H14N2O8");
  await page.getByRole("textbox", { name: "Name" }).fill("EDTA, strong");
  await page.getByRole("textbox", { name: "Concentration, mol/L" }).fill("0.0500");
  await page.getByRole("textbox", { name: "±, mol/L" }).fill("0.0001");
  await page.getByRole("textbox", { name: "Made by" }).fill("bench 1");
  await press(page, "button", "Put it on the shelf");
  await expect(page.getByTestId("concentration")).toContainText("0.0500");
  await begin(page, "nickel-by-back-titration", "Nickel of the families");
  await press(page, "button", "Concentration of the EDTA: take from the shelf");
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("combobox", { name: "Bottle" }).press("Enter");
  await page.getByRole("option", { name: /EDTA, strong/ }).press("Enter");
  await press(page, "button", "Take it");
  await expect(dialog).toBeHidden();
  const blank = (final: string) => [["EDTA added, mL", "25.00"], ...titer("0.00", final)] as const;
  await trials(page, [blank("25.00"), blank("25.02"), blank("24.98")]);
  await press(page, "link", "Go on: Titrate the EDTA that is left");
  const sample = (final: string) =>
    [["Sample taken, mL", "10.00"], ["EDTA added, mL", "25.00"], ...titer("0.00", final)] as const;
  await trials(page, [sample("13.00"), sample("13.01"), sample("12.99")]);
  // 0.0500 · (25.00 - 13.00) / 10.00 = 60.0 mmol/L
  await expect(result(page)).toContainText("60.");
  // What the bottle's ± makes of it: 0.0001 / √3 / 0.05 once, not twice, beside glass and readings.
  await expect(result(page)).toContainText(/60\.\d+± 0\.[23]\d? mmol/);
  await press(page, "link", "Go on: Conclude");
  await press(page, "button", "Finish the run");
  await expect(page.getByText("Its readings are kept as they stand")).toBeVisible();
});

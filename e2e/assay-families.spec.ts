import { confirmVolumes, expect, follow, openRun, test } from "./app";
import { absorbance, inHand, read, takeUsualWavelength, typeOnce } from "./photometer";

test("Ethanol by dichromate: a drop is measured, standards are counted in drops, the drink is carried back", async ({
  page,
}) => {
  await openRun(page, "ethanol-by-dichromate", "Kelp beer");
  await typeOnce(page, "Record: Mass of the drops", "3.9360");
  await typeOnce(page, "Record: Drops counted", "80");
  // Common practice, no source: 20 drops make a milliliter.
  await expect(page.getByTestId("result-drop")).toContainText("0.0500");
  await page.getByRole("link", { name: "Go on: Choose the wavelength" }).click();
  await takeUsualWavelength(page, 600, "Read the standards");
  await read(page, "Blank", "0.000");
  // Absorbance rises by 0.030 for each drop, from 0.010.
  for (const drops of [0, 5, 10, 15, 20]) {
    await read(page, `Flask with ${drops} (drops of the stock)`, (0.01 + 0.03 * drops).toFixed(3));
  }
  await page.getByRole("link", { name: "Go on: Read the drink" }).click();
  await expect(inHand(page)).toHaveText("Unknown, flask 1");
  await confirmVolumes(page);
  await absorbance(page).fill("0.400");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Nothing has been typed yet")).toBeVisible();
  await expect(absorbance(page)).toHaveValue("0.400");
  await page.getByRole("textbox", { name: "Drops of the diluted drink" }).fill("20");
  await absorbance(page).press("Enter");
  // 13 drops of 10 % among 20 are 6.5 %; the drink was diluted by half: 13 %.
  await expect(page.getByTestId("result")).toContainText(/^(12\.9\d?|13\.0\d?) ± \d\.\d+ % v\/v/);
});

test("A standard addition: the sample is in every flask, the line is read off at its axis", async ({
  page,
}) => {
  await openRun(page, "iron-by-standard-addition", "Iron of the tea");
  await takeUsualWavelength(page, 510, "Read the additions");
  await read(page, "Blank", "0.001");
  for (const [i, ml] of ["0.00", "2.00", "4.00", "6.00", "8.00"].entries()) {
    await read(page, `Flask with ${ml} mL`, (0.24 + 0.16 * i + (i % 2 ? 0.001 : -0.001)).toFixed(3));
  }
  // 0.24 at nothing added and 0.20 for each mg/L: 1.2 mg/L in the flask, 3 mg/L in the 20 mL taken for 50 mL.
  await expect(page.getByTestId("line-numbers")).toContainText(
    /Iron in the sample ?(2\.9\d|3\.0\d) ± 0\.\d+ mg\/L/,
  );
  await page.getByRole("link", { name: "Show the working" }).click();
  await expect(page.getByText("Intercept with the axis")).toBeVisible();
});

test("What is typed of a cuvette outlives a closed page, and two devices at one flask lose nothing", async ({
  page,
  browser,
  baseURL,
}) => {
  await openRun(page, "copper-with-ammonia", "Copper at two benches");
  await takeUsualWavelength(page, 620, "Read the standards");
  await read(page, "Blank", "0.000");
  await absorbance(page).fill("0.13");
  await page.reload();
  await expect(absorbance(page)).toHaveValue("0.13");

  const other = follow(await browser.newPage({ baseURL: baseURL ?? "" }));
  await other.goto(page.url());
  // What is typed before the page has come to life is lost.
  const readBy = other.getByRole("textbox", { name: "Read by" });
  await expect(async () => {
    await readBy.fill("bench 7");
    await expect(readBy).toHaveValue("bench 7", { timeout: 500 });
  }).toPass();
  await expect(inHand(page)).toHaveText("Flask with 2.00 mL");
  // Both read the same flask, one of them out of reach of the server: both readings are kept.
  await other.route("**/changes", (route) => route.abort());
  await read(other, "Flask with 2.00 mL", "0.139");
  await absorbance(page).fill("0.137");
  await absorbance(page).press("Enter");
  await expect(inHand(page)).toHaveText("Flask with 4.00 mL");
  await other.unroute("**/changes");
  await expect(page.getByRole("button", { name: /^Reading 0\.139, by bench 7/ })).toBeVisible({
    timeout: 60_000,
  });
  await page.reload();
  await expect(page.getByRole("button", { name: /^Reading 0\.139, by bench 7/ })).toBeVisible();
  await expect(page.getByRole("button", { name: /^Reading 0\.137/ })).toBeVisible();
  await other.close();
});

test("A server that does not answer: the reading waits in the browser and is saved once when it is back", async ({
  page,
}) => {
  await openRun(page, "copper-with-ammonia", "Copper without a network");
  await takeUsualWavelength(page, 620, "Read the standards");
  await expect(inHand(page)).toHaveText("Blank");
  await page.route("**/changes", (route) => route.abort());
  await absorbance(page).fill("0.002");
  await page.keyboard.press("Enter");
  const kept = page.getByRole("region", { name: "Kept in this browser" });
  await expect(kept).toContainText("One change is waiting for the server");
  await expect(inHand(page)).toHaveText("Flask with 2.00 mL");
  await page.reload();
  await expect(page.getByRole("button", { name: /^Reading 0\.002/ })).toHaveCount(1);
  await page.unroute("**/changes");
  await expect(kept).toBeHidden({ timeout: 60_000 });
  await expect(page.getByRole("button", { name: /^Reading 0\.002/ })).toHaveCount(1);
});

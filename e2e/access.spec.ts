import type { Page } from "@playwright/test";
import {
  colorsSettled,
  expect,
  long,
  noGraveFaults,
  startRun,
  test,
  titration,
  typeReadings,
  weighing,
} from "./app";

const sizes = [
  { width: 1280, height: 800 },
  { width: 768, height: 1024 },
  { width: 390, height: 844 },
];

/** No serious fault of access, and nothing wider than the window. */
async function check(page: Page, where: string) {
  await noGraveFaults(page, where);
  await fits(page, where);
}

async function fits(page: Page, where: string) {
  const [inner, whole] = await page.evaluate(() => [window.innerWidth, document.documentElement.scrollWidth]);
  expect([where, whole]).toEqual([where, inner]);
}

/** Every page at every width: wide and narrow for access too, the widths between for overflow alone. */
async function checkAll(page: Page, paths: readonly string[]) {
  for (const path of paths) {
    await page.goto(path);
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    for (const size of sizes) {
      await page.setViewportSize(size);
      await (size.width === 768 ? fits : check)(page, `${path} at ${size.width}`);
    }
  }
}

test("no screen of a run has serious faults of access, at any width, and none overflows", async ({
  page,
}) => {
  test.setTimeout(360_000);
  await startRun(page, "Access");
  await typeReadings(page, [...weighing("2.6106", "2.1000"), ...titration("0.00", "25.00")]);
  await typeReadings(page, [...weighing("2.5901", "2.1000"), ...titration(null, "49.01")]);
  const run = new URL(page.url()).pathname;
  await page.getByRole("textbox", { name: "Boat with solid, g" }).fill("2.6");
  await page.getByRole("textbox", { name: "Boat with solid, g" }).press("Enter");
  await check(page, "run with a refused reading");
  await checkAll(page, [
    "/",
    run,
    `${run}?stage=determine`,
    `${run}?stage=conclude`,
    `${run}/working`,
    "/house-rules",
    "/nowhere",
  ]);
  await page.goto("/");
  await page.getByRole("button", { name: "Start a run" }).click();
  await expect(page.getByRole("dialog")).toBeVisible();
  await colorsSettled(page);
  await check(page, "start a run");
});

test(
  "no screen of the library, the shelf and the calculators has serious faults of access, and none overflows",
  long,
  async ({ page }) => {
    test.setTimeout(360_000);
    await checkAll(page, [
      "/methods",
      "/methods/water-hardness",
      "/methods/kappa-number/plan",
      "/methods/new",
      "/shelf",
      "/shelf/new",
      "/shelf/new?as=series",
      "/shelf/labels",
      "/shelf/lineage",
      "/calculate?what=curve",
      "/calculate?what=concentration",
      "/history",
      "/history/import",
      "/history/import/table",
    ]);
  },
);

import { readFileSync } from "node:fs";
import { confirmVolumes, expect, noGraveFaults, openRun, test } from "./app";
import { absorbance, inHand, noOverflow, read, takeUsualWavelength, typeOnce } from "./photometer";

test("A phosphate assay: blank, standards, a class's readings pooled, one struck out, an unknown against a limit", async ({
  page,
}) => {
  await openRun(page, "phosphate-as-molybdenum-blue", "Phosphate of the lagoon");
  await takeUsualWavelength(page, 880, "Read the standards");

  await read(page, "Blank", "0.001");
  await absorbance(page).fill("7.2");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("7.2 is more than 4");
  await absorbance(page).fill("0,4x");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText('"x" is not a digit');
  await expect(absorbance(page)).toHaveValue("0,4x");
  await absorbance(page).fill("");
  await read(page, "Flask with 0.00 mL", "0.002");
  await read(page, "Flask with 2.00 mL", "0,141");
  await expect(page.getByRole("region", { name: "The line", exact: true })).toContainText(
    "needs at least 3 different standards",
  );
  await read(page, "Flask with 4.00 mL", "0.280");
  await read(page, "Flask with 6.00 mL", "0.421");
  await read(page, "Flask with 8.00 mL", "0.561");
  await read(page, "Flask with 10.00 mL", "0.700");

  // The class's table, with a cell that is no number at first: nothing has been entered yet, nothing typed is lost.
  await page.getByRole("button", { name: "A class’s readings …" }).click();
  const table = page.getByRole("textbox", { name: "Table" });
  await table.fill(
    "mL\tBench 2\tBench 3\n0.00\t0.001\t0.003\n2.00\t0.139\t0.142\n4.00\t0.2x1\t0.279\n6.00\t0.419\t0.420\n8.00\t0.559\t0.860\n10.00\t0.702\t0.699\n",
  );
  await expect(page.getByTestId("table-problems")).toHaveText('Row 4, column 2: "0.2x1" is no number');
  await page.getByRole("button", { name: "Take the readings" }).click();
  await expect(page.getByRole("alert")).toContainText("nothing has been entered yet");
  await table.fill((await table.inputValue()).replace("0.2x1", "0.281"));
  await page.getByRole("button", { name: "Take 12 readings" }).click();
  await expect(page.getByRole("dialog")).toBeHidden();

  // Bench 3 wrote 0.860 for 0.560: it is told, and struck out only by hand.
  const wrong = page.getByRole("button", { name: /^Reading 0.860, off the line, by Bench 3/ });
  await wrong.click();
  await page.getByRole("button", { name: "Strike it out" }).click();
  await expect(page.getByRole("dialog")).toContainText("Say why it is struck out");
  await page
    .getByRole("button", { name: "misread" })
    .or(page.getByRole("button", { name: "wrong flask" }))
    .first()
    .click();
  await page.getByRole("button", { name: "Strike it out" }).click();
  await expect(page.getByRole("button", { name: /^Reading 0.860, struck out/ })).toBeVisible();
  await expect(page.getByTestId("line-numbers")).toContainText("per mg/L");
  await expect(page.getByTestId("line-advice")).toContainText("as closely as the readings scatter");
  await noGraveFaults(page, "standards");

  // A standard once more at the end: it shows drift, is no part of the line, and the next reading is a plain one again.
  await page.getByRole("button", { name: "6.00 mL", exact: true }).click();
  await page.getByRole("button", { name: "check" }).click();
  await page.getByRole("textbox", { name: "Second absorbance reading" }).fill("0.470");
  await page.keyboard.press("Enter");
  await expect(page.getByText(/At the end standard 4 read 0.470 and not 0.420/)).toBeVisible();
  await expect(absorbance(page)).toHaveValue("");
  await expect(page.getByText("recheck: 0.470")).toBeVisible();

  await page.getByRole("combobox", { name: "Line" }).click();
  await page.getByRole("option", { name: "through the origin" }).click();
  await expect(page.getByTestId("line-numbers")).not.toContainText("Intercept");
  await page.getByRole("button", { name: /^Undo: choice of model/ }).click();
  await expect(page.getByTestId("line-numbers")).toContainText("Intercept");

  // The chart as a file, and as a table.
  const saved = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save as SVG" }).click();
  const svg = readFileSync(await (await saved).path(), "utf8");
  expect(svg).toContain("<svg");
  expect(svg).toContain("Phosphorus in the flask, mg/L");
  await page.getByText("The same as a table").click();
  await expect(page.getByRole("cell", { name: "0.280", exact: true })).toBeVisible();

  await page.getByRole("link", { name: "Go on: Read the unknown" }).click();
  await typeOnce(page, /^Limit type it/, "1.20");
  await expect(inHand(page)).toHaveText("Unknown, flask 1");
  await confirmVolumes(page);
  await read(page, "Unknown, flask 1", "0.351");
  await read(page, "Unknown, flask 1", "0.349");
  // (0.350 - a) / b with a near 0.0015 and b near 0.6985, twice for 25 mL in 50 mL: 0.998 mg/L.
  await expect(page.getByTestId("result")).toContainText(/^(0\.99\d|1\.00\d?) ± 0\.0\d+ mg\/L/);
  await expect(page.getByTestId("acceptance")).toContainText(
    "clearly below the limit, 1.200 mg/L. It passes.",
  );
  await page.getByRole("combobox", { name: "Shown in" }).click();
  await page.getByRole("option", { name: "µg/L" }).click();
  await expect(page.getByTestId("result")).toContainText(/^(99\d|100\d) ± \d+ µg\/L/);
  await page.getByRole("button", { name: /^Undo: choice of unit/ }).click();
  await expect(page.getByTestId("result")).toContainText("mg/L");
  await page.getByRole("button", { name: "Another flask of it" }).click();
  await read(page, "Unknown, flask 2", "1.010");
  await expect(page.getByRole("region", { name: "Flasks of the unknown" })).toContainText(
    /lies 4\d % above the strongest standard.*dilute it/,
  );
  await page.getByRole("button", { name: "Strike out flask 2" }).click();
  await page.getByRole("dialog").getByRole("textbox", { name: "Reason" }).fill("not diluted");
  await page.getByRole("button", { name: "Strike out", exact: true }).click();
  await page.getByRole("button", { name: "Draw ten thousand lines" }).click();
  await expect(page.getByTestId("bootstrap")).toContainText("by the redrawn lines");
  await noGraveFaults(page, "unknown");
  await noOverflow(page);

  await page.getByRole("link", { name: "Show the working" }).click();
  await expect(page.getByText("Phosphorus in the flask, read off the line")).toBeVisible();
  await page.getByRole("link", { name: "Back to the run" }).click();
  await page.getByRole("link", { name: "Go on: Conclude" }).click();
  await page.getByRole("button", { name: "Finish the run" }).click();
  await expect(page.getByText("Its readings are kept as they stand.")).toBeVisible();
});

test("A wavelength from a scan: a file that was cut off is told, the simulated spectrometer proposes its top", async ({
  page,
}) => {
  await openRun(page, "copper-with-ammonia", "Copper of the rinse");
  const cut =
    "##TITLE=x\n##JCAMP-DX=4.24\n##XUNITS=NANOMETERS\n##YUNITS=ABSORBANCE\n##FIRSTX=400\n##LASTX=402\n##NPOINTS=3\n##XFACTOR=1\n##YFACTOR=1\n##XYDATA=(X++(Y..Y))\n400 1 2";
  const file = page.getByLabel("From a file (CSV, JCAMP-DX)", { exact: true }).and(page.locator("input"));
  await file.setInputFiles({ name: "cut.jdx", mimeType: "text/plain", buffer: Buffer.from(cut) });
  await expect(page.getByRole("alert")).toContainText("It ends without ##END=: the file was cut off");
  await page.getByRole("button", { name: "Scan with the simulated spectrometer" }).click();
  const proposed = page.getByTestId("proposed-wavelength").first();
  await expect(proposed).toContainText("Largest absorbance, so the most sensitive");
  await noGraveFaults(page, "spectrum");
  const saved = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save as JCAMP-DX" }).click();
  const kept = readFileSync(await (await saved).path(), "utf8").replaceAll("\r", "");
  // Each point of 400 to 760 nm by 2, with the three decimals of the display.
  expect(kept.match(/^\d{3}, -?\d\.\d{3}$/gm)).toHaveLength(181);
  await proposed.getByRole("button", { name: /^Take 6[12]\d nm/ }).click();
  await expect(page.getByTestId("result-wavelength")).toHaveText(/^6[12]\d nm$/);

  // The simulated photometer reads the blank and the first flask; what it showed is marked as its own.
  await page.getByRole("link", { name: "Go on: Read the standards" }).click();
  await page.getByRole("button", { name: "Connect the simulated photometer" }).click();
  await expect(page.getByText("● steady")).toBeVisible();
  await page.getByRole("button", { name: "Zero" }).click();
  await page.getByRole("button", { name: "Take the reading" }).click();
  await expect(inHand(page)).toHaveText("Flask with 2.00 mL");
  await expect(page.getByText("○ settling")).toBeVisible();
  await expect(page.getByText("● steady")).toBeVisible();
  await page.getByRole("button", { name: "Take the reading" }).click();
  await expect(page.getByRole("button", { name: /^Reading 0\.1\d\d/ })).toBeVisible();
});

/** 120 s of a first-order course with a little ripple, in thousandths. */
const courseCsv = (k: number) =>
  [
    "time,absorbance",
    ...Array.from(
      { length: 121 },
      (_, t) => `${t},${(0.9 * Math.exp(-k * t) + 0.001 * Math.sin(2.5 * t)).toFixed(3)}`,
    ),
  ].join("\n");

test("A rate run to its order: courses from files and from the instrument, a window, the order in what is in excess", async ({
  page,
}) => {
  await openRun(page, "fading-of-a-dye", "Fading of the tracer");
  await takeUsualWavelength(page, 590, "Follow the fading");
  await typeOnce(page, /^Temperature type it/, "21.5");

  const base = page.getByRole("textbox", { name: "Hydroxide in the cuvette, mol/L" });
  const file = page.getByLabel("From a file (CSV, JCAMP-DX)", { exact: true }).and(page.locator("input"));
  const bring = (name: string, text: string) =>
    file.setInputFiles({ name, mimeType: "text/csv", buffer: Buffer.from(text) });
  await bring("first.csv", courseCsv(0.012));
  await expect(page.getByText("Nothing has been typed yet")).toBeVisible();
  await base.fill("0,100");
  await bring("back.csv", "0,0.9\n1,0.8\n0.5,0.7\n");
  await expect(page.getByRole("alert")).toContainText("Line 3: 0.5 s after 1 s: the time goes back");
  await expect(base).toHaveValue("0,100");
  await bring("first.csv", courseCsv(0.012));
  await expect(page.getByTestId("order-verdict")).toHaveText(
    "First order clearly fits best. Its plot is also the straightest.",
  );
  await expect(page.getByTestId("order-1")).toContainText("taken");
  await expect(page.getByTestId("result")).toContainText(/^0\.1[12]\d+ ± 0\.0\d+ L\/\(mol·s\)/);

  // The window by keyboard: from 0 to 10 s on.
  const from = page.getByRole("slider", { name: "Window from, s" });
  await from.focus();
  for (let i = 0; i < 10; i++) await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Tab");
  await expect(page.getByText("Window 10 to 120 s")).toBeVisible();
  await expect(page.getByRole("button", { name: "Whole run" })).toBeVisible();

  // The course falls to nothing, and an end that is fitted says so: its k stays within the ± it had.
  const levelsOff = page.getByRole("switch", { name: /^Fit the end absorbance/ });
  await levelsOff.click();
  await expect(page.getByTestId("order-1")).toContainText(/end ?-?−?0\.000\d* ± /);
  await levelsOff.click();
  await expect(page.getByTestId("order-1")).not.toContainText("end");

  await page.getByTestId("order-2").getByRole("button", { name: "Use second order" }).click();
  await expect(page.getByTestId("order-2")).toContainText("Second order, taken");
  await expect(page.getByTestId("result")).not.toContainText("L/(mol·s)");
  await page.getByRole("button", { name: "Let the data decide" }).click();
  await expect(page.getByTestId("order-1")).toContainText("First order, taken");

  await page.getByRole("button", { name: "New kinetic run" }).click();
  // What is typed of the cuvette outlives the page, and is asked about and refused where any other field would be.
  await base.fill("0.200");
  await page.reload();
  await page.getByRole("button", { name: "New kinetic run" }).click();
  await expect(base).toHaveValue("0.200");
  await base.fill("");
  await page.getByRole("button", { name: "Take it with the simulated photometer" }).click();
  await expect(page.getByRole("region", { name: "New kinetic run" })).toContainText(
    "Nothing has been typed yet",
  );
  await base.fill("0.200");
  // A field that was emptied again leaves nothing behind for the cuvette after it.
  const spread = page.getByRole("textbox", { name: "± of it, mol/L" });
  await spread.fill("0.001");
  await spread.fill("");
  await bring("second.csv", courseCsv(0.024));
  await expect(page.getByTestId("dependence")).toContainText("so 1");
  await noGraveFaults(page, "rate");
  await noOverflow(page);

  await page.getByRole("button", { name: "New kinetic run" }).click();
  await base.fill("0.050");
  await page.getByRole("button", { name: "Take it with the simulated photometer" }).click();
  await expect(page.getByRole("button", { name: "Stop, and keep nothing" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Kinetic run 3, 0.050 mol/L" })).toBeVisible({
    timeout: 60_000,
  });
  await expect(page.getByTestId("order-1")).toContainText("taken");
  await page.getByRole("link", { name: "Go on: Conclude" }).click();
  await page.getByRole("button", { name: "Finish the run" }).click();
  await expect(page.getByText("Its readings are kept as they stand.")).toBeVisible();
});

test("A course of ten thousand points is drawn, fitted and narrowed without the page standing still", async ({
  page,
}) => {
  await openRun(page, "fading-of-a-dye", "Long fading");
  await takeUsualWavelength(page, 590, "Follow the fading");
  await page.getByRole("textbox", { name: "Hydroxide in the cuvette, mol/L" }).fill("0.100");
  const long = Array.from(
    { length: 10_000 },
    (_, i) => `${i / 50},${(0.9 * Math.exp(-0.01 * (i / 50)) + 0.002 * Math.sin(i)).toFixed(4)}`,
  );
  await page
    .getByLabel("From a file (CSV, JCAMP-DX)", { exact: true })
    .and(page.locator("input"))
    .setInputFiles({ name: "long.csv", mimeType: "text/csv", buffer: Buffer.from(long.join("\n")) });
  await expect(page.getByTestId("order-verdict")).toContainText("First order clearly fits best");
  await expect(page.getByText("Temperature is still to be typed")).toBeVisible();
  await expect(page.locator("canvas").first()).toBeVisible();
  const chart = page.getByRole("img", { name: /Absorbance in time, 10000 readings/ });
  await chart.hover();
  await page.keyboard.down("Control");
  await page.mouse.wheel(0, -400);
  await page.keyboard.up("Control");
  await page.getByRole("slider", { name: "Window to, s" }).press("Home");
  await expect(page.getByText("Window 0 to 0 s")).toBeVisible();
  await expect(page.getByText(/lies in the window: an order needs 8/).first()).toBeVisible();
});

import type { Page } from "@playwright/test";
import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { shortLived } from "./lab-template";
import {
  chooseMethod,
  expect,
  ledgerRow,
  long,
  saveRules,
  startRun,
  test,
  titration,
  typeReadings,
  weighing,
} from "./app";

/*
 * By hand, with M = 204.222 g/mol, purity 100.00 ± 0.05 %, 50 mL class A burette (±0.05), 25 mL class A pipette (±0.03),
 * triangular; room ±3 °C rectangular; balance ±0.2 mg linearity; readings ±0.02 mL triangular.
 *
 * Standardization (mass, titer, c = 1000 m / 204.222 / V, titer per 0.51 g):
 *   rough  0.5104 g  24.60 mL
 *   1      0.5106 g  25.00 mL  0.100009  24.971
 *   2      0.4901 g  24.01 mL  0.099951  24.985
 *   3      0.5310 g  25.98 mL  0.100082  24.953
 *   mean c = 0.300042 / 3 = 0.100014; s = 0.000066; s/√3 = 0.0000378
 *   What reading alone makes: √2 · 0.02/√6 mL in 25 mL = 0.000462 a trial, over √3: 0.0000267: the scatter is larger.
 *   Shared: burette 0.05/√6/25 = 0.000817; temperature 2.1e-4 · 3/√3 = 0.000364; purity 0.0005/√3 = 0.000289;
 *   weighing 0.0002/√3 · √2/0.51/√3 = 0.000185; molar mass 0.000047; together 0.000959 of 0.1 = 0.0000959
 *   u = √(0.0000378² + 0.0000959²) = 0.000103; k = 2: 0.00021. So 0.10001 ± 0.00021.
 * Determination, 25.00 mL aliquots, titers 20.00, 20.06, 19.98: mean 20.0133
 *   c = 0.100014 · 20.0133 / 25.00 = 0.080065
 *   s of titers 0.0416 mL, /√3 = 0.0240 mL: 0.00120 of c; burette 0.0204/20.01 = 0.00102; pipette 0.0122/25 = 0.00049;
 *   base 0.00103; together 0.00195 · 0.080065 = 0.000156; k = 2: 0.00031. So 0.08006 or 0.08007 ± 0.00031.
 */
test("the whole job by keyboard, from an empty database, through a restart of the server", async ({
  page,
}) => {
  const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-job-"));
  const server = shortLived(folder, 4178);
  await server.start();
  try {
    await page.goto(server.url);
    await expect(page.getByText("Welcome to Steady Bead")).toBeVisible();
    await page.getByRole("button", { name: "Start a run" }).focus();
    await page.keyboard.press("Enter");
    await chooseMethod(page);
    await page.keyboard.press("Tab");
    await page.keyboard.press("Tab");
    await page.keyboard.type("Rinse acid of the tern pool");
    await page.keyboard.press("Enter");
    const verdict = page.getByTestId("verdict");
    const result = page.getByTestId("result");

    await test.step("rough standardization, marked so by keyboard", async () => {
      await expect(page.getByRole("textbox", { name: "Boat with solid, g" })).toBeFocused();
      await page.keyboard.press("Alt+r");
      await expect(page.getByRole("button", { name: "rough", exact: true })).toHaveAttribute(
        "aria-pressed",
        "true",
      );
      await typeReadings(page, weighing("2.6104", "2.1000"));
      await expect(page.getByText("0.5104 g")).toBeVisible();
      // 0.5104 / 204.222 / 0.1 mol/L = 24.99 mL: what the method presumes is not known, until somebody takes it for it.
      await typeReadings(page, [["Initial reading, mL", "0.05"]]);
      await expect(page.getByRole("status")).toContainText(
        "the end point is not known: titrate a rough one first. The method presumes it near 25.0 mL.",
      );
      await page.getByRole("button", { name: "Expect that" }).press("Enter");
      // Slow at 24.99 + 0.05 - 2.5 = 22.5.
      await expect(page.getByRole("status")).toContainText("run freely to 22.5");
      await expect(page.getByRole("status")).toContainText("near 25.0");
      await typeReadings(page, [["Final reading, mL", "24.65"]]);
      await expect(ledgerRow(page, "rough")).toContainText("24.60");
      await expect(verdict).toContainText("Only the rough trial is there, and it does not count");
    });

    await test.step("three fine standardizations", async () => {
      await typeReadings(page, weighing("2.6106", "2.1000"));
      // The final reading of the trial before is offered as the next initial one; here the burette was refilled.
      await expect(page.getByRole("textbox", { name: "Initial reading, mL" })).toHaveValue("24.65");
      await page.getByRole("button", { name: "Refilled" }).press("Enter");
      await typeReadings(page, titration("0.00", "25.00"));
      await expect(ledgerRow(page, "1")).toContainText("0.10001");
      await typeReadings(page, [...weighing("2.5901", "2.1000"), ...titration(null, "49.01")]);
      await expect(ledgerRow(page, "2")).toContainText("24.01");
      await expect(ledgerRow(page, "2")).toContainText("0.09995");
      // 24.971 and 24.985 per 0.50 g or 0.51 g lie within 0.01 mL.
      await expect(verdict).toContainText("Trials 1 and 2 lie within 0.01 mL");
      await typeReadings(page, weighing("2.6310", "2.1000"));
      await page.getByRole("button", { name: "Refilled" }).press("Enter");
      await typeReadings(page, [["Initial reading, mL", "0.20"]]);
      // Typed digit by digit, the titer and the verdict follow before anything is saved.
      await page.keyboard.type("26.18");
      await expect(page.getByTestId("so-far-V")).toHaveText("25.98");
      await expect(verdict).toContainText("Trials 1, 2 and 3 lie within 0.03 mL per 0.51 g");
      await page.keyboard.press("Enter");
      await expect(ledgerRow(page, "3")).toContainText("0.10008");
      await expect(result).toHaveText("0.10001± 0.00021 mol/L");
    });

    await test.step("three aliquots of the acid", async () => {
      const goOn = page.getByRole("link", { name: "Go on: Titrate the acid" });
      await expect(goOn).toBeFocused();
      await page.keyboard.press("Enter");
      await expect(page.getByRole("button", { name: "rough", exact: true })).toHaveAttribute(
        "aria-pressed",
        "true",
      );
      await page.keyboard.press("Alt+r");
      await typeReadings(page, [["Aliquot of acid, mL", null], ...titration("0.00", "20.00")]);
      await typeReadings(page, [["Aliquot of acid, mL", null], ...titration(null, "40.06")]);
      await expect(verdict).toContainText(
        "Trials 1 and 2 lie within 0.06 mL. House rule: three within 0.10 mL",
      );
      // 20.06 - 0.10 to 20.00 + 0.10
      await expect(page.getByTestId("next-trial")).toHaveText(
        "One more trial between 19.96 and 20.10 mL closes the set",
      );
      // 40.06 + 20.03 lies beyond the last mark.
      await expect(page.getByRole("status")).toContainText("Refill the burette first");
      await typeReadings(page, [["Aliquot of acid, mL", null]]);
      await page.getByRole("button", { name: "Refilled" }).press("Enter");
      await typeReadings(page, titration("0.10", "20.08"));
      await expect(result).toHaveText(/^0\.0800[67]± 0\.00031 mol\/L$/);
      await expect(page.getByText("mean of 3, k = 2")).toBeVisible();
    });

    const everything = async () => {
      await expect(page.getByTestId("result")).toHaveText(/^0\.0800[67]± 0\.00031 mol\/L$/);
      for (const [name, final] of [
        ["1", "20.00"],
        ["2", "40.06"],
        ["3", "20.08"],
      ] as const) {
        await expect(ledgerRow(page, name)).toContainText(final);
      }
    };
    await test.step("true after a reload, a clean stop and a start, and a kill", async () => {
      await page.reload();
      await everything();
      expect(await server.stop("SIGINT")).toBe(0);
      await server.start();
      await page.reload();
      await everything();
      await server.stop("SIGKILL");
      await server.start();
      await page.reload();
      await everything();
    });

    await test.step("concluded, reported, taken along as files that prove themselves", async () => {
      await page.getByRole("link", { name: "Go on: Conclude" }).focus();
      await page.keyboard.press("Enter");
      await expect(page.getByTestId("result-standardize")).toHaveText("0.10001 ± 0.00021 mol/L");
      await page.getByRole("button", { name: "Finish the run" }).press("Enter");
      await expect(page.getByRole("button", { name: "Reopen the run" })).toBeVisible();
      await page.getByRole("link", { name: "Report and files" }).press("Enter");
      await expect(page.getByTestId("report-result")).toHaveText(/^0\.0800[67] ± 0\.00031 mol\/L$/);
      // Three trials of each stage; the rough one stands there too, and does not count.
      await expect(page.getByRole("row", { name: /in the result$/ })).toHaveCount(6);
      await expect(page.getByRole("row", { name: /rough, does not count$/ })).toHaveCount(1);
      await filesProveThemselves(page, folder);
    });

    await test.step("found among the finished", async () => {
      await page.getByRole("link", { name: "Back to the run" }).press("Enter");
      await expect(page.getByRole("button", { name: "Reopen the run" })).toBeVisible();
      await page.keyboard.press("Alt+b");
      await page.getByRole("searchbox").fill("tern pool");
      await expect(
        page.getByRole("link", { name: "Rinse acid of the tern pool", exact: true }),
      ).toBeVisible();
      await expect(page.getByText(/0\.0800[67] ± 0\.00031 mol\/L/)).toBeVisible();
      await page.getByRole("searchbox").fill("no such acid");
      await expect(page.getByText("No finished run matches “no such acid”.")).toBeVisible();
    });
  } finally {
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});

/** A file of the report's list, as it is downloaded. */
async function downloaded(page: Page, name: RegExp, folder: string): Promise<string> {
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name }).click(),
  ]);
  const file = path.join(folder, download.suggestedFilename());
  await download.saveAs(file);
  return file;
}

/** What a command of `bin/` says, and how it ends. */
const said = (command: string, ...args: readonly string[]) => {
  const { status, stdout } = spawnSync(`bin/${command}`, args, { encoding: "utf8" });
  return { status, stdout };
};

/** The record computes to what the screen shows, is as it was written, and names the reading that somebody altered. */
async function filesProveThemselves(page: Page, folder: string): Promise<void> {
  const file = await downloaded(page, /^Run record, signed/, folder);
  const shown = await page.getByTestId("report-proof").innerText();
  const key = /Key of this lab \(Ed25519\): ([0-9a-f ]+)/.exec(shown)?.[1]?.trim() ?? "";
  const whole = said("verify", file, "--key", key);
  expect(whole.stdout).toContain("is as it was written");
  expect(whole.status).toBe(0);
  const record = JSON.parse(readFileSync(file, "utf8")) as { proof: { head: string } };
  expect(shown).toContain(record.proof.head);
  expect(said("recompute", file).stdout).toMatch(/0\.0800[67] ± 0\.00031 mol\/L/);
  const altered = path.join(folder, "altered.json");
  writeFileSync(altered, readFileSync(file, "utf8").replaceAll('"40.06"', '"40.05"'));
  const after = said("verify", altered);
  expect(after.stdout).toMatch(/Altered: reading 40\.05 mL .*Titrate the acid/);
  expect(after.status).toBe(1);
  const readings = readFileSync(await downloaded(page, /^Readings/, folder), "utf8").split("\r\n");
  expect(readings[0]).toContain("as typed,value,unit");
  expect(readings.some((line) => /,40\.06,40\.06,mL,/.test(line))).toBe(true);
  const sheet = readFileSync(await downloaded(page, /^Spreadsheet/, folder));
  expect(sheet.subarray(0, 2).toString()).toBe("PK");
}

test("QUAM example A2, typed into the interface under its own house rules", long, async ({ page }) => {
  await page.goto("/house-rules");
  const choose = async (label: string, option: string) => {
    await page.getByRole("combobox", { name: label, exact: true }).click();
    await page.getByRole("option", { name: option, exact: true }).click();
  };
  const fill = (label: string, text: string) => page.getByRole("textbox", { name: label }).fill(text);
  const typical = {
    "Trials that must agree": "3",
    "Repeatability known, %": "",
    "Reading uncertainty ±, mL": "0.02",
  };
  await fill("Trials that must agree", "1");
  await fill("Repeatability known, %", "0,05");
  await fill("Reading uncertainty ±, mL", "0");
  await fill("Linearity ±, g", "0.00015");
  await choose("What follows ±", "u, standard uncertainty");
  await choose("Capacity", "25 mL");
  await choose("Distribution of the room temperature", "in 95 cases of 100");
  await saveRules(page);
  await expect(page.getByText("Saved. Runs begun from now on follow them.")).toBeVisible();

  await startRun(page, "QUAM A2");
  await typeReadings(page, [...weighing("60.5450", "60.1562"), ...titration("0.00", "18.64")]);
  // c = 1000 · 0.3888 · 1.0000 / (204.2212 · 18.64) = 0.10214 mol/L, u = 0.00010 mol/L
  await expect(page.getByTestId("result")).toHaveText("0.10214± 0.00010 mol/L");
  await expect(page.getByText("Largest contribution to the ±: burette, 25 mL class A")).toBeVisible();
  await page.getByRole("link", { name: "Show the working" }).click();
  await expect(page.getByRole("group", { name: "0.10214 ± 0.00010 mol/L" })).toBeVisible();

  await page.goto("/house-rules");
  for (const [label, text] of Object.entries(typical)) await fill(label, text);
  await fill("Linearity ±, g", "0.0002");
  await choose("What follows ±", "twice u (k = 2)");
  await choose("Capacity", "50 mL");
  await choose("Distribution of the room temperature", "anywhere within");
  await saveRules(page);
  await expect(page.getByText("Saved. Runs begun from now on follow them.")).toBeVisible();
});

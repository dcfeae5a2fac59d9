import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { AppServer } from "../scripts/app-server";
import {
  chooseMethod,
  expect,
  follow,
  ledgerRow,
  long,
  startRun,
  test,
  titration,
  typeReadings,
  weighing,
} from "./app";

/* Without the network: pages that were open are there, work goes on, and nothing is lost. */

test.use({ serviceWorkers: "allow" });

const kept = "Kept in this browser";

test("with the server gone: reload, go on, end the browser's page, and all is sent from another screen", async ({
  page,
  app,
}) => {
  test.setTimeout(400_000);
  // A page is kept once somebody stays on it; what is saved afterwards the browser knows beside.
  const isKept = (at: string) =>
    expect
      .poll(() => page.evaluate((path) => caches.match(path, { ignoreVary: true }).then(Boolean), at), {
        timeout: 60_000,
      })
      .toBe(true);
  await page.goto("/");
  await isKept("/");
  await startRun(page, "In the basement");
  const run = new URL(page.url()).pathname;
  await typeReadings(page, weighing("2.6106", "2.1000"));
  await isKept(run);
  await typeReadings(page, titration("0.00", "25.00"));
  await expect(ledgerRow(page, "1")).toContainText("25.00");
  await app.stop();
  try {
    await expect(page.getByText("The server does not answer.")).toBeVisible();
    await page.reload();
    await expect(ledgerRow(page, "1")).toContainText("0.10001");
    await typeReadings(page, [...weighing("2.5901", "2.1000"), ...titration(null, "49.01")]);
    await expect(page.getByRole("region", { name: kept })).toContainText(/\d+ changes are waiting/);
    // Another stage in the address than the one that was kept.
    await page.goto(`${run}?stage=determine`);
    await expect(page.getByRole("heading", { level: 1, name: "In the basement" })).toBeVisible();
    await page.goto(`${run}?stage=standardize`);
    await expect(ledgerRow(page, "2")).toContainText("24.01");
    // A page that was never open says so, and the way back is there.
    await page.goto("/calculate");
    await expect(page.getByRole("heading", { name: "The server cannot be reached" })).toBeVisible();
    await page.getByRole("link", { name: "Go to the bench" }).click();
    await expect(page.getByRole("heading", { name: "On the bench" })).toBeVisible();
    await expect(page.getByText(/\d+ changes of a run wait in this browser/)).toBeVisible();
  } finally {
    await app.start();
  }
  // The run's page is not open: the bench sends what waits.
  await expect(page.getByText(/wait in this browser for the server/)).toBeHidden({ timeout: 60_000 });
  await expect(page.getByText("The server does not answer.")).toBeHidden();
  await page.goto(run);
  await expect(ledgerRow(page, "2")).toContainText("24.01");
  await expect(page.getByRole("region", { name: kept })).toHaveCount(0);
});

test("a new version waits until somebody says so, and what was typed is there under it", async ({ page }) => {
  const file = path.resolve("build/client/sw.js");
  const before = readFileSync(file, "utf8");
  await startRun(page, "Between versions");
  await page.evaluate(() => navigator.serviceWorker.ready);
  const boat = page.getByRole("textbox", { name: "Boat with solid, g" });
  await boat.fill("2.61");
  const old = await page.evaluate(() => performance.timeOrigin);
  try {
    writeFileSync(file, `${before}\n// a newer one\n`);
    await page.evaluate(async () => void (await (await navigator.serviceWorker.ready).update()));
    await expect(page.getByText("A new version is ready.")).toBeVisible();
    // Nothing moved under the hand.
    expect(await page.evaluate(() => performance.timeOrigin)).toBe(old);
    await page.getByRole("button", { name: "Use it now" }).click();
    await expect
      .poll(() => page.evaluate(() => performance.timeOrigin).catch(() => old))
      .toBeGreaterThan(old);
    await expect(boat).toHaveValue("2.61");
    await expect(page.getByText("A new version is ready.")).toHaveCount(0);
  } finally {
    writeFileSync(file, before);
  }
});

test("a certificate makes it https; half of one is told", long, async ({ browser }) => {
  const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-tls-"));
  const [cert, key] = [path.join(folder, "cert.pem"), path.join(folder, "key.pem")];
  const { execFileSync } = await import("node:child_process");
  execFileSync("openssl", [
    ..."req -x509 -newkey ec -pkeyopt ec_paramgen_curve:prime256v1 -nodes -days 2 -subj /CN=localhost".split(
      " ",
    ),
    ...["-keyout", key, "-out", cert],
  ]);
  const half = new AppServer(path.join(folder, "lab"), 4189, "ignore", { TLS_CERT: cert });
  await expect(half.start()).rejects.toThrow(/ended with 1/);
  const server = new AppServer(path.join(folder, "lab"), 4189, "inherit", { TLS_CERT: cert, TLS_KEY: key });
  await server.start();
  const context = await browser.newContext({ ignoreHTTPSErrors: true });
  try {
    const page = follow(await context.newPage());
    await page.goto("https://127.0.0.1:4189/");
    await page.getByRole("button", { name: "Start a run" }).click();
    await chooseMethod(page);
    await page.getByRole("textbox", { name: "Title" }).fill("Behind a certificate");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("heading", { level: 1, name: "Behind a certificate" })).toBeVisible();
  } finally {
    await context.close();
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});

import { type ChildProcess, spawn } from "node:child_process";
import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import { expect, startRun, test, typeReadings, weighing } from "./app";
import { load } from "../scripts/load";
import { powercut } from "../scripts/powercut";
import { soak } from "../scripts/soak";

test("the power goes in the middle of the writes of ten clients, on a disk that forgets what was not flushed", async () => {
  const lines: string[] = [];
  const report = await powercut(2, 4184, (line) => lines.push(line));
  expect(report.confirmed, lines.join("\n")).toBeGreaterThan(50);
  expect(report.lost, lines.join("\n")).toEqual([]);
  expect(report.findings).toEqual([]);
});

test("a class at once: eight benches and sixteen screens for a few seconds, nothing lost and nothing doubled", async () => {
  const plan = { benches: 8, screens: 16, everyMs: 600, seconds: 8 };
  const report = await load(plan, 4192, () => undefined);
  expect(report.readings).toBeGreaterThan(40);
  expect([report.lost, report.doubled, report.apart]).toEqual([0, 0, 0]);
});

test("killed in the middle of writes, twice: every confirmed reading is there", async () => {
  test.setTimeout(360_000);
  const lines: string[] = [];
  const report = await soak(2, 4182, (line) => lines.push(line));
  expect(lines).toHaveLength(2);
  expect(report.confirmed).toBeGreaterThan(8);
  expect(report.lost).toEqual([]);
});

/** The built server on a disk that fails when told to. */
function faultyServer(folder: string, port: number) {
  const flag = `${folder}.fault`;
  const preload = path.resolve("e2e/faulty-disk.mjs");
  let child: ChildProcess | null = null;
  let output = "";
  const start = () =>
    new Promise<number | null>((resolve) => {
      output = "";
      const started = spawn(process.execPath, ["--import", preload, "scripts/serve.mjs"], {
        env: {
          ...process.env,
          DATA_DIR: folder,
          PORT: String(port),
          HOST: "127.0.0.1",
          NODE_ENV: "production",
          FAULT_FLAG: flag,
          FAULT_FOLDER: folder,
        },
      });
      child = started;
      for (const stream of [started.stdout, started.stderr]) {
        stream.on("data", (text: Buffer) => {
          output += text.toString();
          if (output.includes("is ready at")) resolve(null);
        });
      }
      started.once("exit", resolve);
    });
  const stop = async (signal: NodeJS.Signals) => {
    const gone = new Promise((resolve) => child?.once("exit", resolve));
    child?.kill(signal);
    await gone;
  };
  return {
    url: `http://127.0.0.1:${port}`,
    start,
    stop,
    output: () => output,
    fail: (code: "ENOSPC" | "EROFS") => writeFileSync(flag, code),
    mend: () => rmSync(flag, { force: true }),
  };
}

test("a folder that cannot be written to is reported at the start, and a full disk as well", async ({}, info) => {
  const folder = info.outputPath("data");
  mkdirSync(path.dirname(folder), { recursive: true });
  const server = faultyServer(folder, 4184);
  server.fail("EROFS");
  expect(await server.start()).toBe(1);
  expect(server.output()).toMatch(/^The data folder .* cannot be written to\. Give this user the right/m);
  expect(server.output()).not.toMatch(/\n\s+at /);
  server.fail("ENOSPC");
  expect(await server.start()).toBe(1);
  expect(server.output()).toMatch(/^The disk is full: nothing more can be saved/m);
});

test("a disk that fills up in the middle: readings wait, the screen says why, and all is saved once there is room", async ({
  page,
}, info) => {
  const server = faultyServer(info.outputPath("data"), 4185);
  expect(await server.start()).toBeNull();
  try {
    await page.goto(server.url, { waitUntil: "load" });
    const old = page.goto.bind(page);
    page.goto = (url, options) => old(url.startsWith("/") ? server.url + url : url, options);
    await startRun(page, "A full disk");
    await typeReadings(page, [weighing("2.6106", "2.1000")[0]]);
    await expect(page.getByText("✓ saved")).toBeVisible();
    server.fail("ENOSPC");
    await typeReadings(page, [weighing("2.6106", "2.1000")[1]]);
    const kept = page.getByRole("region", { name: "Kept in this browser" });
    await expect(kept).toContainText("One change is waiting for the server");
    await typeReadings(page, [["Initial reading, mL", "0.10"]]);
    await expect(kept).toContainText("2 changes are waiting");
    await expect(page.getByRole("alert").first()).toContainText(
      "The disk is full: nothing more can be saved in",
    );
    await expect(page.getByRole("alert").first()).toContainText("Make room on it");
    server.mend();
    // It finds out by itself that there is room.
    await expect(kept).toBeHidden({ timeout: 60_000 });
    await page.reload();
    await expect(page.getByRole("region", { name: "Trial in hand" }).getByText("0.5106 g")).toBeVisible();
    await expect(page.getByText("0.10", { exact: true }).first()).toBeVisible();
  } finally {
    await server.stop("SIGKILL");
  }
  // What was written is whole: the folder opens again, with all of it.
  expect(await server.start()).toBeNull();
  await page.reload();
  await expect(page.getByRole("region", { name: "Trial in hand" }).getByText("0.5106 g")).toBeVisible();
  await server.stop("SIGINT");
});

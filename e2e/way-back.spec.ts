import { spawn } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, renameSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { v7 as newId } from "uuid";
import type { RunState } from "../protocol/answers";
import { expect, follow, long, startRun, test, titration, typeReadings, weighing } from "./app";
import { beginRun } from "../scripts/app-server";
import { shortLived } from "./lab-template";
import { tool } from "./tool";
import { reading } from "../server/tests/bench";

/* Backups beside a server that runs, and the way back from them. */

const idsIn = async (url: string, runId: string) => {
  const state = (await (await fetch(`${url}/runs/${runId}/state`)).json()) as RunState;
  return new Set(
    state.record.stages.flatMap((s) => s.trials.flatMap((t) => t.observations.map((o) => o.id))),
  );
};

test(
  "backed up while readings are written, killed in the middle of another backup: nothing is lost, and the copy is whole",
  long,
  async () => {
    test.setTimeout(480_000);
    const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-back-"));
    const other = mkdtempSync(path.join(tmpdir(), "steady-bead-other-"));
    const copies = mkdtempSync(path.join(tmpdir(), "steady-bead-copies-"));
    process.env.BACKUP_DIR = copies;
    const server = shortLived(folder, 4187);
    try {
      await server.start();
      const runId = await beginRun(server.url, "base-by-phthalate-then-acid", "Written");
      const confirmed = new Set<string>();
      let writing = true;
      const write = async () => {
        while (writing) {
          const request = reading(newId(), "m", "mass.before", "2.6106");
          const answer = await fetch(`${server.url}/runs/${runId}/changes`, {
            method: "POST",
            headers: { "Content-Type": "application/json" },
            body: JSON.stringify(request),
          }).catch(() => null);
          if (answer?.ok) confirmed.add(request.id);
          await answer?.text().catch(() => "");
        }
      };
      const hands = [write(), write()];
      await expect.poll(() => confirmed.size).toBeGreaterThan(10);
      const before = new Set(confirmed);
      const made = await tool("backup", [], { DATA_DIR: folder });
      expect(made).toMatchObject({
        code: 0,
        output: expect.stringMatching(/The copy was opened, and 1 runs were computed again/),
      });
      expect(confirmed.size).toBeGreaterThan(before.size);
      // Another one, and the server is killed while it is made.
      const killed = tool("backup", [], { DATA_DIR: folder });
      await new Promise<void>((resolve) => {
        const look = () =>
          readdirSync(path.join(folder, "backups")).length > 2 ? resolve() : setTimeout(look, 1);
        look();
      });
      await server.stop("SIGKILL");
      writing = false;
      await Promise.all(hands);
      expect((await killed).code).not.toBe(0);
      await server.start();
      const there = await idsIn(server.url, runId);
      expect([...confirmed].filter((id) => !there.has(id))).toEqual([]);
      await server.stop();

      // Into an empty folder, from the copy on the other disk.
      const [copy = ""] = readdirSync(copies)
        .filter((name) => name.endsWith(".tar.gz"))
        .sort();
      const restored = await tool("restore", [path.join(copies, copy)], { DATA_DIR: other });
      expect(restored).toMatchObject({
        code: 0,
        output: expect.stringMatching(/Restored .*Nothing stood there before/),
      });
      expect(await tool("check", [], { DATA_DIR: other })).toMatchObject({
        code: 0,
        output: expect.stringMatching(/is whole/),
      });
      const second = shortLived(other, 4188);
      await second.start();
      const back = await idsIn(second.url, runId);
      expect([...before].filter((id) => !back.has(id))).toEqual([]);
      await second.stop();
    } finally {
      delete process.env.BACKUP_DIR;
      await server.stop("SIGKILL");
      for (const place of [folder, other, copies]) rmSync(place, { recursive: true, force: true });
    }
  },
);

test("from the screen: back up, go on, put one run back, put the whole lab back; open screens follow", async ({
  page,
  context,
}) => {
  test.setTimeout(360_000);
  await startRun(page, "Before the backup");
  const run = page.url();
  await typeReadings(page, [...weighing("2.6106", "2.1000"), ...titration("0.00", "25.00")]);
  const lab = follow(await context.newPage());
  await lab.goto("/lab");
  await lab.getByRole("button", { name: "Back up now" }).click();
  await expect(lab.getByRole("status")).toContainText("Backed up. The copy was opened", { timeout: 60_000 });
  await expect(lab.getByTestId("backup")).toHaveCount(1);

  await startRun(page, "After the backup");
  const later = page.url();
  await page.goto(run);
  await typeReadings(page, weighing("3.1000", "2.6000"));
  await expect(page.getByText("0.5000 g")).toBeVisible();

  await lab.getByRole("button", { name: "Restore a run" }).first().click();
  const dialog = lab.getByRole("dialog");
  await dialog.getByText("Before the backup").click({ timeout: 60_000 });
  await dialog.getByRole("textbox", { name: "Who" }).fill("AB");
  await dialog.getByRole("button", { name: "Restore this run" }).click();
  await expect(lab.getByRole("status")).toContainText('The run "Before the backup" is back', {
    timeout: 60_000,
  });
  await page.reload();
  await expect(page.getByRole("region", { name: "Ledger" })).toContainText("25.00");
  await expect(page.getByText("0.5000 g")).toHaveCount(0);

  await page.goto(later);
  await expect(page.getByRole("heading", { level: 1, name: "After the backup" })).toBeVisible();
  await lab.getByRole("button", { name: "Restore the lab" }).last().click();
  await lab.getByRole("dialog").getByRole("button", { name: "Back up and restore" }).click();
  // The screen of a run that is no longer there loads anew by itself, and says so.
  await expect(page.getByRole("heading", { name: "Not found" })).toBeVisible({ timeout: 120_000 });
  await page.goto("/");
  await expect(page.getByText("Before the backup")).toBeVisible();
  await expect(page.getByText("After the backup")).toHaveCount(0);
});

test("a folder that is suddenly empty, or open to the network, is told at the start, and nothing is created", async ({}, info) => {
  const folder = info.outputPath("lab");
  const labs = info.outputPath("labs.json");
  const starts = (env: Readonly<Record<string, string>>) =>
    new Promise<{ code: number | null; output: string }>((resolve) => {
      const child = spawn(process.execPath, ["scripts/serve.mjs"], {
        env: {
          ...process.env,
          DATA_DIR: folder,
          PORT: "4190",
          HOST: "127.0.0.1",
          NODE_ENV: "production",
          STEADY_BEAD_LABS: labs,
          ...env,
        },
      });
      let output = "";
      for (const stream of [child.stdout, child.stderr])
        stream.on("data", (text: Buffer) => {
          output += text.toString();
          if (output.includes("is ready at")) child.kill("SIGINT");
        });
      child.once("exit", (code) => resolve({ code, output: output }));
    });
  const open = await starts({ HOST: "0.0.0.0" });
  expect([open.code, open.output]).toEqual([
    1,
    expect.stringMatching(/^HOST=0\.0\.0\.0 would open Steady Bead to everybody/),
  ]);
  expect(existsSync(folder)).toBe(false);
  expect(await starts({})).toMatchObject({ code: 0, output: expect.stringMatching(/is ready at/) });
  renameSync(folder, `${folder}-elsewhere`);
  const empty = await starts({});
  expect([empty.code, empty.output]).toEqual([
    1,
    expect.stringMatching(/is empty, and a lab .* was open there on .*NEW_LAB=yes/s),
  ]);
  expect(empty.output).not.toMatch(/\n\s+at /);
  expect(existsSync(folder)).toBe(false);
  renameSync(`${folder}-elsewhere`, folder);
  expect(await tool("passphrase", [], { DATA_DIR: folder }, "otter kelp burette\n")).toMatchObject({
    code: 0,
  });
  expect(await starts({ HOST: "0.0.0.0" })).toMatchObject({
    code: 0,
    output: expect.stringMatching(/is ready at/),
  });
});

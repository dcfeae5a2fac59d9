// Cuts the power in the middle of the writes of ten clients, again and again, and looks whether everything that was confirmed is
// there afterwards and the lab is whole. npm run powercut does it twenty times; the end-to-end tests do it a few times.
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { pathToFileURL } from "node:url";
import { v7 as newId } from "uuid";
import { randomStream } from "../core/montecarlo";
import type { CheckReport } from "../server/backup/check";
import type { RunState } from "../protocol/answers";
import { reading } from "../server/tests/bench";
import { AppServer, beginRun, quickStart } from "./app-server";
import { type ForgetfulDisk, forgetfulDisk } from "./forgetful-disk";
import { loopDisk } from "./loop-disk";

export interface PowercutReport {
  readonly cuts: number;
  /** Readings and runs that the server had confirmed before the power went. */
  readonly confirmed: number;
  /** Those of them that were not there afterwards. */
  readonly lost: readonly string[];
  /** What was wrong with a lab afterwards. */
  readonly findings: readonly string[];
  /** From a reading sent to its answer with nobody else about, ms. */
  readonly medianMs: number;
}

const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN;

/** What the server has confirmed: readings by the run they are in. */
type Confirmed = Map<string, Set<string>>;

async function send(url: string, runId: string, confirmed: Confirmed, device: string): Promise<void> {
  const request = reading(newId(), "m", "mass.before", "2.6106");
  const answer = await fetch(`${url}/runs/${runId}/changes`, {
    method: "POST",
    // Each client is a device of its own: what one may send in a second is limited.
    headers: { "Content-Type": "application/json", "X-Device": device },
    body: JSON.stringify(request),
  });
  if (!answer.ok) throw new Error(`${answer.status}`);
  await answer.text();
  confirmed.get(runId)?.add(request.id);
}

/** One client: begins a run of its own and writes in it until the server is gone. */
async function client(url: string, confirmed: Confirmed, begin: boolean, device: string): Promise<void> {
  try {
    let [first] = [...confirmed.keys()];
    for (let i = 0; ; i++) {
      if (first === undefined || (begin && i % 12 === 0)) {
        first = await beginRun(url, "base-by-phthalate-then-acid", "Power");
        confirmed.set(first, new Set());
      }
      await send(url, first, confirmed, device);
    }
  } catch {
    // The power is gone.
  }
}

async function asked<T>(server: AppServer, what: string): Promise<T> {
  const { token } = JSON.parse(readFileSync(path.join(server.folder, "server.json"), "utf8")) as {
    token: string;
  };
  const answer = await fetch(`${server.url}/maintenance/${what}`, {
    method: "POST",
    headers: { Authorization: `Bearer ${token}`, "Content-Type": "application/json" },
    body: "{}",
  });
  if (!answer.ok) throw new Error(`${what}: ${answer.status} ${await answer.text()}`);
  return (await answer.json()) as T;
}

/** Confirmed readings that a server does not have. */
async function missing(url: string, confirmed: Confirmed): Promise<string[]> {
  const lost: string[] = [];
  for (const [runId, ids] of confirmed) {
    const answer = await fetch(`${url}/runs/${runId}/state`);
    if (!answer.ok) {
      lost.push(`run ${runId}`, ...ids);
      continue;
    }
    const { record } = (await answer.json()) as RunState;
    const there = new Set(
      record.stages.flatMap((s) => s.trials.flatMap((t) => t.observations.map((o) => o.id))),
    );
    lost.push(...[...ids].filter((id) => !there.has(id)));
  }
  return lost;
}

async function oneBench(url: string): Promise<number> {
  const runId = await beginRun(url, "base-by-phthalate-then-acid", "Alone");
  const confirmed: Confirmed = new Map([[runId, new Set<string>()]]);
  const times: number[] = [];
  for (let i = 0; i < 30; i++) {
    const began = performance.now();
    await send(url, runId, confirmed, "alone");
    times.push(performance.now() - began);
  }
  return median(times);
}

/** Waits until enough was written; clients that all end before that have met something else than a cut. */
async function writtenUntil(clients: Promise<unknown>, enough: () => boolean): Promise<void> {
  const allEnded = clients.then(() => "ended" as const);
  while (!enough()) {
    const ended = await Promise.race([allEnded, new Promise((resolve) => setTimeout(resolve, 5))]);
    if (ended === "ended") throw new Error("All clients ended before the power went");
  }
}

/** Starts, writes with ten clients, cuts the power, starts again and counts, so many times on one folder. */
export async function powercut(
  cuts: number,
  port: number,
  report: (line: string) => void,
  make: (folder: string, beside: string) => ForgetfulDisk = forgetfulDisk,
): Promise<PowercutReport> {
  const root = mkdtempSync(path.join(tmpdir(), "steady-bead-power-"));
  const [folder, beside] = [path.join(root, "lab"), path.join(root, "beside")];
  mkdirSync(folder);
  mkdirSync(beside);
  const stream = randomStream(20);
  const chance = (p: number) => stream.uniform() < p;
  const [lost, findings]: [string[], string[]] = [[], []];
  let [total, medianMs] = [0, NaN];
  let server: AppServer | null = null;
  const disk = make(folder, beside);
  const start = async (boot: number) => {
    const env = { ...disk.env, STEADY_BEAD_BOOT: `boot ${boot}` };
    server = new AppServer(folder, port, "ignore", env, quickStart);
    await server.start();
    return server;
  };
  try {
    disk.settle();
    let running = await start(0);
    medianMs = await oneBench(running.url);
    for (let cut = 1; cut <= cuts; cut++) {
      const confirmed: Confirmed = new Map();
      const { url } = running;
      const clients = Array.from({ length: 10 }, (_, i) =>
        client(url, confirmed, i % 3 === 0, `client ${i}`),
      );
      const count = () => [...confirmed.values()].reduce((sum, ids) => sum + ids.size, confirmed.size);
      const until = 25 + Math.floor(stream.uniform() * 40);
      // Now and then the power goes while a backup is made.
      if (cut % 3 === 1) void asked(running, "backup").catch(() => undefined);
      await writtenUntil(Promise.all(clients), () => count() >= until);
      await running.stop("SIGKILL");
      await Promise.all(clients);
      // All, none, or any half of what was not flushed had been written.
      disk.cut(chance, [0, 0.5, 1][cut % 3] ?? 0.5);
      const began = performance.now();
      running = await start(cut);
      const seconds = ((performance.now() - began) / 1000).toFixed(1);
      const gone = await missing(running.url, confirmed);
      const checked = await asked<CheckReport>(running, "check");
      const wrong = checked.findings.filter(({ kind }) => kind !== "differs").map(({ message }) => message);
      lost.push(...gone);
      findings.push(...wrong);
      total += count();
      report(
        `cut ${cut}: ${count()} confirmed, ${gone.length} lost; started again in ${seconds} s, ${checked.runs} runs, ${wrong.length === 0 ? "whole" : wrong.join("; ")}`,
      );
    }
    return { cuts, confirmed: total, lost, findings, medianMs };
  } finally {
    await (server as AppServer | null)?.stop("SIGKILL");
    disk.end?.();
    rmSync(root, { recursive: true, force: true });
  }
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? "").href) {
  const [cuts = "20", on = "best"] = process.argv.slice(2);
  const loop = on === "layer" ? null : loopDisk();
  console.log(loop ? "On a loop device." : "On a layer that drops what was not flushed.");
  const report = await powercut(Number(cuts), 4186, console.log, loop ?? forgetfulDisk);
  console.log(
    `${report.cuts} times cut: ${report.confirmed} confirmed, ${report.lost.length} lost, ${report.findings.length} findings; ` +
      `a reading is confirmed in ${report.medianMs.toFixed(0)} ms (median, one bench).`,
  );
  process.exit(report.lost.length === 0 && report.findings.length === 0 ? 0 : 1);
}

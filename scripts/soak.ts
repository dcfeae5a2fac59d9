// Kills the server in the middle of writes, again and again, and looks whether every confirmed reading is there afterwards.
// npm run soak does it fifty times; the end-to-end tests do it a few times.
import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { pathToFileURL } from "node:url";
import { v7 as newId } from "uuid";
import type { RunState } from "../formats/answers";
import { reading } from "../server/tests/bench";

export interface SoakReport {
  readonly rounds: number;
  /** Readings that the server had confirmed before it was killed. */
  readonly confirmed: number;
  /** Readings on their way when it was killed: there or not, but never in part. */
  readonly inFlight: number;
  /** Confirmed readings that were not there afterwards. */
  readonly lost: readonly string[];
}

async function start(folder: string, port: number): Promise<ChildProcess> {
  const child = spawn(process.execPath, ["scripts/serve.mjs"], {
    env: {
      ...process.env,
      DATA_DIR: folder,
      PORT: String(port),
      HOST: "127.0.0.1",
      NODE_ENV: "production",
      STEADY_BEAD_LABS: path.join(folder, "labs.json"),
    },
    stdio: ["ignore", "pipe", "inherit"],
  });
  await new Promise<void>((resolve, reject) => {
    child.once("exit", (code) =>
      reject(new Error(`The database did not open: the server ended with ${code}`)),
    );
    child.stdout.on("data", (text: Buffer) => {
      if (text.toString().includes("is ready at")) resolve();
    });
  });
  return child;
}

const ended = (child: ChildProcess, signal: NodeJS.Signals) => {
  const gone = new Promise((resolve) => child.once("exit", resolve));
  child.kill(signal);
  return gone;
};

async function newRun(url: string): Promise<string> {
  const form = {
    intent: "start",
    methodId: "base-by-phthalate-then-acid",
    title: "Soak",
    sample: "",
    bench: "",
  };
  const answer = await fetch(`${url}/?index`, {
    method: "POST",
    body: new URLSearchParams(form),
    redirect: "manual",
    // A form is taken from this server's own pages only.
    headers: { Origin: url },
  });
  const runId = answer.headers.get("location")?.split("/").at(-1);
  if (!runId) throw new Error(`No run was begun: ${answer.status}`);
  return runId;
}

/** Writes readings one after the other until the server is gone; each one is confirmed, or was on its way at the end. */
async function write(url: string, runId: string, confirmed: Set<string>, hand: string): Promise<number> {
  for (;;) {
    const request = reading(newId(), "m", "mass.before", "2.6106");
    try {
      const answer = await fetch(`${url}/runs/${runId}/changes`, {
        method: "POST",
        headers: { "Content-Type": "application/json", "X-Device": hand },
        body: JSON.stringify(request),
      });
      if (!answer.ok) throw new Error(await answer.text());
      await answer.text();
      confirmed.add(request.id);
    } catch {
      return 1;
    }
  }
}

async function readingsOf(url: string, runId: string): Promise<Set<string>> {
  const state = (await (await fetch(`${url}/runs/${runId}/state`)).json()) as RunState;
  return new Set(
    state.record.stages.flatMap((s) => s.trials.flatMap((t) => t.observations.map((o) => o.id))),
  );
}

/** Starts, writes with three hands, kills, starts again and counts, so many times on one folder. */
export async function soak(rounds: number, port: number, tell: (line: string) => void): Promise<SoakReport> {
  const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-soak-"));
  const url = `http://127.0.0.1:${port}`;
  let [total, inFlight] = [0, 0];
  const lost: string[] = [];
  let server: ChildProcess | null = null;
  try {
    server = await start(folder, port);
    for (let round = 1; round <= rounds; round++) {
      const runId = await newRun(url);
      const confirmed = new Set<string>();
      const hands = ["one", "two", "three"].map((hand) => write(url, runId, confirmed, hand));
      // Somewhere in the middle of a write: another place in each round.
      const until = 6 + ((round * 7) % 20);
      while (confirmed.size < until) await new Promise((resolve) => setTimeout(resolve, 3));
      await new Promise((resolve) => setTimeout(resolve, (round * 13) % 40));
      await ended(server, "SIGKILL");
      inFlight += (await Promise.all(hands)).reduce((a, b) => a + b, 0);
      server = await start(folder, port);
      const there = await readingsOf(url, runId);
      const missing = [...confirmed].filter((id) => !there.has(id));
      lost.push(...missing);
      total += confirmed.size;
      tell(`round ${round}: ${confirmed.size} confirmed, ${there.size} there, ${missing.length} lost`);
    }
    return { rounds, confirmed: total, inFlight, lost };
  } finally {
    if (server) await ended(server, "SIGKILL");
    rmSync(folder, { recursive: true, force: true });
  }
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? "").href) {
  const report = await soak(Number(process.argv[2] ?? 50), 4183, console.log);
  console.log(
    `${report.rounds} times killed: ${report.confirmed} readings confirmed, ${report.lost.length} lost.`,
  );
  process.exit(report.lost.length === 0 ? 0 : 1);
}

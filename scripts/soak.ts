// Kills the server in the middle of writes, again and again, and looks whether every confirmed reading is there afterwards.
// npm run soak does it fifty times; the end-to-end tests do it a few times.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { pathToFileURL } from "node:url";
import { v7 as newId } from "uuid";
import type { RunState } from "../protocol/answers";
import { reading } from "../server/tests/bench";
import { AppServer, beginRun, quickStart } from "./app-server";

export interface SoakReport {
  readonly rounds: number;
  /** Readings that the server had confirmed before it was killed. */
  readonly confirmed: number;
  /** Readings on their way when it was killed: there or not, but never in part. */
  readonly inFlight: number;
  /** Confirmed readings that were not there afterwards. */
  readonly lost: readonly string[];
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
export async function soak(
  rounds: number,
  port: number,
  report: (line: string) => void,
): Promise<SoakReport> {
  const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-soak-"));
  // Most of the time is starts.
  const server = new AppServer(folder, port, "inherit", {}, quickStart);
  const { url } = server;
  let [total, inFlight] = [0, 0];
  const lost: string[] = [];
  try {
    await server.start();
    for (let round = 1; round <= rounds; round++) {
      const runId = await beginRun(url, "base-by-phthalate-then-acid", "Soak");
      const confirmed = new Set<string>();
      const hands = ["one", "two", "three"].map((hand) => write(url, runId, confirmed, hand));
      // Somewhere in the middle of a write: another place in each round.
      const until = 6 + ((round * 7) % 20);
      while (confirmed.size < until) await new Promise((resolve) => setTimeout(resolve, 3));
      await new Promise((resolve) => setTimeout(resolve, (round * 13) % 40));
      await server.stop("SIGKILL");
      inFlight += (await Promise.all(hands)).reduce((a, b) => a + b, 0);
      await server.start();
      const there = await readingsOf(url, runId);
      const missing = [...confirmed].filter((id) => !there.has(id));
      lost.push(...missing);
      total += confirmed.size;
      report(`round ${round}: ${confirmed.size} confirmed, ${there.size} there, ${missing.length} lost`);
    }
    return { rounds, confirmed: total, inFlight, lost };
  } finally {
    await server.stop("SIGKILL");
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

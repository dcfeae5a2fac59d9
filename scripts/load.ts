// A whole class at once: forty benches that read something every five seconds, eighty open screens. npm run load does it for ten
// minutes; the end-to-end tests for a few seconds. Nothing else should run beside it.
import { setMaxListeners } from "node:events";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { pathToFileURL } from "node:url";
import { isDeepStrictEqual } from "node:util";
import { v7 as newId } from "uuid";
import {
  type LiveMessage,
  revisionHeader,
  type RunChanged,
  type RunState,
  type RunStep,
} from "../protocol/answers";
import type { RunRequest } from "../protocol/requests";
import { afterStep } from "../protocol/step";
import { reading, wholeFlask } from "../server/tests/bench";
import { AppServer, beginRun } from "./app-server";

export interface LoadReport {
  readonly readings: number;
  readonly medianMs: number;
  readonly p95Ms: number;
  readonly slowestMs: number;
  /** Confirmed readings that were not there afterwards. */
  readonly lost: number;
  /** Readings that were there more than once. */
  readonly doubled: number;
  /** Screens that showed something else than the server had. */
  readonly apart: number;
  /** Largest resident memory of the server, MB, and how fast it grew after the first two minutes, MB a minute. */
  readonly memoryMb: number;
  readonly growthMb: number;
}

export interface LoadPlan {
  readonly benches: number;
  readonly screens: number;
  readonly everyMs: number;
  readonly seconds: number;
}

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

const quantile = (values: readonly number[], q: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * q))] ?? NaN;

/** An open screen of a run: has what a page has, hears of changes, and asks for what a page asks for then. */
class Screen {
  private state: RunState | null = null;

  constructor(
    private readonly url: string,
    readonly runId: string,
    readonly device: string,
    private readonly until: AbortSignal,
  ) {}

  get revision(): number | null {
    return this.state?.revision ?? null;
  }

  /** Asks for the whole run, until it is told. */
  async refresh(): Promise<void> {
    const headers = { "X-Device": this.device };
    for (;;) {
      const answer = await fetch(`${this.url}/runs/${this.runId}/state`, { signal: this.until, headers });
      if (answer.ok) return this.take((await answer.json()) as RunState);
      await answer.text();
      await wait(1000);
    }
  }

  async take(update: RunState | RunStep): Promise<void> {
    const now = this.state;
    if (!("patch" in update)) {
      if (!now || update.revision > now.revision) this.state = update;
      return;
    }
    if (now && update.from < now.revision) return;
    const next = now && afterStep(now, update);
    if (next) this.state = next;
    else await this.refresh();
  }

  async listen(): Promise<void> {
    const stream = await fetch(`${this.url}/live?device=${this.device}`, { signal: this.until });
    const reader = stream.body?.getReader();
    if (!reader) throw new Error("There is no stream of changes");
    const text = new TextDecoder();
    let rest = "";
    for (;;) {
      const { value, done } = await reader.read();
      if (done) throw new Error("The stream of changes has ended");
      const lines = (rest + text.decode(value, { stream: true })).split("\n\n");
      rest = lines.pop() ?? "";
      for (const line of lines.filter((l) => l.startsWith("data: "))) {
        const message = JSON.parse(line.slice(6)) as LiveMessage;
        if ("runId" in message) await this.receive(message);
      }
    }
  }

  private async receive({ runId, device, step, timers }: RunChanged): Promise<void> {
    if (runId === this.runId && device !== this.device) await (step ? this.take(step) : this.refresh());
    if (timers === true) await (await fetch(`${this.url}/timers`, { signal: this.until })).text();
  }

  /** Whether it shows what the server has. */
  showsWhatIs(now: RunState): boolean {
    return isDeepStrictEqual(this.state, now);
  }
}

/** What a bench does, one after the other: flasks reading by reading, now and then a flask that stands for a while. */
function* work(): Generator<RunRequest & { id?: string }> {
  for (let flask = 1; ; flask++) {
    const trialId = newId();
    yield* wholeFlask(trialId, (2.1 + (flask % 7) / 1000).toFixed(4), (24.9 + (flask % 9) / 50).toFixed(2));
    if (flask % 3 === 0) {
      const id = newId();
      const stand = {
        what: "stand",
        flask: "",
        counts: "for",
        seconds: 60,
        strict: false,
        inSeconds: null,
      } as const;
      yield { intent: "start-timer", id, stageKey: "standardize", trialId, ...stand };
    }
    // Weighed once more: a reading that is corrected by another one.
    yield reading(newId(), "m", "mass.before", "2.6106", { trial: { id: newId(), kind: "fine" } });
  }
}

interface Bench {
  readonly runId: string;
  readonly screen: Screen;
  readonly confirmed: Set<string>;
}

async function bench(
  url: string,
  { runId, screen, confirmed }: Bench,
  plan: LoadPlan,
  offset: number,
  times: number[],
) {
  const until = performance.now() + 1000 * plan.seconds;
  const requests = work();
  await wait(offset);
  while (performance.now() < until) {
    const began = performance.now();
    const next = requests.next();
    if (next.done) return;
    const send = () =>
      fetch(`${url}/runs/${runId}/changes`, {
        method: "POST",
        headers: {
          "Content-Type": "application/json",
          "X-Device": screen.device,
          [revisionHeader]: String(screen.revision),
        },
        body: JSON.stringify(next.value),
      });
    // A connection that was just being closed: sent again under the same id, as pages do.
    const answer = await send().catch(send);
    const body = await answer.text();
    if (!answer.ok) throw new Error(`${answer.status}: ${body.slice(0, 200)}`);
    times.push(performance.now() - began);
    const { update: update } = JSON.parse(body) as { update: RunState | RunStep | null };
    if (update) await screen.take(update);
    if (next.value.intent === "observe") confirmed.add(next.value.id ?? "");
    await wait(Math.max(0, plan.everyMs - (performance.now() - began)));
  }
}

const residentMb = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1] ?? 0) / 1024;

/** Growth by a line through the values after the first two minutes, MB a minute. */
function growth(values: readonly (readonly [minute: number, mb: number])[]): number {
  const late = values.filter(([minute]) => minute >= 2);
  if (late.length < 3) return 0;
  const mean = (pick: 0 | 1) => late.reduce((sum, v) => sum + v[pick], 0) / late.length;
  const [x, y] = [mean(0), mean(1)];
  const above = late.reduce((sum, [a, b]) => sum + (a - x) * (b - y), 0);
  return above / late.reduce((sum, [a]) => sum + (a - x) ** 2, 0);
}

/** Begins a run for each bench. */
async function benchesAt(url: string, count: number, until: AbortSignal): Promise<Bench[]> {
  const benches: Bench[] = [];
  for (let i = 0; i < count; i++) {
    const runId = await beginRun(url, "base-by-phthalate-then-acid", `Bench ${i + 1}`);
    const screen = new Screen(url, runId, newId(), until);
    await screen.refresh();
    benches.push({ runId, screen, confirmed: new Set() });
  }
  return benches;
}

/** The screens of the benches, and after them those of other devices that look on. */
async function screensOf(url: string, benches: readonly Bench[], count: number, until: AbortSignal) {
  const screens = benches.map(({ screen }) => screen);
  for (let i = benches.length; i < count; i++) {
    const screen = new Screen(url, benches[i % benches.length]!.runId, newId(), until);
    await screen.refresh();
    screens.push(screen);
  }
  return screens;
}

/** Confirmed readings that are not there, readings that are there more than once, screens that show something else than there is. */
async function counted(url: string, benches: readonly Bench[], screens: readonly Screen[]) {
  let [lost, doubled, apart] = [0, 0, 0];
  for (const { runId, confirmed } of benches) {
    const state = (await (await fetch(`${url}/runs/${runId}/state`)).json()) as RunState;
    const { record } = state;
    const there = record.stages.flatMap((s) => s.trials.flatMap((t) => t.observations.map((o) => o.id)));
    lost += [...confirmed].filter((id) => !there.includes(id)).length;
    doubled += there.length - new Set(there).size;
    apart += screens.filter((screen) => screen.runId === runId && !screen.showsWhatIs(state)).length;
  }
  return { lost, doubled, apart };
}

export async function load(
  plan: LoadPlan,
  port: number,
  report: (line: string) => void,
): Promise<LoadReport> {
  const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-load-"));
  const server = new AppServer(folder, port);
  const ended = new AbortController();
  setMaxListeners(0, ended.signal);
  const timers: ReturnType<typeof setInterval>[] = [];
  try {
    await server.start();
    const { url, pid = 0 } = server;
    const benches = await benchesAt(url, plan.benches, ended.signal);
    const screens = await screensOf(url, benches, plan.screens, ended.signal);
    const streams = screens.map((screen) =>
      screen.listen().catch((error: unknown) => {
        if (!ended.signal.aborted) throw error;
      }),
    );
    const began = performance.now();
    const minutes = () => (performance.now() - began) / 60_000;
    const memory: [number, number][] = [];
    const weigh = () => void memory.push([minutes(), residentMb(pid)]);
    const times: number[] = [];
    const ms = (q: number) => `${quantile(times.slice(-400), q).toFixed(0)} ms`;
    const say = () =>
      report(
        `${minutes().toFixed(1)} min: ${times.length} saved, median ${ms(0.5)}, 95 % ${ms(0.95)}, ${memory.at(-1)?.[1].toFixed(0) ?? "?"} MB`,
      );
    timers.push(setInterval(weigh, 5000), setInterval(say, 30_000));
    await Promise.all(benches.map((of, i) => bench(url, of, plan, (plan.everyMs * i) / plan.benches, times)));
    weigh();
    // What the server takes to tell all of it at once, below, is no part of how it grows under the load.
    const growthMb = growth(memory);
    // What was told last is heard a moment later.
    let found = await counted(url, benches, screens);
    for (let waited = 0; found.apart > 0 && waited < 10; waited++) {
      await wait(1000);
      found = await counted(url, benches, screens);
    }
    ended.abort();
    await Promise.all(streams);
    return {
      ...found,
      readings: times.length,
      medianMs: quantile(times, 0.5),
      p95Ms: quantile(times, 0.95),
      slowestMs: Math.max(...times),
      memoryMb: Math.max(...memory.map(([, mb]) => mb)),
      growthMb,
    };
  } finally {
    timers.forEach(clearInterval);
    ended.abort();
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? "").href) {
  const seconds = 60 * Number(process.argv[2] ?? 10);
  const r = await load({ benches: 40, screens: 80, everyMs: 5000, seconds }, 4185, console.log);
  const ms = (value: number) => `${value.toFixed(0)} ms`;
  console.log(
    `${r.readings} changes: median ${ms(r.medianMs)} (budget 100), 95 % ${ms(r.p95Ms)} (300), slowest ${ms(r.slowestMs)} (2000); ` +
      `${r.lost} lost, ${r.doubled} doubled, ${r.apart} screens apart; ${r.memoryMb.toFixed(0)} MB (900), ${r.growthMb.toFixed(1)} MB a minute (1).`,
  );
  process.exit(r.lost + r.doubled + r.apart === 0 ? 0 : 1);
}

// Prints the figures of the product's budgets. No figure is asserted: machines differ.
import "../core/stages/engines";
import { spawn } from "node:child_process";
import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { gzipSync } from "node:zlib";
import { chromium, type Page } from "@playwright/test";
import { build } from "esbuild";
import { sql } from "drizzle-orm";
import { v7 as newId } from "uuid";
import { aliquot, flask, runRecord } from "../core/testing/build-record";
import { mustHold } from "../core/result";
import { ProgramBuilder, propagateAll } from "../core/montecarlo";
import { leaf, type LeafShape, measured } from "../core/quantity";
import { parseRelation } from "../core/relation";
import { evaluateRun } from "../core/evaluate";
import type { RunRequest } from "../protocol/requests";
import { openDatabase } from "../server/lab/open-database";
import type { Database } from "../server/database/types";
import { startRun } from "../server/commands/start-run";
import { reading } from "../server/tests/bench";
import { benchAssays, benchChart, longCourse } from "./bench-assays";
import { benchHistory } from "./bench-history";
import { benchReports, benchTable } from "./bench-records";
import { benchCurves } from "./bench-curves";
import { median, ms, say, timesOf } from "./bench-parts";
import { inEnglish } from "~/core/text";

function benchCore(): void {
  const titers = ["25.00", "24.98", "25.03", "25.05", "24.99", "25.01"];
  const flasks = titers.map((final) => flask("2.6106", "2.1000", "0.00", final));
  const aliquots = titers.map((final) => aliquot("25.00", "0.00", final));
  const record = runRecord(flasks, aliquots);
  const twelve = timesOf(() => evaluateRun(record), 500);
  say("evaluateRun, 12 trials, median of 500", ms(median(twelve)), "2 ms");
  say("evaluateRun, 12 trials, the first call in a process", ms(twelve[0] ?? NaN), "");
  const hundred = <T>(make: (final: string) => T) =>
    Array.from({ length: 100 }, (_, i) => make(titers[i % titers.length] ?? ""));
  const many = runRecord(
    hundred((final) => flask("2.6106", "2.1000", "0.00", final)),
    hundred((final) => aliquot("25.00", "0.00", final)),
  );
  say("evaluateRun, 200 trials, median of 50", ms(median(timesOf(() => evaluateRun(many), 50))), "");
}

/** EURACHEM/CITAC Guide CG 4 (QUAM), example A2, by a million draws: relation, distributions and 95 % interval. */
function benchDraws(): void {
  const builder = new ProgramBuilder();
  const cause = (id: string, value: number, u: number, shape: LeafShape = "normal") =>
    [
      id,
      builder.quantity(measured(value, "1", [{ leaf: leaf({ id, label: id, group: id, u, shape }), by: 1 }])),
    ] as const;
  const symbols = new Map([
    cause("R", 1, 0.0005),
    cause("m", 0.3888, 0.00013),
    cause("P", 1, 0.00029, "rectangular"),
    cause("M_K", 204.2212, 0.0038),
    cause("V", 0.01864, 0.000013),
  ]);
  const { expression } = mustHold(parseRelation("c = R * m * P / (M_K * V)"));
  const program = builder.build(
    builder.expression(expression, symbols, { ratio: () => [1, 1], equivalents: () => 1 }),
  );
  const draws = 1_000_000;
  const times = Array.from({ length: 9 }, (_, seed) => {
    const began = performance.now();
    propagateAll(program, { draws, seed });
    return performance.now() - began;
  });
  say("10^6 draws of QUAM A2 with interval, median of 9", ms(median(times)), "300 ms");
  say("10^6 draws of QUAM A2, the first in a process", ms(times[0] ?? NaN), "300 ms");
  say("draws per second", `${(draws / median(times) / 1000).toFixed(1)} million`, "");
}

/** What the core and its parsers weigh in a browser: bundled, minified, compressed. */
async function benchCoreSize(): Promise<void> {
  const entry = [
    "quantity",
    "chemistry",
    "relation",
    "measure",
    "judgement",
    "montecarlo",
    "calibration",
    "kinetics",
    "spectra",
    "run",
    "simulate",
  ]
    .map((folder) => `export * as ${folder} from "./core/${folder}";`)
    .join("\n");
  const { outputFiles } = await build({
    stdin: { contents: entry, resolveDir: ".", loader: "ts" },
    bundle: true,
    minify: true,
    format: "esm",
    write: false,
  });
  say(
    "the whole core, compressed",
    `${(gzipSync(outputFiles[0]?.contents ?? "").length / 1024).toFixed(0)} kB`,
    "",
  );
}

/** Copies one run with its readings until there are `whole` of them, and then runs in which nothing was read up to `all`. */
async function fill(db: Database, runId: string, whole: number, all: number): Promise<void> {
  await db.execute(sql`
    create temporary table copies as
      select gen_random_uuid() as id, n from generate_series(1, ${sql.raw(String(all))}) n`);
  await db.execute(sql`
    insert into run (id, method_id, method_version, house_rules_id, title, sample, bench, search, status,
      started_at, updated_at, finished_at, summary)
    select c.id, method_id, method_version, house_rules_id, 'Rinse acid ' || c.n, sample, 'bench ' || (c.n % 20), 'rinse acid ' || c.n || ' bench ' || (c.n % 20),
      case when c.n % 500 = 0 then 'open' else 'finished' end, started_at - c.n * interval '1 hour', updated_at,
      started_at - c.n * interval '1 hour', summary
    from run, copies c where run.id = ${runId}`);
  await db.execute(sql`
    create temporary table stage_copies as
      select gen_random_uuid() as id, c.id as run_id, s.id as old, s.key, s.position, c.n
      from stage s, copies c where s.run_id = ${runId}`);
  await db.execute(sql`insert into stage select id, run_id, key, position from stage_copies`);
  await db.execute(sql`
    create temporary table trial_copies as
      select gen_random_uuid() as id, s.id as stage_id, t.id as old, t.position, t.number, t.kind
      from trial t join stage_copies s on s.old = t.stage_id and s.n <= ${sql.raw(String(whole))}`);
  await db.execute(
    sql`insert into trial (id, stage_id, position, number, kind) select id, stage_id, position, number, kind from trial_copies`,
  );
  await db.execute(sql`
    insert into observation (id, stage_id, trial_id, symbol, kind, text, value, unit, source, person, at)
    select gen_random_uuid(), t.stage_id, t.id, symbol, o.kind, text, value, unit, source, person, at
    from observation o join trial_copies t on t.old = o.trial_id`);
}

interface Served {
  readonly url: string;
  readonly seconds: number;
  readonly stop: () => Promise<void>;
}

async function serve(folder: string, port: number): Promise<Served> {
  const began = performance.now();
  const child = spawn(process.execPath, ["scripts/serve.mjs"], {
    env: { ...process.env, DATA_DIR: folder, PORT: String(port), HOST: "127.0.0.1", NODE_ENV: "production" },
    stdio: ["ignore", "pipe", "inherit"],
  });
  await new Promise<void>((resolve) => {
    child.stdout.on("data", (text: Buffer) => {
      if (text.toString().includes("is ready at")) resolve();
    });
  });
  const seconds = (performance.now() - began) / 1000;
  const stop = async () => {
    const ended = new Promise((resolve) => child.once("exit", resolve));
    child.kill("SIGINT");
    await ended;
  };
  return { url: `http://127.0.0.1:${port}`, seconds, stop };
}

async function post(url: string, runId: string, request: RunRequest): Promise<number> {
  const began = performance.now();
  const answer = await fetch(`${url}/runs/${runId}/changes`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(request),
  });
  await answer.text();
  if (!answer.ok) throw new Error(`The server answered ${answer.status}`);
  return performance.now() - began;
}

async function benchServer(url: string, runId: string): Promise<void> {
  const saved: number[] = [];
  for (let i = 0; i < 40; i++) {
    const trialId = newId();
    saved.push(await post(url, runId, reading(trialId, "m", "mass.before", "2.6106")));
    const trial = await post(url, runId, { intent: "strike", trialId, reason: "bench" });
    if (trial < 0) throw new Error("time runs backward");
  }
  say("saved reading confirmed, HTTP round trip, median of 40", ms(median(saved)), "150 ms at 2,000 runs");
  const times = async (address: string) => {
    const taken: number[] = [];
    for (let i = 0; i < 15; i++) {
      const began = performance.now();
      await (await fetch(`${url}${address}`)).text();
      taken.push(performance.now() - began);
    }
    return median(taken);
  };
  say("bench screen, median of 15", ms(await times("/")), "200 ms at 10,000 runs");
  say("bench screen, searched", ms(await times("/?q=rinse+bench+7")), "200 ms at 10,000 runs");
  say("run screen", ms(await times(`/runs/${runId}`)), "");
}

/** From an input event to the painted frame in which the titer has followed. */
async function keyPress(page: Page): Promise<number> {
  return page.evaluate(async () => {
    const labels = [...document.querySelectorAll("label")];
    const inputOf = (name: string) => {
      const label = labels.find((l) => l.textContent?.startsWith(name));
      return document.getElementById(label?.htmlFor ?? "") as HTMLInputElement;
    };
    const set = (input: HTMLInputElement, text: string) => {
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(input, text);
      input.dispatchEvent(new Event("input", { bubbles: true }));
    };
    const frame = () => new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
    set(inputOf("Initial"), "0.00");
    await frame();
    const times: number[] = [];
    for (let i = 0; i < 30; i++) {
      const titer = (20 + i / 100).toFixed(2);
      const began = performance.now();
      set(inputOf("Final"), titer);
      while (document.querySelector('[data-testid="so-far-V"]')?.textContent !== titer) await frame();
      times.push(performance.now() - began);
    }
    return times.sort((a, b) => a - b)[15] ?? NaN;
  });
}

/** From Enter in the field that has the cursor to the reading shown as saved. */
async function saveByEnter(page: Page): Promise<number> {
  return page.evaluate(async () => {
    const began = performance.now();
    document.activeElement?.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true }));
    while (!document.querySelector("main")?.textContent?.includes("✓ saved")) {
      await new Promise((resolve) => setTimeout(resolve, 1));
    }
    return performance.now() - began;
  });
}

/** From a reading sent to it being heard of and fetched by another screen of the same run. */
async function seenByAnother(url: string, runId: string): Promise<number> {
  const stream = await fetch(`${url}/live`);
  const reader = stream.body?.getReader();
  if (!reader) throw new Error("There is no stream of changes");
  const text = new TextDecoder();
  const received = async () => {
    for (;;) {
      const { value, done } = await reader.read();
      if (done) throw new Error("The stream of changes ended");
      if (text.decode(value).includes(runId)) return;
    }
  };
  const times: number[] = [];
  for (let i = 0; i < 10; i++) {
    const began = performance.now();
    const answer = received();
    await post(url, runId, reading(newId(), "m", "mass.before", "2.6106"));
    await answer;
    await (await fetch(`${url}/runs/${runId}/state`)).text();
    times.push(performance.now() - began);
  }
  await reader.cancel();
  return median(times);
}

async function benchBrowser(url: string, runId: string, longRunId: string): Promise<void> {
  const executablePath = process.env.CHROMIUM ?? "/usr/bin/chromium";
  if (!existsSync(executablePath))
    return console.log("No Chromium here: the browser's figures are left out.");
  const browser = await chromium.launch({
    executablePath,
    args: ["--no-sandbox", "--disable-gpu", "--disable-quic"],
  });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    // The loader that runs this script names functions by a helper that a page does not have.
    await page.addInitScript("globalThis.__name = (f) => f");
    const sizes: Promise<number>[] = [];
    page.on("response", (response) => {
      if (!/\.js$/.test(new URL(response.url()).pathname)) return;
      const size = response.body().then((body) => gzipSync(body).length);
      // Of files that come later nobody asks.
      size.catch(() => undefined);
      sizes.push(size);
    });
    await page.goto(`${url}/runs/${runId}?stage=standardize`, { waitUntil: "load" });
    await page.getByRole("textbox", { name: "Boat with solid, g" }).waitFor();
    await page.waitForTimeout(1500);
    const bytes = (await Promise.all(sizes)).reduce((sum, n) => sum + n, 0);
    say("run screen, first load, compressed script", `${(bytes / 1000).toFixed(0)} kB`, "350 kB");
    say("key press to recomputed verdict, 12 trials, median of 30", ms(await keyPress(page)), "50 ms");
    // Through the interface: from Enter to the reading shown as saved, taken back again by undo.
    const boat = page.getByRole("textbox", { name: "Boat with solid, g" });
    const confirmed: number[] = [];
    for (let i = 0; i < 15; i++) {
      await boat.fill("2.6106");
      confirmed.push(await saveByEnter(page));
      await page.keyboard.press("Alt+z");
      await boat.waitFor();
    }
    say("Enter to the reading shown as saved, median of 15", ms(median(confirmed)), "150 ms");
    say("a reading seen by another device, median of 10", ms(await seenByAnother(url, runId)), "2 s");
    await benchChart(page, url, longRunId);
  } finally {
    await browser.close();
  }
}

benchCore();
benchDraws();
benchAssays();
benchCurves();
await benchCoreSize();
await benchReports();
const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-bench-"));
try {
  const { db, close } = await openDatabase(folder);
  const { changeRun } = await import("../server/commands/change-run");
  const start = {
    intent: "start",
    methodId: "base-by-phthalate-then-acid",
    title: "Bench",
    sample: "",
    bench: "",
  } as const;
  const runId = mustHold(await startRun(db, start));
  for (const [i, final] of ["25.00", "24.98", "25.03", "25.05", "24.99", "25.01"].entries()) {
    for (const [stageKey, readings] of [
      [
        "standardize",
        [
          ["m", "mass.before", "2.6106"],
          ["m", "mass.after", "2.1000"],
        ],
      ],
      ["determine", [["V_a", "volume.taken", "25.00"]]],
    ] as const) {
      const trial = { id: newId(), kind: i === 0 ? ("rough" as const) : ("fine" as const) };
      for (const [symbol, kind, text] of [
        ...readings,
        ["V", "burette.initial", "0.00"] as const,
        ["V", "burette.final", final] as const,
      ]) {
        const common = {
          intent: "observe",
          id: newId(),
          stageKey,
          trial,
          supersedes: null,
          reason: null,
        } as const;
        const outcome = await changeRun(db, runId, { ...common, symbol, kind, text });
        if (outcome.status !== "done") throw new Error(inEnglish(outcome.message));
      }
    }
  }
  const long = mustHold(await startRun(db, { ...start, methodId: "fading-of-a-dye" }));
  const course = await changeRun(db, long, longCourse());
  if (course.status !== "done") throw new Error(inEnglish(course.message));
  const other = mustHold(await startRun(db, start));
  await fill(db, runId, 2000, 10000);
  await close();
  const served = await serve(folder, 4179);
  say("server start on an existing folder with 10,000 runs", `${served.seconds.toFixed(1)} s`, "8 s");
  await benchServer(served.url, other);
  await benchBrowser(served.url, runId, long);
  await served.stop();
  const again = await openDatabase(folder);
  await benchHistory(again.db);
  await benchTable(again.db);
  await again.close();
} finally {
  rmSync(folder, { recursive: true, force: true });
}

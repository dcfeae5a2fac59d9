// Sends requests that make no sense, and requests over all methods that do, to a server of its own: none may fail it, none may take
// long, and what was refused may have changed nothing. npm run fuzz sends ten thousand of each; the end-to-end tests a hundred.
import { createHash } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { request as rawRequest } from "node:http";
import { tmpdir } from "node:os";
import path from "node:path";
import { pathToFileURL } from "node:url";
import { methods } from "../catalog/methods";
import { defaultHouseRules } from "../catalog/rules/defaults";
import type { RunState } from "../protocol/answers";
import { AppServer, beginRun } from "./app-server";
import { Dice, type KnownRun, mutated, strange, wellFormed } from "./fuzz-requests";

export interface FuzzReport {
  readonly malformed: number;
  readonly wellFormed: number;
  /** How many answers there were of each status. */
  readonly statuses: Readonly<Record<string, number>>;
  /** Answers from 500, what took over two seconds, and batches of refused requests after which something had changed. */
  readonly faults: readonly string[];
  readonly slowestMs: number;
  /** Of the well-formed ones, how many were carried out. */
  readonly taken: number;
}

interface Call {
  readonly method: "GET" | "POST" | "PUT" | "DELETE";
  readonly path: string;
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: string;
}

const json = { "Content-Type": "application/json" };
const form = { "Content-Type": "application/x-www-form-urlencoded" };

/** A server that is sent whatever it is told, as no browser would. */
class Target extends AppServer {
  /** Sends exactly what it is told, as a browser would not. */
  call({
    method,
    path: target,
    headers = {},
    body,
  }: Call): Promise<{ status: number; text: string; ms: number; location: string }> {
    const began = performance.now();
    return new Promise((resolve, reject) => {
      const sent = rawRequest(
        {
          host: "127.0.0.1",
          port: this.port,
          method,
          path: target,
          headers: {
            "X-Device": `fuzz-${Math.floor(began / 100) % 50}`,
            ...(body === undefined ? {} : { "Content-Length": Buffer.byteLength(body) }),
            ...headers,
          },
        },
        (answer) => {
          const parts: Buffer[] = [];
          answer.on("data", (part: Buffer) => parts.push(part));
          answer.on("end", () =>
            resolve({
              status: answer.statusCode ?? 0,
              text: Buffer.concat(parts).toString(),
              ms: performance.now() - began,
              location: answer.headers.location ?? "",
            }),
          );
        },
      );
      sent.on("error", reject);
      sent.setTimeout(20_000, () => sent.destroy(new Error(`No answer in 20 s: ${method} ${target}`)));
      sent.end(body);
    });
  }
}

const startForm = (methodId: string) =>
  new URLSearchParams({ intent: "start", methodId, title: "Fuzz", sample: "", bench: "bench 1" }).toString();

async function stateOf(server: Target, runId: string): Promise<RunState> {
  return JSON.parse((await server.call({ method: "GET", path: `/runs/${runId}/state` })).text) as RunState;
}

/**
 * The texts in an answer, in no order: a record that is read anew from the database has the same content as one that was remembered,
 * with its properties in another order.
 */
const textsIn = (answer: string): string =>
  (answer.match(/"(?:[^"\\]|\\.)*"/g) ?? [])
    .filter((text) => !/^"_\d+"$/.test(text))
    .sort()
    .join();

/** All that a change could show in: the trail of the lab, these runs, and the lists. */
async function digest(server: Target, runIds: readonly string[]): Promise<string> {
  const seen = createHash("sha256");
  const places = [
    "/trail/export?format=json",
    "/methods.data",
    "/shelf.data",
    "/house-rules.data",
    ...runIds.map((id) => `/runs/${id}/state`),
  ];
  for (const place of places) seen.update(textsIn((await server.call({ method: "GET", path: place })).text));
  return seen.digest("hex");
}

const oddText = (dice: Dice) => {
  const value = dice.one(strange);
  return typeof value === "string" ? value : JSON.stringify(value);
};
/** Half of a surrogate pair: no text that can be sent in an address. */
const lone = /\p{Cs}/u;
const encoded = (text: string) => (lone.test(text) ? "%ED%A0%80" : encodeURIComponent(text));

/** A request that is wrong in one way or another. */
function malformed(runs: readonly KnownRun[], dice: Dice): Call {
  const run = dice.one(runs);
  const changes = `/runs/${run.runId}/changes`;
  const sound = wellFormed(run, defaultHouseRules, dice);
  const odd = encoded(oddText(dice).slice(0, 300));
  const method = dice.one(methods);
  const formOf = (texts: Record<string, string>) => new URLSearchParams(texts).toString();
  const ways: readonly (() => Call)[] = [
    () => ({ method: "POST", path: changes, headers: json, body: JSON.stringify(mutated(sound, dice)) }),
    () => ({
      method: "POST",
      path: changes,
      headers: json,
      body: JSON.stringify(mutated(mutated(sound, dice), dice)),
    }),
    () => ({
      method: "POST",
      path: changes,
      headers: json,
      body: JSON.stringify(sound).slice(0, dice.below(120)),
    }),
    () => ({
      method: "POST",
      path: changes,
      headers: { "Content-Type": "text/plain" },
      body: JSON.stringify(sound),
    }),
    () => ({
      method: "POST",
      path: changes,
      headers: { ...json, Origin: "http://elsewhere.example" },
      body: JSON.stringify(sound),
    }),
    () => ({
      method: "POST",
      path: changes,
      headers: { ...json, Host: "elsewhere.example" },
      body: JSON.stringify(sound),
    }),
    () => ({
      method: "POST",
      path: changes,
      headers: { ...json, "Sec-Fetch-Site": "cross-site" },
      body: JSON.stringify(sound),
    }),
    () => ({ method: "POST", path: `/runs/${odd}/changes`, headers: json, body: JSON.stringify(sound) }),
    () => ({
      method: "POST",
      path: `/runs/${dice.id()}/changes`,
      headers: json,
      body: JSON.stringify(sound),
    }),
    () => ({
      method: "POST",
      path: "/methods/import",
      headers: form,
      body: formOf({ text: JSON.stringify(mutated(mutated(method, dice), dice)) }),
    }),
    () => ({
      method: "POST",
      path: "/methods/import",
      headers: form,
      body: formOf({ text: JSON.stringify(method).slice(0, dice.below(4000)) }),
    }),
    () => ({
      method: "POST",
      path: `/methods/${method.id}/edit`,
      headers: form,
      body: formOf({ method: JSON.stringify(mutated(method, dice)), person: "AB", reason: "" }),
    }),
    () => ({
      method: "POST",
      path: `/methods/${odd}/remove`,
      headers: form,
      body: formOf({ person: "AB", reason: "" }),
    }),
    () => ({
      method: "POST",
      path: "/house-rules",
      headers: form,
      body: formOf({
        [dice.one(["withinMl", "agreement", "labC", "capacityMl"])]: oddText(dice),
        person: "AB",
        reason: "x",
      }),
    }),
    () => ({
      method: "POST",
      path: "/?index",
      headers: form,
      body: startForm(oddText(dice).replace(lone, "?")),
    }),
    () => ({ method: "POST", path: "/?index", headers: json, body: JSON.stringify({ intent: "start" }) }),
    () => ({
      method: "POST",
      path: "/shelf/new",
      headers: json,
      body: JSON.stringify(
        mutated(
          {
            intent: "add",
            form: "solution",
            formula: "NaOH",
            name: "",
            how: "nominal",
            value: "0",
            plusMinus: "",
            person: "",
            amount: "",
            restandardizeBy: "2026-02-30",
            hazards: "",
            note: "",
          },
          dice,
        ),
      ),
    }),
    () => ({
      method: "POST",
      path: `/shelf/${dice.id()}`,
      headers: json,
      body: JSON.stringify({ intent: "edit" }),
    }),
    () => ({
      method: "POST",
      path: "/lab",
      headers: json,
      body: JSON.stringify({
        intent: dice.one(["restore", "restore-run", "destroy"]),
        name: oddText(dice),
        person: "AB",
      }),
    }),
    () => ({
      method: "POST",
      path: "/maintenance/restore",
      headers: { ...json, Authorization: `Bearer ${odd}` },
      body: "{}",
    }),
    () => ({ method: dice.one(["PUT", "DELETE"] as const), path: changes, headers: json, body: "{}" }),
    () => ({ method: "GET", path: `/?q=${odd}` }),
    () => ({ method: "GET", path: `/runs/${odd}` }),
    () => ({ method: "GET", path: `/runs/${run.runId}/working?stage=${odd}&trial=${odd}` }),
    () => ({ method: "GET", path: `/methods/${odd}?version=${odd}` }),
    () => ({ method: "GET", path: `/methods/${method.id}?version=${odd}` }),
    () => ({ method: "GET", path: `/shelf/${odd}` }),
    () => ({ method: "GET", path: `/shelf/labels?ids=${odd}` }),
    () => ({ method: "GET", path: `/shelf/lineage?of=${odd}` }),
    () => ({ method: "GET", path: `/trail?q=${odd}&about=${odd}&before=${odd}` }),
    () => ({ method: "GET", path: `/lab/runs?backup=${odd}` }),
    () => ({ method: "GET", path: `/house-rules?run=${odd}` }),
    () => ({ method: "GET", path: `/${odd}` }),
  ];
  return dice.chance(0.5) ? (ways[dice.below(3)] as () => Call)() : dice.one(ways)();
}

/**
 * Sends so many of each kind, by a seed; everything that must not be is in `faults`: an answer that took longer than `slowMs` too,
 * where the machine has nothing else to do.
 */
export async function fuzz(
  count: number,
  port: number,
  seed: number,
  report: (line: string) => void,
  slowMs = Infinity,
): Promise<FuzzReport> {
  const dice = new Dice(seed);
  const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-fuzz-"));
  // What it logs of failures is wanted only where there is one.
  const server = new Target(folder, port, process.env.FUZZ_LOG ? "inherit" : "ignore");
  const statuses: Record<string, number> = {};
  const faults: string[] = [];
  let [slowestMs, taken] = [0, 0];
  const send = async (call: Call) => {
    const answer = await server.call(call);
    statuses[answer.status] = (statuses[answer.status] ?? 0) + 1;
    slowestMs = Math.max(slowestMs, answer.ms);
    const named = `${call.method} ${call.path.slice(0, 160)} ${(call.body ?? "").slice(0, 400)}`;
    if (answer.status >= 500) faults.push(`${answer.status}: ${named}`);
    if (answer.ms > slowMs) faults.push(`${Math.round(answer.ms)} ms: ${named}`);
    return answer;
  };
  try {
    await server.start();
    const runs: KnownRun[] = [];
    const open = async (methodId: string) => {
      const runId = await beginRun(server.url, methodId, "Fuzz");
      const { record } = await stateOf(server, runId);
      const known = { runId, method: record.method, record };
      runs.push(known);
      return known;
    };
    for (const id of ["base-by-phthalate-then-acid", "ethanol-by-dichromate", "fading-of-a-dye"])
      await open(id);
    const watched = runs.map(({ runId }) => runId);
    let before = await digest(server, watched);
    const batch = 50;
    for (let i = 0; i < count; i++) {
      const call = malformed(runs.slice(0, 3), dice);
      const { status } = await send(call);
      // What happens to make sense after all may be carried out, and then something has changed.
      if (status < 400 && call.method !== "GET") {
        before = await digest(server, watched);
        for (const run of runs) run.record = (await stateOf(server, run.runId)).record;
      } else if (i % batch === batch - 1) {
        const now = await digest(server, watched);
        if (now !== before)
          faults.push(`Something changed by one of the ${batch} requests up to ${i + 1}, all refused`);
        before = now;
      }
      if (i % 1000 === 999) report(`${i + 1} malformed requests: ${faults.length} faults`);
    }
    const each = Math.max(1, Math.floor(count / methods.length));
    let sent = 0;
    for (const { id } of methods) {
      const run = await open(id);
      for (let i = 0; i < each && sent < count; i++, sent++) {
        const request = wellFormed(run, defaultHouseRules, dice);
        const { status, text } = await send({
          method: "POST",
          path: `/runs/${run.runId}/changes`,
          headers: json,
          body: JSON.stringify(request),
        });
        if (status === 200) {
          taken++;
          const { update: state } = JSON.parse(text) as { update: RunState | null };
          if (state) run.record = state.record;
        }
        // What is kept can be shown.
        if (i % 40 === 39) {
          const page = dice.one(["", "/working", "/trail"]);
          await send({ method: "GET", path: `/runs/${run.runId}${page}` });
        }
      }
      await send({ method: "GET", path: `/runs/${run.runId}` });
      report(`${id}: ${sent} well-formed requests, ${taken} carried out, ${faults.length} faults`);
    }
    return { malformed: count, wellFormed: sent, statuses, faults, slowestMs, taken };
  } finally {
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? "").href) {
  const [count = 10_000, seed = 14] = process.argv.slice(2).map(Number);
  const report = await fuzz(count, 4185, seed, console.log, 2000);
  for (const fault of report.faults.slice(0, 40)) console.log(fault);
  console.log(
    `${report.malformed} malformed and ${report.wellFormed} well-formed requests (${report.taken} carried out): ` +
      `${report.faults.length} faults, the slowest answer ${Math.round(report.slowestMs)} ms; statuses ${JSON.stringify(report.statuses)}`,
  );
  process.exit(report.faults.length === 0 ? 0 : 1);
}

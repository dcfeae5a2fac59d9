import { randomStream, type RandomStream } from "../core/montecarlo";
import { type Method, stageFields, trialFields } from "../core/method";
import type { Field } from "../core/inputs";
import type { HouseRules } from "../core/rules";
import type { ObservationKind } from "../core/record";
import type { RunRecord } from "../core/run";
import { v4 as anyId } from "uuid";
import type { RunRequest } from "../protocol/requests";

/** Draws of a seed, with what is needed to make requests of them. */
export class Dice {
  private readonly stream: RandomStream;

  constructor(seed: number) {
    this.stream = randomStream(seed);
  }

  readonly chance = (p: number): boolean => this.stream.uniform() < p;
  readonly between = (low: number, high: number): number => low + (high - low) * this.stream.uniform();
  readonly below = (n: number): number => Math.floor(this.stream.uniform() * n);

  one<T>(list: readonly T[]): T {
    const chosen = list[this.below(list.length)];
    if (chosen === undefined) throw new Error("Nothing to choose from");
    return chosen;
  }

  readonly id = (): string => anyId({ random: Uint8Array.from({ length: 16 }, () => this.below(256)) });
}

/** What might be read in a field: mostly what a bench reads, now and then what it never would. */
function textFor({ kind, unit }: Pick<Field, "kind" | "unit">, dice: Dice): string {
  if (dice.chance(0.04))
    return dice.one(["0", "0.00", "-1", "99999", "1e3", "abc", "0,5", " 12 ", "0.000001"]);
  const decimal = (low: number, high: number, digits: number) => dice.between(low, high).toFixed(digits);
  const byKind: Partial<Record<ObservationKind, () => string>> = {
    "mass.before": () => decimal(10, 60, 4),
    "mass.after": () => decimal(9, 60, 4),
    "mass.tared": () => decimal(0.05, 6, 4),
    "volume.taken": () =>
      dice.one(["1.00", "2.00", "5.00", "10.00", "20.00", "25.00", "50.00", "100.0", "250.0"]),
    temperature: () => decimal(15, 80, 1),
    "temperature.flask": () => decimal(15, 90, 1),
    pH: () => decimal(1, 13, 2),
    absorbance: () => decimal(0, 1.6, 3),
    "absorbance.again": () => decimal(0, 1.6, 3),
    transmittance: () => decimal(1, 100, 1),
    drops: () => String(1 + dice.below(60)),
    purity: () => decimal(95, 100, 2),
    "purity.plus-minus": () => decimal(0.01, 0.5, 2),
    "end.overshot": () => "1",
    "glass.piece": () => dice.one(["1", "2", "3"]),
    "window.from": () => decimal(0, 20, 0),
    "window.to": () => decimal(40, 200, 0),
  };
  const known = byKind[kind];
  if (known) return known();
  if (kind.startsWith("burette.")) return decimal(0, 50, 2);
  if (kind.endsWith("plus-minus") || kind.endsWith("uncertainty")) return decimal(0.0001, 0.01, 4);
  return unit === "nm"
    ? decimal(400, 700, 0)
    : dice.one([decimal(0.005, 0.3, 4), decimal(1, 40, 2), decimal(50, 900, 0)]);
}

/** A run as the dice know it: what was begun in it. */
export interface KnownRun {
  readonly runId: string;
  readonly method: Method;
  record: RunRecord;
}

/** A request that a screen might send of this run, whether it makes sense there or not. */
export function wellFormed({ method, record }: KnownRun, rules: HouseRules, dice: Dice): RunRequest {
  const stage = dice.one(method.stages);
  const { key: stageKey } = stage;
  const held = record.stages.find((s) => s.key === stageKey);
  const trials = held?.trials ?? [];
  const observations = [...(held?.observations ?? []), ...trials.flatMap((t) => t.observations)];
  const kind = dice.chance(0.8) ? ("fine" as const) : ("rough" as const);
  const trial = { id: trials.length > 0 && dice.chance(0.75) ? dice.one(trials).id : dice.id(), kind };
  const anyTrial = trials.length > 0 ? dice.one(trials).id : dice.id();
  const anyReading = observations.length > 0 ? dice.one(observations).id : dice.id();
  const reason = "drawn";
  const observe = (): RunRequest => {
    const inTrial = stage.kind !== "preparation" && dice.chance(0.75);
    const fields = inTrial ? trialFields(stage, rules) : stageFields(stage, rules);
    if (fields.length === 0) return { intent: "finish" };
    const field = dice.one(fields);
    const supersedes = dice.chance(0.1) && observations.length > 0 ? dice.one(observations).id : null;
    return {
      intent: "observe",
      id: dice.id(),
      stageKey,
      trial: inTrial ? trial : null,
      symbol: field.symbol,
      kind: field.kind,
      text: textFor(field, dice),
      supersedes,
      reason: supersedes === null ? null : reason,
    };
  };
  const enter = (): RunRequest => {
    const fields = trialFields(stage, rules);
    if (fields.length === 0 || stage.kind === "preparation") return observe();
    return {
      intent: "enter",
      stageKey,
      source: "imported",
      rows: Array.from({ length: 1 + dice.below(4) }, () => ({
        trial: { id: dice.id(), kind, label: `flask ${dice.below(90)}` },
        readings: fields.slice(0, 1 + dice.below(fields.length)).map((f) => ({
          id: dice.id(),
          symbol: f.symbol,
          kind: f.kind,
          text: textFor(f, dice),
          person: "AB",
        })),
      })),
    };
  };
  const trace = (): RunRequest => {
    const rate = stage.kind === "rate";
    const n = 10 + dice.below(120);
    const [start, k] = [dice.between(0.1, 1.4), dice.between(0, 0.03)];
    return {
      intent: "trace",
      id: dice.id(),
      stageKey,
      trialId: rate ? trial.id : null,
      readings: [],
      name: rate ? "course 1" : "spectrum 1",
      xUnit: rate ? "s" : "nm",
      x: Array.from({ length: n }, (_, i) => (rate ? i : 400 + i)),
      absorbance: Array.from({ length: n }, (_, i) => start * Math.exp(-k * i) + dice.between(-0.004, 0.004)),
      source: "imported",
      person: "",
    };
  };
  const others: readonly (() => RunRequest)[] = [
    trace,
    () => ({ intent: "strike", trialId: anyTrial, reason }),
    () => ({ intent: "restore", trialId: anyTrial }),
    () => ({ intent: "mark", trialId: anyTrial, kind }),
    () => ({ intent: "label", trialId: anyTrial, label: dice.one(["", "B2", "late"]) }),
    () => ({ intent: "strike-reading", observationId: anyReading, reason }),
    () => ({ intent: "restore-reading", observationId: anyReading }),
    () => ({
      intent: "choose",
      stageKey,
      name: dice.one(["model", "weighting", "zero", "blank", "unit", "order", "end"]),
      value: dice.one([
        "",
        "line",
        "origin",
        "quadratic",
        "1/x",
        "in",
        "out",
        "deducted",
        "zeroed",
        "mg/L",
        "0",
        "2",
        "fitted",
      ]),
    }),
    () => ({ intent: "rename", title: "Drawn", sample: "", bench: "bench 9" }),
    () => ({
      intent: "start-timer",
      id: dice.id(),
      stageKey,
      trialId: anyTrial,
      what: "stand",
      flask: "",
      counts: "for",
      seconds: 60,
      strict: false,
      inSeconds: null,
    }),
    () => ({ intent: "faded", stageKey, trialId: anyTrial, markId: dice.id(), seconds: 12, timerId: null }),
    () => ({
      intent: "take",
      stageKey,
      symbol: stage.inputs[0]?.symbol ?? "c",
      assignmentId: dice.id(),
      reason: null,
    }),
    () => ({
      intent: "shelve",
      stageKey,
      solutionId: null,
      name: "drawn",
      restandardizeBy: dice.one(["", "2027-01-31", "2027-02-30"]),
    }),
    () => ({ intent: "rules", rules, reason }),
    () => ({ intent: "undo", eventId: dice.id() }),
    () => ({ intent: "redo", eventId: dice.id() }),
    () => ({ intent: "finish" }),
    () => ({ intent: "reopen" }),
    () => ({ intent: "recompute" }),
  ];
  if (record.status !== "open") return { intent: "reopen" };
  return dice.chance(0.72) ? observe() : dice.chance(0.25) ? enter() : dice.one(others)();
}

export const strange: readonly unknown[] = [
  null,
  true,
  -1,
  0,
  1.5,
  1e308,
  -1e308,
  1e21,
  "",
  " ",
  "\0",
  "a\0b",
  "\ud800",
  "0x10",
  "NaN",
  "1e999",
  "__proto__",
  "constructor",
  "../../etc/passwd",
  "<img src=x onerror=alert(1)>",
  "'; drop table run; --",
  "x".repeat(5000),
  [],
  {},
  [[[[]]]],
  { a: { b: {} } },
  "2026-02-30",
  "2026-13-01T00:00:00Z",
  "00000000-0000-0000-0000-000000000000",
];

/** The same value with one thing in it wrong: a part replaced by something strange, taken out, doubled, or added. */
export function mutated(value: unknown, dice: Dice): unknown {
  const copy = structuredClone(value);
  const places: { holder: Record<string, unknown>; key: string }[] = [];
  const walk = (x: unknown) => {
    if (typeof x !== "object" || x === null) return;
    for (const key of Object.keys(x)) {
      places.push({ holder: x as Record<string, unknown>, key });
      walk((x as Record<string, unknown>)[key]);
    }
  };
  walk(copy);
  if (places.length === 0) return dice.one(strange);
  const { holder, key } = dice.one(places);
  switch (dice.below(4)) {
    case 0:
      delete holder[key];
      break;
    case 1:
      holder[dice.one(["__proto__x", "extra", "constructor", "\0"])] = dice.one(strange);
      break;
    case 2:
      holder[key] = [holder[key], holder[key]];
      break;
    default:
      holder[key] = dice.one(strange);
  }
  return copy;
}

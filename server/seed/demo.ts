import { v7 as newId } from "uuid";
import { molarMass } from "../../core/chemistry";
import { evaluateRun } from "../../core/evaluate";
import type { ObservationKind } from "../../core/record";
import { mustHold } from "../../core/result";
import type { RunRequest } from "../../protocol/requests";
import type { Database } from "../database/types";
import { changeRun } from "../commands/change-run";
import { loadRunRecord } from "../queries/stored-run";
import { saveLetterhead } from "../commands/lab";
import { startRun } from "../commands/start-run";
import { seedAssays } from "./demo-assays";
import { seedChecks } from "./demo-checks";
import { seedCurves } from "./demo-curves";
import { seedShelf } from "./demo-shelf";
import { inEnglish } from "~/core/text";

/**
 * Demo data of Tern Rock Aquarium, an invented public aquarium whose teaching bench looks after pumps, descaling and rinse
 * acids. Written through the same commands as the screens use. Readings follow from a true concentration and small,
 * fixed errors of reading, so that they agree with their own chemistry.
 */

const phthalate = molarMass("KHC8H4O4").value;
const minute = 60_000;

/** Writes one run, reading by reading, at a bench whose clock moves on. */
class Scribe {
  private constructor(
    private readonly db: Database,
    readonly runId: string,
    private clock: number,
  ) {}

  static async begin(
    db: Database,
    start: Date,
    about: { title: string; sample: string; bench: string },
  ): Promise<Scribe> {
    const request = { intent: "start", methodId: "base-by-phthalate-then-acid", ...about } as const;
    const runId = mustHold(await startRun(db, request, start));
    return new Scribe(db, runId, start.getTime());
  }

  async change(request: RunRequest): Promise<void> {
    this.clock += 2 * minute;
    const outcome = await changeRun(this.db, this.runId, request, new Date(this.clock));
    if (outcome.status !== "done") throw new Error(`Demo data: ${inEnglish(outcome.message)}`);
  }

  /** Writes readings of one trial in order and returns its id. */
  async trial(
    stageKey: string,
    kind: "rough" | "fine",
    readings: readonly (readonly [symbol: string, kind: ObservationKind, text: string])[],
  ): Promise<string> {
    const id = newId();
    for (const [symbol, observed, text] of readings) {
      await this.change({
        intent: "observe",
        id: newId(),
        stageKey,
        trial: { id, kind },
        symbol,
        kind: observed,
        text,
        supersedes: null,
        reason: null,
      });
    }
    return id;
  }

  async correct(
    stageKey: string,
    trialId: string,
    kind: ObservationKind,
    text: string,
    reason: string,
  ): Promise<void> {
    const record = await loadRunRecord(this.db, this.runId);
    const trial = record?.stages.flatMap((s) => s.trials).find((t) => t.id === trialId);
    const wrong = trial?.observations.filter((o) => o.kind === kind).at(-1);
    if (!trial || !wrong) throw new Error("Demo data: nothing to correct");
    await this.change({
      intent: "observe",
      id: newId(),
      stageKey,
      trial: { id: trialId, kind: trial.kind },
      symbol: wrong.symbol,
      kind,
      text,
      supersedes: wrong.id,
      reason,
    });
  }
}

/** One weighing and titration: mass, where the burette stood, and by how much the end was missed. */
interface Standardization {
  readonly kind?: "rough" | "fine";
  readonly boat: number;
  readonly mass: number;
  readonly initial: number;
  readonly error: number;
}

function standardization(base: number, { boat, mass, initial, error }: Standardization) {
  const titer = (mass / phthalate / base) * 1000 + error;
  return [
    ["m", "mass.before", (boat + mass).toFixed(4)],
    ["m", "mass.after", boat.toFixed(4)],
    ["V", "burette.initial", initial.toFixed(2)],
    ["V", "burette.final", (initial + titer).toFixed(2)],
  ] as const;
}

interface Aliquot {
  readonly kind?: "rough" | "fine";
  readonly initial: number;
  readonly error: number;
}

function aliquot(base: number, acid: number, { initial, error }: Aliquot, taken = "25.00") {
  const titer = (Number(taken) * acid) / base + error;
  return [
    ["V_a", "volume.taken", taken],
    ["V", "burette.initial", initial.toFixed(2)],
    ["V", "burette.final", (initial + titer).toFixed(2)],
  ] as const;
}

async function standardize(
  scribe: Scribe,
  base: number,
  flasks: readonly Standardization[],
): Promise<string[]> {
  const ids: string[] = [];
  for (const flask of flasks) {
    ids.push(await scribe.trial("standardize", flask.kind ?? "fine", standardization(base, flask)));
  }
  return ids;
}

async function determine(
  scribe: Scribe,
  base: number,
  acid: number,
  flasks: readonly Aliquot[],
): Promise<string[]> {
  const ids: string[] = [];
  for (const flask of flasks) {
    ids.push(await scribe.trial("determine", flask.kind ?? "fine", aliquot(base, acid, flask)));
  }
  return ids;
}

/** Finished: with a rough trial, a reading whose digits had been swapped, and an aliquot that does not agree. */
async function pumpHouse(db: Database, at: Date): Promise<void> {
  const scribe = await Scribe.begin(db, at, {
    title: "Descaling acid of the pump house",
    sample: "PH-7",
    bench: "bench 1",
  });
  const base = 0.10184;
  const flasks = await standardize(scribe, base, [
    { kind: "rough", boat: 2.1043, mass: 0.4718, initial: 0.15, error: 0.62 },
    { boat: 2.1051, mass: 0.5127, initial: 0.2, error: 0.01 },
    { boat: 2.1048, mass: 0.4986, initial: 0.1, error: -0.02 },
  ]);
  const third = standardization(base, { boat: 2.1046, mass: 0.5304, initial: 0.35, error: 0.015 });
  const swapped = third.map(
    ([symbol, kind, text]) => [symbol, kind, kind === "burette.final" ? "28.55" : text] as const,
  );
  const id = await scribe.trial("standardize", "fine", swapped);
  await scribe.correct("standardize", id, "burette.final", third[3][2], "digits swapped");
  if (flasks.length !== 3) throw new Error("Demo data: flasks missing");
  await determine(scribe, base, 0.0873, [
    { kind: "rough", initial: 0.1, error: 0.45 },
    { initial: 22.2, error: 0.02 },
    { initial: 0.25, error: -0.03 },
    { initial: 21.7, error: 0.31 },
    { initial: 0.3, error: 0.01 },
  ]);
  await scribe.change({ intent: "finish" });
}

/** In the middle: standardized, one aliquot struck out, two that agree, the third running. */
async function kelpFilter(db: Database, at: Date): Promise<void> {
  const scribe = await Scribe.begin(db, at, {
    title: "Rinse acid of the kelp tank filter",
    sample: "KF-12",
    bench: "bench 3",
  });
  const base = 0.09962;
  await standardize(scribe, base, [
    { kind: "rough", boat: 1.8814, mass: 0.5033, initial: 0.0, error: 0.8 },
    { boat: 1.882, mass: 0.4911, initial: 0.25, error: 0.02 },
    { boat: 1.8817, mass: 0.5216, initial: 0.3, error: -0.015 },
    { boat: 1.8819, mass: 0.5078, initial: 0.15, error: 0.005 },
  ]);
  const acid = 0.0781;
  const flasks = await determine(scribe, base, acid, [
    { kind: "rough", initial: 0.15, error: 0.5 },
    { initial: 20.25, error: -0.01 },
    { initial: 0.4, error: 0.73 },
    { initial: 1.75, error: 0.04 },
  ]);
  const overshot = flasks[2];
  if (!overshot) throw new Error("Demo data: no trial to strike out");
  await scribe.change({ intent: "strike", trialId: overshot, reason: "overshot, strong pink" });
  const second = flasks[3];
  const record = await loadRunRecord(db, scribe.runId);
  const running = record ? evaluateRun(record).stages.find((s) => s.key === "determine") : undefined;
  const carried = running?.kind === "titration" ? running.proposals.get("V:burette.initial") : undefined;
  if (!second || carried === undefined) throw new Error("Demo data: no reading to carry over");
  await scribe.trial("determine", "fine", [
    ["V_a", "volume.taken", "25.00"],
    ["V", "burette.initial", carried],
  ]);
}

/** In the first stage: flasks of unlike mass, compared by titer per gram. */
async function quarantineAcid(db: Database, at: Date): Promise<void> {
  const scribe = await Scribe.begin(db, at, {
    title: "Pickling acid of the quarantine pipes",
    sample: "Q-3, second can",
    bench: "bench 5",
  });
  await standardize(scribe, 0.10307, [
    { boat: 2.3308, mass: 0.4452, initial: 0.1, error: 0.02 },
    { boat: 2.331, mass: 0.6129, initial: 0.2, error: -0.03 },
  ]);
}

/** Just begun: the first boat is on the balance. */
async function morningGroup(db: Database, at: Date): Promise<void> {
  const scribe = await Scribe.begin(db, at, {
    title: "Acid for the alkalinity class",
    sample: "stock of Monday",
    bench: "morning group",
  });
  await scribe.trial("standardize", "fine", [["m", "mass.before", "2.6134"]]);
}

const earlier: readonly (readonly [
  title: string,
  sample: string,
  bench: string,
  base: number,
  acid: number,
])[] = [
  ["Rinse acid of the reef tank skimmer", "RS-2", "bench 2", 0.1002, 0.0917],
  ["Descaling acid of the seal pool heater", "SH-1", "afternoon group", 0.0991, 0.1046],
  ["Rinse acid of the pond filter", "PF-4", "bench 4", 0.1013, 0.0688],
];

/** Finished without incident, some days ago. */
async function routine(
  db: Database,
  at: Date,
  [title, sample, bench, base, acid]: (typeof earlier)[number],
): Promise<void> {
  const scribe = await Scribe.begin(db, at, { title, sample, bench });
  await standardize(scribe, base, [
    { boat: 2.0417, mass: 0.5008, initial: 0.1, error: 0.02 },
    { boat: 2.0415, mass: 0.4873, initial: 0.2, error: -0.02 },
    { boat: 2.0419, mass: 0.5142, initial: 0.05, error: 0.01 },
  ]);
  await determine(scribe, base, acid, [
    { kind: "rough", initial: 0.1, error: 0.4 },
    { initial: 0.2, error: -0.02 },
    { initial: 0.15, error: 0.03 },
    { initial: 0.3, error: 0.01 },
  ]);
  await scribe.change({ intent: "finish" });
}

/** Fills an empty database with the demo setting; `now` is the time at the bench. */
export async function seedDemo(db: Database, now: Date): Promise<void> {
  const before = (days: number, minutes = 0) =>
    new Date(now.getTime() - days * 24 * 60 * minute - minutes * minute);
  await seedChecks(db, now);
  await saveLetterhead(db, { text: "Tern Rock Aquarium\nTeaching bench", person: "M. Finn" }, null, now);
  await seedShelf(db, now);
  for (const [i, run] of earlier.entries()) await routine(db, before(9 - 2 * i), run);
  await seedAssays(db, before);
  await seedCurves(db, now);
  await pumpHouse(db, before(2));
  await quarantineAcid(db, before(0, 50));
  await morningGroup(db, before(0, 12));
  await kelpFilter(db, before(0, 95));
}

import type { Truth } from "../../core/stages";
import { eq } from "drizzle-orm";
import { v7 as newId } from "uuid";
import { offered } from "../../catalog/methods";
import { substanceOf } from "../../catalog/substances";
import { mustHold } from "../../core/result";
import { simulateRun } from "../../core/simulate";
import type { AddSolution, MakeSolution } from "../../protocol/shelf";
import { solution } from "../database/schema";
import type { Database } from "../database/types";
import { currentHouseRules } from "../queries/house-rules";
import { loadRunRecord } from "../queries/stored-run";
import { changeRun } from "../commands/change-run";
import { ofItsMethod, startRun } from "../commands/start-run";
import { addSolution, makeSolution } from "../commands/shelf";
import { solutionById } from "../queries/shelf";
import { shelfOfRun } from "../queries/shelf-of-run";
import { inEnglish } from "~/core/text";

/*
 * The shelf of Tern Rock Aquarium's teaching bench, and the runs that fixed what stands on it: invented, simulated from a
 * known truth, and written through the commands that the screens use.
 */

const hour = 3_600_000;
const day = 24 * hour;
const dayOf = (at: Date) => at.toISOString().slice(0, 10);

interface Played {
  readonly methodId: string;
  readonly about: { readonly title: string; readonly sample: string; readonly bench: string };
  readonly at: Date;
  readonly truth: Truth;
  readonly seed: number;
  /** `stage.symbol` to the bottle that it is taken from. */
  readonly takes?: Readonly<Record<string, string>>;
  /** Trials written of each stage; all where not said. A stage with none ends the run there. */
  readonly trials?: Readonly<Record<string, number>>;
  readonly finish?: boolean;
}

/** Plays a simulated run into the database, reading by reading. Returns its id. */
async function play(
  db: Database,
  { methodId, about, at, truth, seed, takes = {}, trials = {}, finish }: Played,
) {
  const method = offered.find((m) => m.id === methodId);
  if (!method) throw new Error(`Demo data: no method ${methodId}`);
  const houseRules = (await currentHouseRules(db)).data;
  const runId = mustHold(await startRun(db, ofItsMethod({ intent: "start", methodId, ...about }), at));
  let clock = at.getTime();
  const change = async (request: Parameters<typeof changeRun>[2]) => {
    clock += 90_000;
    const outcome = await changeRun(db, runId, request, new Date(clock));
    if (outcome.status !== "done") throw new Error(`Demo data, ${methodId}: ${inEnglish(outcome.message)}`);
  };
  const amounts: Record<string, number> = { ...truth.amounts };
  for (const [input, bottleId] of Object.entries(takes)) {
    const [stageKey = "", symbol = ""] = input.split(".");
    const current = (await solutionById(db, bottleId))?.solution.current;
    if (!current) throw new Error("Demo data: a bottle without a concentration");
    if (current.unit !== "%") amounts[input] = Number(current.value);
    await change({ intent: "take", stageKey, symbol, assignmentId: current.id, reason: null });
  }
  // What else the shelf gave the run as it began is true as well.
  const begun = await loadRunRecord(db, runId);
  const given = new Set(Object.keys(takes));
  for (const { key, observations } of begun?.stages ?? []) {
    for (const { symbol, kind, value } of observations) {
      given.add(`${key}.${symbol}`);
      if (kind === "given" && value !== null && !(`${key}.${symbol}` in takes))
        amounts[`${key}.${symbol}`] = Number(value);
    }
  }
  const { record } = mustHold(simulateRun({ method, houseRules, truth: { ...truth, amounts }, seed }));
  for (const stage of record.stages) {
    for (const o of stage.observations) {
      if (given.has(`${stage.key}.${o.symbol}`)) continue;
      const { symbol, kind, text } = o;
      await change({
        intent: "observe",
        id: newId(),
        stageKey: stage.key,
        trial: null,
        symbol,
        kind,
        text,
        supersedes: null,
        reason: null,
      });
    }
    const wanted = trials[stage.key] ?? stage.trials.length;
    for (const trial of stage.trials.slice(0, wanted)) {
      const id = newId();
      for (const { symbol, kind, text } of trial.observations) {
        await change({
          intent: "observe",
          id: newId(),
          stageKey: stage.key,
          trial: { id, kind: "fine" },
          symbol,
          kind,
          text,
          supersedes: null,
          reason: null,
        });
      }
    }
    if (wanted < stage.trials.length) return runId;
  }
  if (finish) await change({ intent: "finish" });
  return runId;
}

/** Puts what a stage of a run found on the shelf, and returns the bottle. */
async function shelve(
  db: Database,
  runId: string,
  at: Date,
  parts: { stageKey: string; name: string; days: number; solutionId?: string },
): Promise<string> {
  const { stageKey, name, days, solutionId } = parts;
  const outcome = await changeRun(
    db,
    runId,
    {
      intent: "shelve",
      stageKey,
      solutionId: solutionId ?? null,
      name,
      restandardizeBy: dayOf(new Date(at.getTime() + days * day)),
    },
    at,
  );
  if (outcome.status !== "done") throw new Error(`Demo data: ${inEnglish(outcome.message)}`);
  const record = await loadRunRecord(db, runId);
  const put = record && (await shelfOfRun(db, record)).shelved.find((s) => s.stageKey === stageKey);
  if (!put) throw new Error("Demo data: nothing on the shelf");
  const hazards = substanceOf((await solutionById(db, put.solutionId))?.solution.formula ?? "")?.hazards;
  await db
    .update(solution)
    .set({
      amountMade: "1000",
      amountLeft: "640",
      hazards: hazards && !hazards.startsWith("none") ? hazards : "",
    })
    .where(eq(solution.id, put.solutionId));
  return put.solutionId;
}

async function jar(db: Database, at: Date, formula: string, amount: string, value?: string): Promise<string> {
  const known = substanceOf(formula);
  const request: AddSolution = {
    intent: "add",
    form: "solid",
    formula,
    name: known?.name ?? formula,
    how: "certificate",
    value: value ?? known?.purity?.[0] ?? "99",
    plusMinus: known?.purity?.[1] ?? "0.5",
    person: "stores",
    amount,
    restandardizeBy: "",
    hazards: known && !known.hazards.startsWith("none") ? known.hazards : "",
    note: known?.drying ?? "",
  };
  const put = await addSolution(db, request, at);
  if ("problems" in put) throw new Error(`Demo data: ${JSON.stringify(put.problems)}`);
  return put.id;
}

/** Fills the shelf: jars, standards made from them, titrants fixed by them, and waters that were titrated. */
export async function seedShelf(db: Database, now: Date): Promise<void> {
  const before = (days: number, hours = 0) => new Date(now.getTime() - days * day - hours * hour);
  const long = before(60);
  const phthalate = await jar(db, long, "KHC8H4O4", "92.4");
  const carbonate = await jar(db, long, "Na2CO3", "180");
  const iodate = await jar(db, long, "KIO3", "48.6");
  const calcium = await jar(db, long, "CaCO3", "210");
  const oxalate = await jar(db, long, "Na2C2O4", "75.1");

  const standard: MakeSolution = {
    intent: "make",
    formula: "KHC8H4O4",
    name: "phthalate standard, 0.1 mol/L",
    making: {
      how: "weighed",
      solid: "KHC8H4O4",
      solidName: "potassium hydrogen phthalate",
      weighing: "transfer",
      window: [4.8, 5.4],
      purity: { percent: "100.00", plusMinus: "0.05" },
      flaskMl: "250.0",
    },
    typed: { "m:mass.before": "8.2214", "m:mass.after": "3.1187" },
    fromId: phthalate,
    person: "bench 3",
    amount: "250",
    restandardizeBy: dayOf(new Date(now.getTime() + 20 * day)),
    hazards: "",
    note: "",
  };
  const made = await makeSolution(db, standard, before(8));
  if ("problems" in made) throw new Error(`Demo data: ${JSON.stringify(made.problems)}`);

  const acidRun = await play(db, {
    methodId: "alkalinity-of-water",
    about: { title: "Alkalinity of the kelp tank", sample: "KT-4", bench: "morning group" },
    at: before(6),
    truth: { results: { standardize: 0.0987, determine: 2.41 } },
    seed: 21,
    takes: { "standardize.P": carbonate },
    finish: true,
  });
  const acid = await shelve(db, acidRun, before(6, -2), {
    stageKey: "standardize",
    name: "hydrochloric acid, 0.1 mol/L",
    days: 60,
  });

  const thiosulfateRun = await play(db, {
    methodId: "dissolved-oxygen",
    about: { title: "Oxygen in the seal pool", sample: "SP-1, deep end", bench: "bench 2" },
    at: before(3),
    truth: { results: { standardize: 0.01242, determine: 7.86 } },
    seed: 22,
    takes: { "prepare.P": iodate },
    finish: true,
  });
  await shelve(db, thiosulfateRun, before(3, -3), {
    stageKey: "standardize",
    name: "sodium thiosulfate, 0.0125 mol/L",
    days: 14,
  });

  const edtaRun = await play(db, {
    methodId: "edta-by-calcium-carbonate",
    about: { title: "EDTA for the reef tank", sample: "bottle of Monday", bench: "bench 4" },
    at: before(4),
    truth: { results: { standardize: 0.01007 } },
    seed: 23,
    takes: { "prepare.P": calcium },
    finish: true,
  });
  await shelve(db, edtaRun, before(4, -2), { stageKey: "standardize", name: "EDTA, 0.01 mol/L", days: 90 });

  // A bottle past its date, and its titrations: an old base.
  const baseRun = await play(db, {
    methodId: "base-by-phthalate-solution",
    about: { title: "Base of the afternoon group", sample: "carboy 2", bench: "afternoon group" },
    at: before(10),
    truth: { results: { standardize: 0.1003 } },
    seed: 24,
    takes: { "prepare.P": phthalate },
    finish: true,
  });
  const base = await shelve(db, baseRun, before(10, -2), {
    stageKey: "standardize",
    name: "sodium hydroxide, 0.1 mol/L, carboy 2",
    days: 7,
  });
  await play(db, {
    methodId: "weak-acid-in-food",
    about: { title: "Pickling liquor of the otter kitchen", sample: "OK-2", bench: "bench 1" },
    at: before(9),
    truth: { results: { determine: 0.873 } },
    seed: 25,
    takes: { "determine.c_b": base },
    finish: true,
  });
  await play(db, {
    methodId: "base-by-acid",
    about: { title: "Wash base of the net store", sample: "NS-9", bench: "bench 2" },
    at: before(5),
    truth: { results: { determine: 0.1121 } },
    seed: 26,
    takes: { "determine.c_a": acid },
    finish: true,
  });

  // On the bench now: hardness of the reef tank, and permanganate, hot.
  await play(db, {
    methodId: "water-hardness",
    about: { title: "Hardness of the quarantine tap", sample: "QT-1", bench: "bench 4" },
    at: before(0, 2.4),
    truth: { results: { standardize: 0.01004, total: 6.2, calcium: 1.9 }, amounts: { "total.V_s": 25 } },
    seed: 27,
    takes: { "prepare.P": calcium },
    trials: { total: 2 },
  });
  await play(db, {
    methodId: "permanganate-by-oxalate",
    about: { title: "Permanganate for the iron class", sample: "amber bottle", bench: "bench 2" },
    at: before(0, 1.9),
    truth: { results: { standardize: 0.02013 } },
    seed: 28,
    takes: { "standardize.P": oxalate },
    trials: { standardize: 2 },
  });
}

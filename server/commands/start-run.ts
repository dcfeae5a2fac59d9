import { compileMethod } from "../../core/stages";
import { type Observation, preselected, presentObservation } from "../../core/record";
import {
  choicesFor,
  heldSymbol,
  resultAskedFor,
  methodOf,
  type RunRecord,
  withChoices,
} from "../../core/run";
import type { Database, Transacting } from "../database/types";
import type { Method } from "../../core/method";
import { applyChange, type RunChange } from "../../core/change";
import { changeContext } from "../../core/evaluate";
import { loadRunRecord } from "../queries/stored-run";
import { run, stage } from "../database/schema";
import type { StartRun } from "../../protocol/requests";
import { Bug, type Result, failure, success } from "../../core/result";
import { findMethod, isRetired } from "../queries/methods";
import { recorded } from "../journal/recorded";
import { newId } from "../journal/under-way";
import { currentHouseRules } from "../queries/house-rules";
import { clockSeen } from "./lab";
import { knownIn } from "../../protocol/known";
import { RolledBack } from "../database/rolled-back";
import { withKnownStages } from "./known-stages";
import { withPreselected } from "./preselect";
import { searchText } from "./search-text";
import { storeDifference } from "./store-run";
import { writeRun } from "./summary";
import { msg, type Phrase } from "~/core/text";
import { aliasOf } from "../../catalog/methods";

/** What another run's results are held against, stated again: it gives way to another value without a reason. */
function statedAgain(begun: RunRecord, other: RunRecord, now: Date): RunRecord {
  const stages = begun.stages.map((stage) => {
    const definition = methodOf(begun).stages.find(({ key }) => key === stage.key);
    const there = other.stages.find(({ key }) => key === stage.key)?.observations ?? [];
    const held = begun.choices?.some((choice) => choice.stageKey === stage.key && "heldAgainst" in choice);
    if (!held || !definition) return stage;
    const symbol = heldSymbol(definition);
    const again = (["given", "given.plus-minus"] as const).flatMap((kind): Observation[] => {
      const stated = presentObservation(there, symbol, kind);
      if (!stated) return [];
      const at = now.toISOString();
      return [{ ...stated, id: newId(), at, person: begun.bench, supersedes: null, reason: preselected }];
    });
    return { ...stage, observations: [...stage.observations, ...again] };
  });
  return { ...begun, stages };
}

/**
 * A new run, measured in the ways of another run of its method, held against the same and expected alike, as far as its newest version
 * can be; without one, as the alias has it under which the method was looked for.
 */
function measuredLike(begun: RunRecord, setting: Setting): RunRecord {
  const other = setting.other?.method.id === begun.method.id ? setting.other : null;
  const alias = aliasOf(setting.request.as ?? "");
  const chosen = (other ? other.choices : alias?.of === begun.method.id ? alias.choices : null) ?? [];
  const ways = chosen.filter((choice) => !("known" in choice));
  if (ways.length === 0) return begun;
  const choices = choicesFor(begun.method, ways);
  if (!compileMethod(withChoices(begun.method, choices)).ok) return begun;
  return other ? statedAgain({ ...begun, choices }, other, setting.now) : { ...begun, choices };
}

/** What a run is begun by. */
interface Setting {
  readonly request: StartRun;
  /** The run that it is like. */
  readonly other: RunRecord | null;
  readonly now: Date;
}

/** A request to begin a run under a name that a method is offered by, as one for that method. */
export function ofItsMethod(request: StartRun): StartRun {
  const alias = aliasOf(request.methodId);
  return alias ? { ...request, methodId: alias.of, as: alias.id } : request;
}

/** Why a run is not begun, and the stage that it is about, where it is about one. */
export interface StartProblem {
  readonly message: Phrase;
  readonly stageKey?: string;
}

/**
 * Begins a run by the newest version of a method and the house rules in force, and returns its id; or several at once, and returns the
 * id of their series.
 */
export function startRun(
  db: Database,
  request: StartRun,
  now = new Date(),
): Promise<Result<string, StartProblem>> {
  return begin(db, request, now).catch((error: unknown) => {
    if (error instanceof RolledBack) return { ok: false, problem: error.problem as StartProblem };
    throw error;
  });
}

/** What one run is called, and what it is among others. */
interface OneRun {
  readonly title: string;
  readonly sample: string;
  readonly bench: string;
  readonly series: RunRecord["series"] | null;
  /** What the result should be, for a check; empty where that is not known. */
  readonly known: string;
}

/** The record of a run whose result is known: its last stage is held against that. */
function heldAgainstKnown(record: RunRecord, known: string, now: Date): Result<RunRecord> {
  const lastDone = methodOf(record).stages.at(-1)?.key;
  const last = record.method.stages.find(({ key }) => key === lastDone);
  if (known === "" || !last) return success(record);
  const context = changeContext({ now: now.toISOString(), person: record.bench, newId: () => newId() });
  const label = "Known value";
  // Known is what is asked for: a further result where the run that it is like asks for that.
  const result = resultAskedFor(record, last.key);
  const changes: RunChange[] = [
    {
      ...{ intent: "hold-against", stageKey: last.key },
      heldAgainst: { against: "value", label, tolerance: "", in: "percent", ...(result && { result }) },
    },
    {
      ...{
        intent: "observe",
        id: newId(),
        stageKey: last.key,
        trial: null,
        symbol: heldSymbol(last, result),
      },
      ...{ kind: "given", text: known, supersedes: null, reason: null },
    },
  ];
  let after = record;
  for (const change of changes) {
    const applied = applyChange(after, change, context);
    if (!applied.ok) return failure(applied.problem.message);
    after = applied.value?.record ?? after;
  }
  return success(after);
}

/** Writes one run by a method, with what is known and chosen in it; returns its id. */
async function beginOne(
  tx: Transacting,
  chosen: Method,
  { title, sample, bench, series, known: should }: OneRun,
  setting: Setting,
): Promise<string> {
  const { request, other, now } = setting;
  const id = newId(now);
  await tx.insert(run).values({
    ...{ id, title, sample, bench, series, search: searchText({ title, sample, bench }) },
    methodId: chosen.id,
    methodVersion: chosen.version,
    houseRulesId: (await currentHouseRules(tx)).id,
    status: "open",
    startedAt: now,
    updatedAt: now,
    summary: { chain: [], next: "", state: "", result: null },
  });
  await tx
    .insert(stage)
    .values(chosen.stages.map(({ key }, position) => ({ id: newId(), runId: id, key, position })));
  const begun = await loadRunRecord(tx, id);
  if (!begun) throw new Bug("The run was not written");
  const asBefore = other?.method.id === begun.method.id ? knownIn(other) : [];
  const alike = measuredLike(begun, setting);
  const known = await withKnownStages(tx, alike, request.known ?? asBefore, now);
  if (!known.ok) throw new RolledBack(known.problem);
  const held = heldAgainstKnown(known.value, should, now);
  if (!held.ok) throw new RolledBack(held.problem);
  const record = await withPreselected(tx, held.value, now);
  await writeRun(tx, record, await storeDifference(tx, begun, record, now), now);
  return id;
}

/** The series that runs like another one belong to: its own; it becomes the first of one where it was in none. */
async function seriesOf(tx: Transacting, other: RunRecord | null, now: Date): Promise<string | null> {
  if (!other) return null;
  if (other.series) return other.series.id;
  // A run that is locked becomes the first of no series.
  if (other.countersigned) return null;
  const after: RunRecord = { ...other, series: { id: other.id, role: "sample" } };
  await writeRun(tx, after, await storeDifference(tx, other, after, now), now);
  return other.id;
}

function begin(db: Database, request: StartRun, now: Date): Promise<Result<string>> {
  return recorded(db, "start", request, now, async (tx) => {
    const chosen = await findMethod(tx, request.methodId);
    if (!chosen) return failure(msg`Choose a method from the library`);
    if (await isRetired(tx, chosen.id))
      return failure(msg`This method is retired: restore it on its page first`);
    await clockSeen(tx, now);
    const found = request.like ? await loadRunRecord(tx, request.like) : null;
    // A run of an older library may be by what is a name of this method now.
    const isAlike = found && [found.method.id, aliasOf(found.method.id)?.of].includes(chosen.id);
    const other = isAlike ? found : null;
    const title = request.title.trim();
    const setting = { request, other, now };
    if (!request.several) {
      const id = await seriesOf(tx, other, now);
      const series = id === null ? null : { id, role: "sample" as const };
      const [sample, bench] = [request.sample.trim(), request.bench.trim()];
      return success(await beginOne(tx, chosen, { title, sample, bench, series, known: "" }, setting));
    }
    const id = (await seriesOf(tx, other, now)) ?? newId(now);
    for (const [place, { sample, bench, role, amount }] of request.several.entries()) {
      const added = role === "spiked" && amount !== "" ? { added: amount } : {};
      const one: OneRun = {
        ...{ title: `${sample}, ${title}`.slice(0, 120), sample, bench },
        series: { id, role, place, ...added },
        known: role === "check" ? amount : "",
      };
      await beginOne(tx, chosen, one, setting);
    }
    return success(id);
  });
}

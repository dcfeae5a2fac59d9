import { compileMethod } from "../../core/stages";
import { type Observation, preselected, presentObservation } from "../../core/record";
import { choicesFor, heldSymbol, isHoldable, methodOf, type RunRecord, withChoices } from "../../core/run";
import type { Database } from "../database/types";
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

/** What another run's results are held against, stated again: it gives way to another value without a reason. */
function statedAgain(begun: RunRecord, other: RunRecord, now: Date): RunRecord {
  const stages = begun.stages.map((stage) => {
    const definition = methodOf(begun).stages.find(({ key }) => key === stage.key);
    const there = other.stages.find(({ key }) => key === stage.key)?.observations ?? [];
    const held = begun.choices?.some((choice) => choice.stageKey === stage.key && "heldAgainst" in choice);
    if (!held || !definition || !isHoldable(definition)) return stage;
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
 * can be.
 */
function measuredLike(begun: RunRecord, other: RunRecord | null, now: Date): RunRecord {
  const ways = other?.choices?.filter((choice) => !("known" in choice)) ?? [];
  if (!other || ways.length === 0 || other.method.id !== begun.method.id) return begun;
  const choices = choicesFor(begun.method, ways);
  if (!compileMethod(withChoices(begun.method, choices)).ok) return begun;
  return statedAgain({ ...begun, choices }, other, now);
}

/** Why a run is not begun, and the stage that it is about, where it is about one. */
export interface StartProblem {
  readonly message: Phrase;
  readonly stageKey?: string;
}

/** Begins a run by the newest version of a method and the house rules in force, and returns its id. */
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

function begin(db: Database, request: StartRun, now: Date): Promise<Result<string>> {
  return recorded(db, "start", request, now, async (tx) => {
    const chosen = await findMethod(tx, request.methodId);
    if (!chosen) return failure(msg`Choose a method from the library`);
    if (await isRetired(tx, chosen.id))
      return failure(msg`This method is retired: restore it on its page first`);
    await clockSeen(tx, now);
    const id = newId(now);
    await tx.insert(run).values({
      id,
      methodId: chosen.id,
      methodVersion: chosen.version,
      houseRulesId: (await currentHouseRules(tx)).id,
      title: request.title.trim(),
      sample: request.sample.trim(),
      bench: request.bench.trim(),
      search: searchText(request),
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
    const other = request.like ? await loadRunRecord(tx, request.like) : null;
    const known = await withKnownStages(
      tx,
      measuredLike(begun, other, now),
      request.known ?? (other?.method.id === begun.method.id ? knownIn(other) : []),
      now,
    );
    if (!known.ok) throw new RolledBack(known.problem);
    const record = await withPreselected(tx, known.value, now);
    await writeRun(tx, record, await storeDifference(tx, begun, record, now), now);
    return success(id);
  });
}

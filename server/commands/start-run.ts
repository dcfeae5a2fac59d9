import { compileMethod } from "../../core/stages";
import { choicesFor, type RunRecord, withChoices } from "../../core/run";
import type { Database, DatabaseConnection } from "../database/types";
import { loadRunRecord } from "../queries/stored-run";
import { run, stage } from "../database/schema";
import type { StartRun } from "../../protocol/requests";
import { Bug, type Result, failure, success } from "../../core/result";
import { findMethod, isRetired } from "../queries/methods";
import { recorded } from "../journal/recorded";
import { newId } from "../journal/under-way";
import { currentHouseRules } from "../queries/house-rules";
import { clockSeen } from "./lab";
import { withPreselected } from "./preselect";
import { searchText } from "./search-text";
import { storeDifference } from "./store-run";
import { writeRun } from "./summary";
import { msg } from "~/core/text";

/** A new run, measured in the ways of another run of its method, as far as its newest version can be. */
async function likeAnother(db: DatabaseConnection, begun: RunRecord, like: string): Promise<RunRecord> {
  const other = like === "" ? null : await loadRunRecord(db, like);
  if (!other?.choices || other.method.id !== begun.method.id) return begun;
  const choices = choicesFor(begun.method, other.choices);
  return compileMethod(withChoices(begun.method, choices)).ok ? { ...begun, choices } : begun;
}

/** Begins a run by the newest version of a method and the house rules in force, and returns its id. */
export function startRun(db: Database, request: StartRun, now = new Date()): Promise<Result<string>> {
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
    const record = await withPreselected(tx, await likeAnother(tx, begun, request.like ?? ""), now);
    await writeRun(tx, record, await storeDifference(tx, begun, record, now), now);
    return success(id);
  });
}

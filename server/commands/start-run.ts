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
import { withPreselected } from "./preselect";
import { searchText } from "./search-text";
import { storeDifference } from "./store-run";
import { writeRun } from "./summary";
import { msg } from "~/core/text";

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
    const record = await withPreselected(tx, begun, now);
    await writeRun(tx, record, await storeDifference(tx, begun, record, now), now);
    return success(id);
  });
}

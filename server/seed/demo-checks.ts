import { v7 as newId } from "uuid";
import { findMethod } from "../queries/methods";
import { Bug, mustHold } from "../../core/result";
import type { RunRecord } from "../../core/run";
import { simulateRun } from "../../core/simulate";
import type { StageRecord } from "../../core/record";
import type { Database } from "../database/types";
import { importRecords } from "../import/import-records";
import { currentHouseRules } from "../queries/house-rules";

/*
 * A check acid that the aquarium's bench titrates once a week: invented, simulated from a known truth. Toward the end the base has stood open, and
 * takes up carbon dioxide: more of it is used, and the acid seems to grow stronger, which its control chart tells.
 */

const week = 7 * 24 * 3_600_000;
const weeks = 26;
const driftsFrom = 20;

/** What the acid seems to be in a week, mol/L; the titration itself scatters besides. */
const seems = (at: number) => 0.1 + Math.max(0, at - driftsFrom) * 0.00011;

/** A simulated record with ids as a database gives them, moved to another time. */
function asWritten(
  record: RunRecord,
  begun: Date,
  about: Pick<RunRecord, "title" | "sample" | "bench">,
): RunRecord {
  const later = begun.getTime() - Date.parse(record.startedAt);
  const moved = (at: string) => new Date(Date.parse(at) + later).toISOString();
  const observations = (all: StageRecord["observations"]) =>
    all.map((read) => ({ ...read, id: newId(), at: moved(read.at), person: about.bench }));
  const stages = record.stages.map((stage) => ({
    ...stage,
    id: newId(),
    observations: observations(stage.observations),
    trials: stage.trials.map((trial) => ({
      ...trial,
      id: newId(),
      observations: observations(trial.observations),
    })),
  }));
  const startedAt = begun.toISOString();
  const finishedAt = new Date(begun.getTime() + 50 * 60_000).toISOString();
  return { ...record, ...about, id: newId(), status: "finished", startedAt, finishedAt, stages };
}

/** Half a year of a check acid. */
export async function seedChecks(db: Database, now: Date): Promise<void> {
  const method = await findMethod(db, "acid-by-base");
  if (!method) throw new Bug("The method of the check acid is not in the library");
  const houseRules = (await currentHouseRules(db)).data;
  const runs = Array.from({ length: weeks }, (_, at) => {
    const begun = new Date(now.getTime() - (weeks - at) * week - 3 * 24 * 3_600_000);
    const truth = { results: { determine: seems(at) } };
    const { record } = mustHold(simulateRun({ method, houseRules, truth, seed: 400 + at }));
    const about = {
      title: `Check acid, week ${at + 1}`,
      sample: "check acid C-1",
      bench: at % 2 ? "J. Reed" : "M. Finn",
    };
    return asWritten(record, begun, about);
  });
  const nothing = { methods: [], shelf: null, from: null };
  await importRecords(db, { ...nothing, file: "check-acid.zip", person: "M. Finn", runs }, now);
}

import type { Method } from "../../core/method";
import type { RunRecord } from "../../core/run";
import { formulasKnownBy, type KnowableStage, knowableStages } from "../../protocol/known";
import type { DatabaseConnection } from "../database/types";
import { bottlesOf } from "./shelf";

/** The stages of a method that need not be done in a run that begins, `like` another one, by what stands on the shelf. */
export async function knowableFor(
  db: DatabaseConnection,
  method: Method,
  like: RunRecord | null,
  now = new Date(),
): Promise<KnowableStage[]> {
  return knowableStages(method, await bottlesOf(db, [...new Set(formulasKnownBy(method))], now), like);
}

import { type Method, perOf } from "../../core/method";
import { statedOf } from "../../core/inputs";
import { bestBottle } from "../../protocol/known";
import type { DatabaseConnection } from "../database/types";
import { knownOf, methodOf, type RunRecord } from "../../core/run";
import { bottlesOf } from "../queries/shelf";
import { bottleTaken } from "../queries/bottle";
import { newId } from "../journal/under-way";
import { writeTaken } from "../../core/change";
import { changeContext } from "../../core/evaluate";
import { preselected, presentObservation } from "../../core/record";

/** What stages of a method take from the shelf, by stage and symbol. */
const wantedOf = ({ stages }: Method) =>
  stages.flatMap(({ key: stageKey, inputs }) =>
    inputs.flatMap((input) => {
      const stated = statedOf(input);
      const shelf = perOf(input) === "run" ? stated?.shelf : null;
      return shelf ? [{ stageKey, input, kind: stated?.value ?? "given", formula: shelf.formula }] : [];
    }),
  );

/**
 * The record of a run that begins, with the bottle of the shelf taken that fits each concentration and purity it asks for, so that
 * nothing is presumed that is known. It is shown with the value, and another one or a typed value takes its place without a reason.
 */
export async function withPreselected(
  db: DatabaseConnection,
  record: RunRecord,
  now: Date,
): Promise<RunRecord> {
  const wanted = wantedOf(methodOf(record)).filter(({ stageKey, input, kind }) => {
    // Who states it, now or later, has said that it is no bottle's.
    if (knownOf(record, stageKey)) return false;
    const there = record.stages.find(({ key }) => key === stageKey)?.observations ?? [];
    return presentObservation(there, input.symbol, kind) === null;
  });
  const bottles = await bottlesOf(db, [...new Set(wanted.map(({ formula }) => formula))], now);
  const context = changeContext({ now: now.toISOString(), person: record.bench, newId: () => newId() });
  let after = record;
  for (const { stageKey, input } of wanted) {
    const bottle = bestBottle(input, bottles);
    const taken = bottle?.current && (await bottleTaken(db, bottle.current.id));
    if (taken) after = writeTaken(after, stageKey, input, taken.used, preselected, context).record;
  }
  return after;
}

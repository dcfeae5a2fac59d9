import { type Method, perOf } from "../../core/method";
import type { SolutionView } from "../../protocol/shelf";
import { type Input, presumedOf, statedOf } from "../../core/inputs";
import type { DatabaseConnection } from "../database/types";
import type { RunRecord } from "../../core/run";
import { bottlesOf } from "../queries/shelf";
import { bottleTaken } from "../queries/bottle";
import { newId } from "../journal/under-way";
import { writeTaken } from "../../core/change";
import { changeContext } from "../../core/evaluate";
import { preselected } from "../../core/record";

/** What stages of a method take from the shelf, by stage and symbol, with the unit that it is needed in. */
const wantedOf = ({ stages }: Method) =>
  stages.flatMap(({ key: stageKey, inputs }) =>
    inputs.flatMap((input) => {
      const shelf = perOf(input) === "run" ? statedOf(input)?.shelf : null;
      return shelf ? [{ stageKey, input, ...shelf }] : [];
    }),
  );

/** A bottle this much stronger or weaker than what a method presumes is another solution. Common practice, no source. */
const alike = 2;

/** Whether a bottle can be what the method means: about as strong as it presumes, where it presumes something. */
function fits({ current }: SolutionView, input: Input): boolean {
  const presumed = presumedOf(input).given;
  if (!current || presumed === undefined) return current !== null;
  const times = Number(current.value) / Number(presumed);
  return times <= alike && times >= 1 / alike;
}

/** The bottle whose concentration was fixed last, of those in date. */
function newest(bottles: readonly SolutionView[]): SolutionView | undefined {
  return [...bottles]
    .filter((b) => b.state === "in use" && b.current)
    .sort((a, b) => Number(b.current?.at) - Number(a.current?.at))[0];
}

/**
 * The record of a run that begins, with the bottle of the shelf taken that fits each concentration and purity it asks for, so that
 * nothing is presumed that is known. It is shown with the value, and another one or a typed value takes its place without a reason.
 */
export async function withPreselected(
  db: DatabaseConnection,
  record: RunRecord,
  now: Date,
): Promise<RunRecord> {
  const wanted = wantedOf(record.method);
  const bottles = await bottlesOf(db, [...new Set(wanted.map(({ formula }) => formula))], now);
  const context = changeContext({ now: now.toISOString(), person: record.bench, newId: () => newId() });
  let after = record;
  for (const { stageKey, input, formula, unit } of wanted) {
    const bottle = newest(
      bottles.filter((b) => b.formula === formula && b.current?.unit === unit && fits(b, input)),
    );
    const taken = bottle?.current && (await bottleTaken(db, bottle.current.id));
    if (taken) after = writeTaken(after, stageKey, input, taken.used, preselected, context).record;
  }
  return after;
}

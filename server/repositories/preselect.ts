import type { Input } from "../../core/inputs";
import type { Method } from "../../core/method";
import { preselected } from "../../core/record";
import type { RunRecord } from "../../core/run";
import type { SolutionView } from "../../protocol/shelf";
import type { Connection } from "../database/types";
import { bottlesOf } from "./shelf";
import { bottleById, writeTaken } from "./take";

/** What stages of a method take from the shelf, by stage and symbol, with the unit that it is needed in. */
function wantedOf(method: Method) {
  return method.stages.flatMap((stage) =>
    stage.kind === "conclude"
      ? []
      : stage.inputs.flatMap((input) =>
          (input.is === "given" || input.is === "purity") && input.per === "run" && input.of !== undefined
            ? [
                {
                  stageKey: stage.key,
                  input,
                  formula: input.of,
                  unit: input.is === "purity" ? "%" : input.unit,
                },
              ]
            : [],
        ),
  );
}

/** A bottle this much stronger or weaker than what a method presumes is another solution. Common practice, no source. */
const alike = 2;

/** Whether a bottle can be what the method means: about as strong as it presumes, where it presumes something. */
function fits({ current }: SolutionView, input: Input): boolean {
  if (!current || input.is !== "given" || !input.presumed) return current !== null;
  const times = Number(current.value) / Number(input.presumed.value);
  return times <= alike && times >= 1 / alike;
}

/** The bottle whose concentration was fixed last, of those in date. */
function newest(bottles: readonly SolutionView[]): SolutionView | undefined {
  return [...bottles]
    .filter((b) => b.state === "in use" && b.current)
    .sort((a, b) => Number(b.current?.at) - Number(a.current?.at))[0];
}

/**
 * Takes, for a run that begins, the bottle of the shelf that fits each concentration and purity it asks for, so that nothing
 * is presumed that is known. It is shown with the value, and another one or a typed value takes its place without a reason.
 */
export async function preselectBottles(db: Connection, record: RunRecord, now: Date): Promise<void> {
  const wanted = wantedOf(record.method);
  const bottles = await bottlesOf(db, [...new Set(wanted.map(({ formula }) => formula))], now);
  for (const { stageKey, input, formula, unit } of wanted) {
    const stage = record.stages.find((s) => s.key === stageKey);
    const bottle = newest(
      bottles.filter((b) => b.formula === formula && b.current?.unit === unit && fits(b, input)),
    );
    const found = bottle?.current && (await bottleById(db, bottle.current.id));
    if (!stage || !found) continue;
    const change = { db, record, person: record.bench, now };
    await writeTaken(change, stage, input, found.a, preselected);
  }
}

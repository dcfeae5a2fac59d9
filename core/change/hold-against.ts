import { Type } from "@sinclair/typebox";
import { success } from "../result";
import { askable, withChoices } from "../run";
import { HeldAgainstSchema } from "../run/held-against-schema";
import { msg, type Phrase } from "../text";
import { type ChangeKind, malformed, missing, refused } from "./change";
import { Closed, Key, type Made } from "./parts";

export const holdAgainstSchema = () =>
  Type.Object(
    {
      intent: Type.Literal("hold-against"),
      stageKey: Key,
      /** Null for what the method says, and nothing where it says nothing. */
      heldAgainst: Type.Union([HeldAgainstSchema(), Type.Null()]),
    },
    Closed,
  );
type HoldAgainst = Made<typeof holdAgainstSchema>;

function words(title: string, held: HoldAgainst["heldAgainst"]): Phrase {
  if (held === null) return msg`"${title}": held against what the method says`;
  if (held.against === "limit") return msg`"${title}": held against a limit (${held.bound})`;
  const { label, tolerance } = held;
  if (tolerance === "") return msg`"${title}": held against ${label}`;
  return held.in === "percent"
    ? msg`"${title}": held against ${label}, ${tolerance} % allowed`
    : msg`"${title}": held against ${label}, ± ${tolerance} allowed`;
}

/** What the result of a stage is held against: a known or target value, or a limit. It is stated in the stage then. */
export const holdAgainst: ChangeKind<HoldAgainst> = {
  apply(record, { stageKey, heldAgainst }, context) {
    const stage = record.method.stages.find(({ key }) => key === stageKey);
    if (!stage) return missing(msg`This run has no such stage`);
    if (!context.allows(stage).holds)
      return refused(msg`Nothing is held against the result of "${stage.title}"`);
    if (
      heldAgainst?.result !== undefined &&
      !askable(stage).some(({ symbol }) => symbol === heldAgainst.result)
    )
      return malformed(msg`This stage has no such result that could be asked for`);
    if (
      heldAgainst?.against === "value" &&
      heldAgainst.tolerance !== "" &&
      Number(heldAgainst.tolerance) <= 0
    )
      return malformed(msg`What is allowed is above zero`);
    const before = record.choices ?? [];
    const others = before.filter((c) => c.stageKey !== stageKey || !("heldAgainst" in c));
    const choices = heldAgainst ? [...others, { stageKey, heldAgainst }] : others;
    if (JSON.stringify(choices) === JSON.stringify(before)) return success(null);
    if (!context.holdsTogether(withChoices(record.method, choices)))
      return refused(msg`The result of "${stage.title}" cannot be held against that`);
    return success({
      record: { ...record, choices },
      inverse: { do: "inputs", choices: before },
      entry: { description: words(stage.title, heldAgainst) },
    });
  },
};

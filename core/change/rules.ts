import { Type } from "@sinclair/typebox";
import { success } from "../result";
import { HouseRulesSchema } from "../rules/schema";
import { type ChangeKind, refused } from "./change";
import { Closed, type Made, Reason } from "./parts";
import { msg } from "../text";

export const rulesSchema = () =>
  Type.Object({ intent: Type.Literal("rules"), rules: HouseRulesSchema, reason: Reason }, Closed);

/** As text, whatever the order in which its parts were written: a database has one of its own. */
const inOrder = (value: unknown): string =>
  JSON.stringify(value, (_key, part: unknown) =>
    part !== null && typeof part === "object" && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
      : part,
  );

/** House rules for this run alone; the same again change nothing. */
export const rules: ChangeKind<Made<typeof rulesSchema>> = {
  apply(record, request, { wrongRules }) {
    const wrong = wrongRules(request.rules);
    if (wrong !== null) return refused(wrong);
    if (inOrder(request.rules) === inOrder(record.houseRules)) return success(null);
    return success({
      record: { ...record, houseRules: request.rules },
      inverse: { do: "rules", rules: record.houseRules },
      entry: { description: msg`house rules of this run changed`, detail: { why: request.reason } },
    });
  },
};

import { Type } from "@sinclair/typebox";
import { success } from "../result";
import { HouseRulesSchema, ruleProblems } from "../rules";
import { type ChangeKind, refused } from "./change";
import { Closed, type Made, Reason } from "./parts";
import { msg } from "../text";

export const rulesSchema = () =>
  Type.Object({ intent: Type.Literal("rules"), rules: HouseRulesSchema, reason: Reason }, Closed);

/** House rules for this run alone. */
export const rules: ChangeKind<Made<typeof rulesSchema>> = {
  apply(record, request) {
    const [wrong] = ruleProblems(request.rules);
    if (wrong) return refused(wrong.message);
    return success({
      record: { ...record, houseRules: request.rules },
      inverse: { do: "rules", rules: record.houseRules },
      entry: { description: msg`house rules of this run changed`, detail: { why: request.reason } },
    });
  },
};

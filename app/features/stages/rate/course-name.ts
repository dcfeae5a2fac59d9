import type { CourseEvaluation } from "~/core/stages";
import { trialWords } from "~/core/record";
import { withUnit } from "~/core/quantity";
import { capitalized, joined, type Phrase } from "~/core/text";

/** "Kinetic run 2, 0.10 mol/L". */
export function courseName({ record, fields }: CourseEvaluation): Phrase {
  const typed = fields
    .filter(({ field, present }) => present && field.kind === "given")
    .map(({ field, present }) => withUnit(present?.text ?? "", field.unit));
  return joined([capitalized(trialWords(record, "course")), ...typed], ", ");
}

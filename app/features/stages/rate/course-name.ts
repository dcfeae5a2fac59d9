import type { CourseEvaluation } from "~/core/stages";
import { trialWords } from "~/core/record";
import { capitalized, inEnglish } from "~/core/text";

/** "Course 2, 0.10 mol/L". */
export function courseName({ record, fields }: CourseEvaluation): string {
  const typed = fields
    .filter(({ field, present }) => present && field.kind === "given")
    .map(({ field, present }) => `${present?.text ?? ""} ${field.unit}`);
  return [capitalized(inEnglish(trialWords(record, "course"))), ...typed].join(", ");
}

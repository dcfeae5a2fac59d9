import type { Method } from "~/core/method";
import type { MethodProblem } from "~/core/stages";
import { msg, type Phrase } from "~/core/text";
import { readMethodFile } from "~/formats/method-file";
import { gaps } from "./preview";

/**
 * What keeps a method from being saved, in words, beside what its check found: what is still to be filled in, and what the server
 * would refuse. Nothing is left unsaid: where this is empty and the check found nothing, saving works.
 */
export function missingIn(method: Method, problem: MethodProblem | null): readonly Phrase[] {
  const missing = gaps(method);
  if (problem || missing.length > 0) return missing;
  const read = readMethodFile(JSON.stringify(method));
  return "problems" in read
    ? read.problems.map(({ path, message }) => msg`${placeOf(method, path)} ${message}`)
    : [];
}

/** A place in a method in words: "Titrate the sample, relations 2, unit". */
function placeOf(method: Method, path: string): Phrase {
  const [first = "", at = "", ...rest] = path.replace(/^\//, "").split(/[./]/);
  const stage = first === "stages" ? method.stages[Number(at)] : undefined;
  const parts = stage ? [stage.title, ...rest] : [first, at, ...rest];
  return parts
    .filter((part) => part !== "")
    .map((part) => (/^\d+$/.test(part) ? String(Number(part) + 1) : part))
    .join(", ");
}

import type { Static, TSchema } from "@sinclair/typebox";
import Ajv, { type ErrorObject } from "ajv";
import addFormats from "ajv-formats";
import { failure, type Result, success } from "~/core/result";

const ajv = new Ajv({ allErrors: true, discriminator: false });
addFormats(ajv);

/** What is wrong with a value, and where: keys and indices joined by points. */
export interface PathProblem {
  readonly path: string;
  readonly message: string;
}

/** Keys by which one of several forms is told from the others. */
const telling = /\/(is|kind|rule|against|format|intent|how)$/;

/**
 * Where a value fits none of several forms, the errors of all of them come together. Kept are those of the form it was
 * meant for: the one whose telling key fits, else the one with the fewest faults.
 */
function ofTheFormMeant(errors: readonly ErrorObject[]): ErrorObject[] {
  const union = errors.find(({ keyword }) => keyword === "anyOf");
  if (!union) return [...errors];
  const prefix = `${union.schemaPath}/`;
  const under = (e: ErrorObject) =>
    e.schemaPath.startsWith(prefix) && e.instancePath.startsWith(union.instancePath);
  const forms = new Map<string, ErrorObject[]>();
  for (const error of errors.filter(under)) {
    const form = error.schemaPath.slice(prefix.length).split("/")[0] ?? "";
    forms.set(form, [...(forms.get(form) ?? []), error]);
  }
  const others = errors.filter((e) => e !== union && !under(e));
  const foreign = (list: readonly ErrorObject[]) =>
    list.filter((e) => e.keyword === "const" && telling.test(e.instancePath)).length;
  const [meant] = [...forms.values()].sort((a, b) => foreign(a) - foreign(b) || a.length - b.length);
  if (
    !meant ||
    foreign(meant) > 0 ||
    meant.every((e) => e.keyword === "const" && e.instancePath === union.instancePath)
  ) {
    const values = [...forms.values()].flat().flatMap((e) => (e.keyword === "const" ? [e] : []));
    const at = values[0]?.instancePath ?? union.instancePath;
    const here = values.filter((e) => e.instancePath === at);
    const allowed = [
      ...new Set(here.map((e) => String((e.params as { allowedValue: unknown }).allowedValue))),
    ];
    const message = allowed.length > 0 ? `must be one of ${allowed.join(", ")}` : (union.message ?? "");
    return ofTheFormMeant([...others, { ...union, keyword: "one of", instancePath: at, message }]);
  }
  return ofTheFormMeant([...others, ...meant]);
}

function described({ instancePath, message, keyword, params }: ErrorObject): PathProblem {
  const path = instancePath === "" ? "the whole" : instancePath.slice(1).replaceAll("/", ".");
  const extra =
    keyword === "additionalProperties"
      ? `: "${(params as { additionalProperty: string }).additionalProperty}"`
      : "";
  return { path, message: `${message ?? "is not as it should be"}${extra}` };
}

/** A checker for one schema that lists everything that is wrong, by path; nothing where all is well. */
export function pathChecker(schema: TSchema): (value: unknown) => PathProblem[] {
  const valid = ajv.compile(schema);
  return (value) => (valid(value) ? [] : ofTheFormMeant(valid.errors ?? []).map(described));
}

/** A checker for one schema: the value with its type, or what is wrong with it and where. */
export function checker<T extends TSchema>(schema: T): (value: unknown) => Result<Static<T>> {
  const problemsOf = pathChecker(schema);
  return (value) => {
    const problems = problemsOf(value);
    if (problems.length === 0) return success(value as Static<T>);
    return failure(
      problems
        .slice(0, 5)
        .map(({ path, message }) => `${path}: ${message}`)
        .join("; "),
    );
  };
}

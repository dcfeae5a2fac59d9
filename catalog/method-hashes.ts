import { createHash } from "node:crypto";
import { concluding, type Method } from "~/core/method";
import { inEnglish } from "~/core/text";

/** The hash of each version of each method that ever shipped, by id and version. */
export type MethodHashes = Readonly<Record<string, Readonly<Record<string, string>>>>;

/** Keys in their alphabetical order, so that the order in which a method was written does not count. */
function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted);
  if (value === null || typeof value !== "object") return value;
  return Object.fromEntries(
    Object.entries(value)
      .filter(([, v]) => v !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, v]) => [key, sorted(v)]),
  );
}

/** What a version of a method is, as files hold it, in sixteen characters: any change of its data changes it. */
export function hashOf(method: Method): string {
  const end = {
    kind: "conclude",
    key: concluding.key,
    title: inEnglish(concluding.title),
    of: method.stages.at(-1)?.key,
  };
  return createHash("sha256")
    .update(JSON.stringify(sorted({ ...method, stages: [...method.stages, end] })))
    .digest("hex")
    .slice(0, 16);
}

import { createHash } from "node:crypto";
import type { Method } from "~/core/method";

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

/** What a version of a method is, in sixteen characters: any change of its data changes it. */
export const hashOf = (method: Method): string =>
  createHash("sha256")
    .update(JSON.stringify(sorted(method)))
    .digest("hex")
    .slice(0, 16);

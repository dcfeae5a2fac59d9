import type { Static, TSchema } from "@sinclair/typebox";
import Ajv, { type ErrorObject } from "ajv";
import addFormats from "ajv-formats";
import { failure, type Result, success } from "~/core/result";

const ajv = new Ajv({ allErrors: true, discriminator: false });
addFormats(ajv);

function describe(error: ErrorObject): string {
  const where = error.instancePath === "" ? "the whole" : error.instancePath.slice(1).replaceAll("/", ".");
  return `${where}: ${error.message ?? "is not as it should be"}`;
}

/** A checker for one schema: the value with its type, or what is wrong with it and where. */
export function checker<T extends TSchema>(schema: T): (value: unknown) => Result<Static<T>> {
  const valid = ajv.compile<Static<T>>(schema);
  return (value) => {
    if (valid(value)) return success(value);
    const problems = (valid.errors ?? []).slice(0, 5).map(describe);
    return failure(problems.join("; "));
  };
}

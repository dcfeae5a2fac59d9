import { HouseRulesSchema } from "~/core/rules";
import { ManifestSchema, ShelfFileSchema } from "./archive/schema";
import { MethodFileSchema, RunFileSchema } from "./concluded";

const dialect = { $schema: "http://json-schema.org/draft-07/schema#" };

/** The JSON Schemas as published under formats/schemas/: file name and text, from the one source of the types. */
export const publishedSchemas: readonly (readonly [name: string, text: string])[] = [
  ["run-record.schema.json", RunFileSchema],
  ["method.schema.json", MethodFileSchema],
  ["house-rules.schema.json", HouseRulesSchema],
  ["archive-manifest.schema.json", ManifestSchema],
  ["shelf.schema.json", ShelfFileSchema],
].map(([name, schema]) => [
  name as string,
  `${JSON.stringify({ ...dialect, ...(schema as object) }, null, 2)}\n`,
]);

import type { TSchema } from "@sinclair/typebox";
import Ajv, { type ErrorObject, type Options } from "ajv";
import addFormats from "ajv-formats";

/** A compiled schema: true where a value fits; else `errors` says why not. */
export interface Valid {
  (value: unknown): boolean;
  errors?: ErrorObject[] | null;
}

/** JSON Schema as plain data. */
type Plain = Readonly<Record<string, unknown>>;

const isPlain = (x: unknown): x is Plain => typeof x === "object" && x !== null && !Array.isArray(x);

/** The values that a schema allows where it lists them one by one; null where it does not. */
function listed(schema: unknown): unknown[] | null {
  if (!isPlain(schema)) return null;
  if ("const" in schema) return [schema.const];
  if (Array.isArray(schema.enum)) return schema.enum as unknown[];
  return null;
}

/** The key by whose value the forms of a union are told apart: each form lists values of its own for it. */
function tagOf(forms: readonly Plain[]): string | null {
  const properties = forms.map(({ properties }) => (isPlain(properties) ? properties : {}));
  const [first = {}] = properties;
  return (
    Object.keys(first).find((key) => {
      const values = properties.map((p) => listed(p[key]));
      return values.every((v) => v !== null) && new Set(values.flat()).size === values.flat().length;
    }) ?? null
  );
}

function union(forms: readonly Plain[]): Plain {
  const values = forms.map((form) => (form.type === "null" ? [null] : listed(form)));
  if (values.every((v) => v !== null)) return { enum: values.flat() };
  const others = forms.filter((form) => form.type !== "null");
  const [only] = others;
  if (only && others.length === 1 && !("enum" in only)) return { ...only, type: [only.type, "null"] };
  const tag = tagOf(forms);
  if (tag === null) return { anyOf: forms };
  const allowed = forms.flatMap((form) => listed((form.properties as Plain)[tag]) ?? []);
  return {
    type: "object",
    required: [tag],
    properties: { [tag]: { enum: allowed } },
    discriminator: { propertyName: tag },
    oneOf: forms,
  };
}

/**
 * The same schema with its unions told apart before they are looked into: literals as a list of values, forms by their tag. So
 * only the form that was meant is checked, in time in proportion to the value, and only its problems are told.
 */
export function tagged(schema: unknown): unknown {
  if (Array.isArray(schema)) return schema.map(tagged);
  if (!isPlain(schema)) return schema;
  const inside: Plain = Object.fromEntries(
    Object.entries(schema).map(([key, value]) => [key, tagged(value)]),
  );
  if (!Array.isArray(inside.anyOf)) return inside;
  const { anyOf, ...others } = inside;
  return { ...others, ...union(anyOf as Plain[]) };
}

const schemaLists = ["anyOf", "oneOf", "allOf"];
const schemaMaps = ["properties", "patternProperties"];
const schemaAlone = ["items", "additionalProperties", "not"];
/** What is shorter than this is checked in place. */
const worthSharing = 160;

/** A schema with what stands directly in it replaced. */
function withInner(schema: Plain, replace: (inner: Plain) => Plain): Plain {
  const one = (value: unknown) => (isPlain(value) ? replace(value) : value);
  return Object.fromEntries(
    Object.entries(schema).map(([key, value]) => {
      if (schemaLists.includes(key) && Array.isArray(value)) return [key, value.map(one)];
      if (schemaMaps.includes(key) && isPlain(value))
        return [key, Object.fromEntries(Object.entries(value).map(([name, inner]) => [name, one(inner)]))];
      return [key, schemaAlone.includes(key) ? one(value) : value];
    }),
  );
}

/**
 * The same schema in which parts that are alike stand once, under `$defs`: a method holds its expressions in dozens of places, and
 * each would be checked by code of its own.
 */
export function shared(schema: unknown): unknown {
  if (!isPlain(schema)) return schema;
  const seen = new Map<string, number>();
  const count = (part: Plain): Plain => {
    const key = JSON.stringify(part);
    const times = (seen.get(key) ?? 0) + 1;
    seen.set(key, times);
    // What is within a part that stood before was counted with that.
    return times > 1 ? part : withInner(part, count);
  };
  withInner(schema, count);
  const names = new Map<string, string>();
  const $defs: Record<string, Plain> = {};
  const replace = (part: Plain): Plain => {
    const key = JSON.stringify(part);
    if ((seen.get(key) ?? 0) < 2 || key.length < worthSharing) return withInner(part, replace);
    const name = names.get(key) ?? `part${names.size + 1}`;
    if (!names.has(key)) {
      names.set(key, name);
      $defs[name] = withInner(part, replace);
    }
    return { $ref: `#/$defs/${name}` };
  };
  const whole = withInner(schema, replace);
  return names.size === 0 ? whole : { ...whole, $defs };
}

/** A schema as the compiler takes it: the same values fit. */
export const compilable = (schema: unknown): object => shared(tagged(schema)) as object;

/** A compiler of schemas; the build lets it keep the source of what it makes. */
export function newAjv(options: Options = {}): Ajv {
  const ajv = new Ajv({
    allErrors: true,
    discriminator: true,
    allowUnionTypes: true,
    inlineRefs: false,
    ...options,
  });
  addFormats(ajv);
  return ajv;
}

let own: Ajv | null = null;

/** Compiles a schema while the program runs: in tests and tools. The build replaces `formats/compiled` by code made beforehand. */
export const compile = (schema: TSchema): Valid => (own ??= newAjv()).compile(compilable(schema)) as Valid;

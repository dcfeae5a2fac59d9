import path from "node:path";
import standalone from "ajv/dist/standalone/index.js";
import { build } from "esbuild";
import { type Plugin, runnerImport } from "vite";
import { compilable, newAjv } from "../formats/compile";

// Node hands over the whole CommonJS module, a bundler its default.
const { default: standaloneCode = standalone } = standalone as unknown as { default?: typeof standalone };

/** The code of one validator as a module that needs no other and compiles nothing. */
export async function validatorCode(file: string): Promise<string> {
  const { module } = await runnerImport<{ schema: object }>(file, {
    configFile: false,
    logLevel: "error",
    resolve: { tsconfigPaths: true },
  });
  const ajv = newAjv({ code: { source: true } });
  const contents = standaloneCode(ajv, ajv.compile(compilable(module.schema)));
  const { outputFiles } = await build({
    stdin: { contents, resolveDir: process.cwd(), loader: "js" },
    bundle: true,
    format: "esm",
    platform: "neutral",
    mainFields: ["main"],
    write: false,
  });
  const code = outputFiles[0]?.text ?? "";
  const exported = code.replace(/^export default /m, "export const valid = ");
  if (exported === code) throw new Error(`${file}: the validator was not exported`);
  return exported;
}

/**
 * Puts compiled code in place of each module of `formats/compiled` and `protocol/compiled`, so that neither browser nor server makes code from schemas
 * while it runs: the content security policy of the pages forbids it.
 */
export function compiledValidators(): Plugin {
  const folders = ["formats/compiled", "protocol/compiled"].map((folder) => path.resolve(folder));
  const made = new Map<string, Promise<string>>();
  return {
    name: "compiled-validators",
    enforce: "pre",
    apply: "build",
    load(id) {
      if (!folders.includes(path.dirname(id))) return null;
      const code = made.get(id) ?? validatorCode(id);
      made.set(id, code);
      return code;
    },
  };
}

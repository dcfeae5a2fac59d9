// Bundles the program that looks into a backup for the tests, which ask it often: reading it file by file, and compiling its schemas,
// takes longer than what it does.
import path from "node:path";
import { build, type Plugin } from "esbuild";
import { validatorCode } from "./compiled-validators";

const compiled: Plugin = {
  name: "compiled-validators",
  setup: (building) => {
    building.onLoad(
      { filter: /[\\/](formats|protocol)[\\/]compiled[\\/]\w[\w-]*\.ts$/ },
      async ({ path: file }) => ({
        contents: await validatorCode(file),
        loader: "js",
      }),
    );
  },
};

await build({
  entryPoints: ["scripts/inspect-backup.ts"],
  outfile: path.resolve("node_modules/.cache/inspect-backup.mjs"),
  bundle: true,
  platform: "node",
  format: "esm",
  // Its data lie beside its code.
  external: ["@electric-sql/pglite"],
  banner: {
    js: 'import { createRequire } from "node:module"; const require = createRequire(import.meta.url);',
  },
  plugins: [compiled],
});

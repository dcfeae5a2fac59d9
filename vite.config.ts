import { reactRouter } from "@react-router/dev/vite";
import { defineConfig } from "vite";
import { compiledValidators } from "./scripts/compiled-validators";

/** What builds a schema, and does nothing else. */
const schemaMakers = [
  ..."Array Boolean Integer Intersect Literal Null Number Object Optional Record String Tuple Union"
    .split(" ")
    .map((kind) => `Type.${kind}`),
];

/** Packages that stay files of their own: those with data beside their code, and those that few requests need. */
const aside = [
  "@electric-sql/pglite",
  "drizzle-orm",
  "exceljs",
  "express",
  "fontkit",
  "mathjax-full",
  "pdfmake",
];

export default defineConfig(({ isSsrBuild }) => ({
  plugins: [compiledValidators(), reactRouter()],
  resolve: { tsconfigPaths: true },
  // What the server needs for every page is in its program: reading hundreds of small files takes seconds at each start.
  ssr: isSsrBuild ? { noExternal: true, external: aside } : {},
  build: {
    target: "es2022",
    // Pages may load fonts from this server only, so none is written into a style sheet.
    assetsInlineLimit: (file) => (/\.woff2?$/.test(file) ? false : undefined),
    rolldownOptions: {
      // Schemas are data: where a screen needs none of them, they and what builds them stay away.
      treeshake: { manualPureFunctions: schemaMakers },
      ...(isSsrBuild
        ? { input: "./app/http.server.ts" }
        : {
            output: {
              codeSplitting: {
                groups: [{ name: "common", minShareCount: 10 }],
              },
            },
          }),
    },
  },
}));

// Writes the service worker beside the built pages, with the list of all files that they need. Part of the build.
import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { build } from "esbuild";

const client = path.resolve("build/client");

/** Fonts are there in the form that every browser of today takes. */
const needed = (file: string) => !/\.(map|woff|ttf)$/.test(file) && file !== "sw.js";

const manifest = readdirSync(client, { recursive: true, withFileTypes: true })
  .filter((entry) => entry.isFile())
  .map((entry) => path.relative(client, path.join(entry.parentPath, entry.name)))
  .filter(needed)
  .sort()
  .map((file) => ({
    url: `/${file}`,
    // Names of assets change with their content.
    revision: file.startsWith("assets/")
      ? null
      : createHash("sha256")
          .update(readFileSync(path.join(client, file)))
          .digest("hex")
          .slice(0, 16),
  }));

await build({
  entryPoints: ["app/offline/service-worker.ts"],
  outfile: path.join(client, "sw.js"),
  bundle: true,
  minify: true,
  format: "iife",
  target: "es2022",
  define: { "self.__WB_MANIFEST": JSON.stringify(manifest), "process.env.NODE_ENV": '"production"' },
});

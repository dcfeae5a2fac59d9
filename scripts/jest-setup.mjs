import { execFileSync } from "node:child_process";
import path from "node:path";
import { build } from "esbuild";

/**
 * Tests open many new databases: each is a copy of one that is made here. And they look into many backups, each by a process of its
 * own: that program is bundled here, since reading it file by file takes longer than what it does.
 */
export default async function prepare() {
  execFileSync("node", ["--import", "tsx", "scripts/write-empty-database.ts"], { stdio: "inherit" });
  const inspector = path.resolve("node_modules/.cache/inspect-backup.mjs");
  await build({
    entryPoints: ["scripts/inspect-backup.ts"],
    outfile: inspector,
    bundle: true,
    platform: "node",
    format: "esm",
    packages: "external",
  });
  process.env.STEADY_BEAD_INSPECTOR = inspector;
}

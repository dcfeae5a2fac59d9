import { execFileSync } from "node:child_process";
import path from "node:path";

const run = (script) => execFileSync("node", ["--import", "tsx", script], { stdio: "inherit" });

/**
 * Tests open many new databases: each is a copy of one that is made here. And they look into many backups, each by a process of its
 * own: that program is bundled here.
 */
export default function prepare() {
  run("scripts/write-empty-database.ts");
  run("scripts/write-inspector.ts");
  process.env.STEADY_BEAD_INSPECTOR = path.resolve("node_modules/.cache/inspect-backup.mjs");
}

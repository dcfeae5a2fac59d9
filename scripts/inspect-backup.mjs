// The same as inspect-backup.ts, by the built program: for the server, which has no need of the sources then.
import path from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), "..");
const { inspectBackup } = await import(pathToFileURL(path.join(root, "build/server/index.js")).href);
const [what = "verify", file = "", runId = ""] = process.argv.slice(2);
process.stdout.write(JSON.stringify(await inspectBackup(what, file, runId)), () => process.exit(0));

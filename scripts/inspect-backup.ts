// Opens a backup in memory and answers one question about it as JSON: verify, runs, or run with its id. For the server, beside which
// it runs, so that nobody waits.
import { answer, type Questions } from "../server/backup/inspect";

const [what = "verify", file = "", runId = ""] = process.argv.slice(2);
// The database keeps a process alive for a while after it was closed.
process.stdout.write(JSON.stringify(await answer(what as keyof Questions, file, runId)), () =>
  process.exit(0),
);

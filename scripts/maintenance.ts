// backup, restore, check and passphrases of a lab from the terminal: asks the server that runs on the data folder, and opens the folder itself
// where none does.
import path from "node:path";
import { text as readAll } from "node:stream/consumers";
import { inEnglish } from "../core/text";
import { problemOfPassphrase, type Role } from "../protocol/access";
import { AccessFileError } from "../server/access/access-file";
import { NoSignInError, setPassphrase } from "../server/access/door";
import { type CheckReport, checkLab } from "../server/backup/check";
import { makeBackup, BackupError } from "../server/backup/make";
import { chosenBackup, replacedWords, RestoreError, restoreLab } from "../server/backup/restore";
import { restoreRun } from "../server/backup/restore-run";
import { checkJournal } from "../server/journal/check";
import { openDatabase } from "../server/lab/open-database";
import { LabFolderError, waysBack } from "../server/lab/lab-folder";
import { FolderInUseError } from "../server/lab/lock";
import { StorageError } from "../server/database/storage";
import { runningServer } from "../server/maintenance/token";

const folder = path.resolve(process.env.DATA_DIR ?? "data/main");
const usage = {
  backup:
    "usage: bin/backup            (DATA_DIR names the data folder, BACKUP_DIR one on another disk for a second copy)",
  restore: "usage: bin/restore [latest | NAME | FILE] [--run ID]   (DATA_DIR names the data folder)",
  check: "usage: bin/check             (DATA_DIR names the data folder)",
  passphrase:
    "usage: bin/passphrase [--assistant]   (DATA_DIR names the data folder; the passphrase is read from the terminal or standard input)",
} as const;
type Command = keyof typeof usage;

/** Something that the person at the terminal can mend. */
class Refusal extends Error {}

/** What a running server answers; null where none runs. */
async function server<T>(what: string, body: object): Promise<T | null> {
  const running = runningServer(folder);
  if (!running) return null;
  const response = await fetch(`${running.url}/maintenance/${what}`, {
    method: "POST",
    headers: { Authorization: `Bearer ${running.token}`, "Content-Type": "application/json" },
    body: JSON.stringify(body),
  }).catch(() => {
    throw new Refusal(`The server on ${folder} (process ${running.pid}) does not answer at ${running.url}.`);
  });
  const answer = (await response.json().catch(() => ({}))) as T & { message?: string };
  if (!response.ok)
    throw new Refusal(answer.message ?? `The server answered ${response.status}; its log has the details.`);
  return answer;
}

async function backup() {
  type Made = { file: string; bytes: number; verified: { runs: number } | null };
  let made = await server<Made>("backup", {});
  if (!made) {
    const open = await openDatabase(folder);
    try {
      made = await makeBackup(open, folder, open.lab.id, "by hand");
    } finally {
      await open.close();
    }
  }
  console.log(
    `Backed up: ${made.file} (${(made.bytes / 1024 / 1024).toFixed(1)} MB). The copy was opened, and ${made.verified?.runs ?? 0} runs were computed again from it.`,
  );
}

async function restore(which: string, runId: string | null) {
  if (runId !== null) {
    const asked = await server<{ message: string }>("restore-run", { which, runId });
    if (asked) return console.log(asked.message);
    const chosen = chosenBackup(folder, which);
    const open = await openDatabase(folder);
    try {
      const title = await restoreRun(open, folder, chosen, runId, "");
      return console.log(`The run "${title}" is back.`);
    } finally {
      await open.close();
    }
  }
  const asked = await server<{ message: string }>("restore", { which });
  if (asked) return console.log(`Restored. ${asked.message}`);
  const chosen = chosenBackup(folder, which);
  const replaced = await restoreLab(folder, chosen);
  console.log(`Restored ${chosen.name} into ${folder}. ${replacedWords(replaced)}`);
}

async function check(): Promise<number> {
  let report = await server<CheckReport>("check", {});
  if (!report) {
    const open = await openDatabase(folder);
    try {
      const of = await checkLab(open.db);
      report = { ...of, findings: [...of.findings, ...(await checkJournal(open.db, folder))] };
    } finally {
      await open.close();
    }
  }
  const counts = Object.entries(report.counts).map(([table, n]) => `${n} in ${table}`);
  console.log(`Counted: ${counts.join(", ")}. ${report.runs} runs were read and computed again.`);
  for (const { kind, message, advice } of report.findings)
    console.log(`${kind}: ${message}.${advice === undefined ? "" : ` ${advice}`}`);
  const serious = report.findings.filter(({ kind }) => kind !== "differs");
  if (serious.length === 0) {
    console.log("Everything that was looked at is whole.");
    return 0;
  }
  const runs = serious.flatMap(({ runId }) => runId ?? []);
  if (runs.length > 0) console.log(`One run alone: DATA_DIR=${folder} ./bin/restore latest --run ${runs[0]}`);
  if (serious.some(({ advice }) => advice === undefined)) console.log(waysBack(folder));
  return 1;
}

/** Sets a role's passphrase, of the server that runs on the folder or of the folder itself. */
async function passphrase(role: Role) {
  const text = (await readAll(process.stdin)).split("\n")[0] ?? "";
  const problem = problemOfPassphrase(text);
  if (problem) throw new Refusal(inEnglish(problem));
  if (!(await server("passphrase", { role, passphrase: text }))) {
    const open = await openDatabase(folder);
    try {
      await setPassphrase({ db: open.db, folder }, role, text, null);
    } finally {
      await open.close();
    }
  }
  console.log(
    `The passphrase of the ${role}s is set. Everybody signs in from now on; who was signed in does so again.`,
  );
}

async function main([command, ...rest]: string[]): Promise<number> {
  if (command === undefined || !(command in usage)) throw new Refusal(Object.values(usage).join("\n"));
  const words = usage[command as Command];
  if (command === "passphrase") {
    const isAssistant = rest[0] === "--assistant";
    if (rest.length > (isAssistant ? 1 : 0)) throw new Refusal(words);
    await passphrase(isAssistant ? "assistant" : "instructor");
    return 0;
  }
  const at = rest.indexOf("--run");
  const runId = at === -1 ? null : (rest[at + 1] ?? "");
  const others = rest.filter((_, i) => at === -1 || (i !== at && i !== at + 1));
  if (
    runId === "" ||
    others.some((o) => o.startsWith("-")) ||
    others.length > (command === "restore" ? 1 : 0)
  )
    throw new Refusal(words);
  if (command === "backup") await backup();
  if (command === "restore") await restore(others[0] ?? "latest", runId);
  return command === "check" ? check() : 0;
}

main(process.argv.slice(2)).then(
  (code) => process.exit(code),
  (error: unknown) => {
    const expected = [
      ...[Refusal, RestoreError, BackupError, AccessFileError, NoSignInError],
      ...[LabFolderError, FolderInUseError, StorageError],
    ];
    console.error(expected.some((kind) => error instanceof kind) ? (error as Error).message : error);
    process.exit(2);
  },
);

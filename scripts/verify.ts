// Tells whether an exported run record, or an archive of a lab, is as it was written: bin/verify FILE [--key FINGERPRINT] [--json].
import { parseArgs } from "node:util";
import { inEnglish, type Phrase } from "../core/text";
import { incomingRun, readArchive } from "../formats/archive/read";
import { isZip } from "../formats/archive/zip";
import type { RunFile } from "../formats/concluded";
import { fingerprint } from "../formats/proof/sign";
import { findings } from "../formats/proof/verify";
import { recordShapeProblems } from "../formats/run-record";
import { bytesOf, contentsOf, fail } from "./read-file";

const usage = "usage: bin/verify FILE [--key FINGERPRINT] [--json]";

function asked() {
  try {
    const { values, positionals } = parseArgs({
      allowPositionals: true,
      options: { key: { type: "string" }, json: { type: "boolean", default: false } },
    });
    const [file, ...rest] = positionals;
    return file === undefined || rest.length > 0 ? fail([usage]) : { file, ...values };
  } catch {
    return fail([usage]);
  }
}

/** The outcome for one file: what it is called, what is wrong with it, who wrote it. */
interface Verification {
  readonly name: string;
  readonly findings: readonly { readonly code?: string; readonly id?: string; readonly message: Phrase }[];
  readonly holds: string;
  readonly by: { readonly signedAt: string; readonly lab: string; readonly key: string } | null;
}

function ofArchive(name: string, bytes: Uint8Array, key: string | undefined): Verification {
  const archive = readArchive(bytes, key);
  if (!archive.ok) return fail([`${name}: ${inEnglish(archive.problem.message)}`]);
  const { entries, manifest, findings: own } = archive.value;
  const runs = [...entries].filter(([path]) => path.startsWith("runs/"));
  const ofRuns = runs.flatMap(([path, content]): Verification["findings"] => {
    const run = incomingRun(content);
    if ("problems" in run)
      return run.problems.map(({ path: at, message }) => ({
        message: `${path}: ${at} ${inEnglish(message)}`,
      }));
    const unsigned = run.signed ? [] : [{ message: "It carries no signature" }];
    return [...unsigned, ...run.findings].map((found) => ({
      ...found,
      message: `${run.record.title}: ${inEnglish(found.message)}`,
    }));
  });
  const by = manifest && { signedAt: manifest.writtenAt, lab: manifest.lab, key: manifest.key };
  return {
    ...{ name, by, holds: `${runs.length} runs in ${entries.size} files` },
    findings: [...own.map((message) => ({ message })), ...ofRuns],
  };
}

function ofRecord(name: string, bytes: Uint8Array, key: string | undefined): Verification {
  const value = contentsOf(name, bytes);
  const problems = recordShapeProblems(value);
  if (problems.length > 0) fail(problems.map(({ path, message }) => `${path}: ${inEnglish(message)}`));
  const record = value as RunFile;
  const { proof } = record;
  return {
    name: record.title,
    findings: findings(record, key),
    holds: `${proof?.readings} readings`,
    by: proof ? { signedAt: proof.signedAt, lab: proof.lab, key: proof.key } : null,
  };
}

const { file, key, json } = asked();
const bytes = bytesOf(file);
const outcome = isZip(bytes) ? ofArchive(file, bytes, key) : ofRecord(file, bytes, key);
const found = outcome.findings;
if (json) {
  const plain = found.map(({ message, ...rest }) => ({ ...rest, message: inEnglish(message) }));
  process.stdout.write(`${JSON.stringify({ asWritten: found.length === 0, findings: plain }, null, 2)}\n`);
} else if (found.length > 0) {
  process.stdout.write(
    `${outcome.name} is not as it was written:\n${found.map(({ message }) => `  ${inEnglish(message)}.`).join("\n")}\n`,
  );
} else {
  const compare =
    key === undefined
      ? "Compare the key with the one that the lab tells"
      : "The key is the one that was asked for";
  process.stdout.write(
    `${outcome.name} is as it was written: ${outcome.holds}, signed on ${outcome.by?.signedAt} by lab ${outcome.by?.lab}.\n` +
      `Key: ${fingerprint(outcome.by?.key ?? "")}. ${compare}.\n`,
  );
}
process.exitCode = found.length === 0 ? 0 : 1;

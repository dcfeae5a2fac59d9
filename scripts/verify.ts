// Tells whether an exported run record is as it was written: bin/verify FILE.json [--key FINGERPRINT] [--json].
import { parseArgs } from "node:util";
import { inEnglish } from "../core/text";
import type { RunFile } from "../formats/concluded";
import { fingerprint } from "../formats/proof/sign";
import { findings } from "../formats/proof/verify";
import { recordShapeProblems } from "../formats/run-record";
import { contents, fail } from "./read-file";

const usage = "usage: bin/verify FILE.json [--key FINGERPRINT] [--json]";

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

const { file, key, json } = asked();
const value = contents(file);
const problems = recordShapeProblems(value);
if (problems.length > 0) fail(problems.map(({ path, message }) => `${path}: ${inEnglish(message)}`));
const record = value as RunFile;
const found = findings(record, key);
if (json) {
  const plain = found.map(({ message, ...rest }) => ({ ...rest, message: inEnglish(message) }));
  process.stdout.write(`${JSON.stringify({ asWritten: found.length === 0, findings: plain }, null, 2)}\n`);
} else if (found.length > 0) {
  process.stdout.write(
    `${record.title} is not as it was written:\n${found.map(({ message }) => `  ${inEnglish(message)}.`).join("\n")}\n`,
  );
} else {
  const { proof } = record;
  const by =
    key === undefined
      ? "Compare the key with the one that the lab tells"
      : "The key is the one that was asked for";
  process.stdout.write(
    `${record.title} is as it was written: ${proof?.readings} readings, signed on ${proof?.signedAt} by lab ${proof?.lab}.\n` +
      `Key: ${fingerprint(proof?.key ?? "")}. ${by}.\n`,
  );
}
process.exitCode = found.length === 0 ? 0 : 1;

// Evaluates a run record from a file with the core alone: bin/recompute FILE.json [--json].
import { readFileSync } from "node:fs";
import { inEnglish, type Phrase } from "../core/text";
import { readRunRecord, reportOf, reportText } from "../formats/run-report";
import { localizer } from "../words/localizer";

const [file, ...rest] = process.argv.slice(2).filter((argument) => argument !== "--json");
const json = process.argv.includes("--json");

function fail(lines: readonly string[]): never {
  process.stderr.write(`${lines.join("\n")}\n`);
  process.exit(2);
}

function contents(name: string): unknown {
  try {
    return JSON.parse(readFileSync(name, "utf8"));
  } catch (error) {
    const words = error instanceof SyntaxError ? "is no JSON" : "cannot be read";
    return fail([`${name} ${words}: ${error instanceof Error ? error.message : ""}`]);
  }
}

if (file === undefined || rest.length > 0) fail(["usage: bin/recompute FILE.json [--json]"]);
const shown = ({ path, message }: { path: string; message: Phrase }) => ({
  path,
  message: inEnglish(message),
});
const read = readRunRecord(contents(file));
if ("problems" in read) {
  if (json) process.stdout.write(`${JSON.stringify({ problems: read.problems.map(shown) }, null, 2)}\n`);
  fail(read.problems.map(shown).map(({ path, message }) => `${path}: ${message}`));
}
const { record } = read;
process.stdout.write(
  json
    ? `${JSON.stringify(reportOf(record), null, 2)}\n`
    : reportText(record, localizer(record.houseRules.words)),
);

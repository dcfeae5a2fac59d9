// Evaluates a run record from a file with the core alone: bin/recompute FILE.json [--json].
import { inEnglish, type Phrase } from "../core/text";
import { readRunRecord, reportOf, reportText } from "../formats/run-report";
import { localizer } from "../words/localizer";
import { contents, fail } from "./read-file";

const [file, ...rest] = process.argv.slice(2).filter((argument) => argument !== "--json");
const json = process.argv.includes("--json");

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

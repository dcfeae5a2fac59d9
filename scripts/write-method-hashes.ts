import { readFileSync, writeFileSync } from "node:fs";
import { hashOf, type MethodHashes } from "../catalog/method-hashes";
import { methods } from "../catalog/methods";

/* Notes the hash of each method that ships, by its version. A version that was noted before is never written over. */

const file = new URL("../catalog/method-hashes.json", import.meta.url);
const noted = JSON.parse(readFileSync(file, "utf8")) as Record<string, Record<string, string>> & MethodHashes;
for (const method of methods) {
  const versions = (noted[method.id] ??= {});
  const hash = hashOf(method);
  const before = versions[method.version];
  if (before !== undefined && before !== hash) {
    console.error(`${method.id} was changed and still has version ${method.version}: give it the next one.`);
    process.exitCode = 1;
  } else versions[method.version] = hash;
}
if (process.exitCode === undefined) writeFileSync(file, `${JSON.stringify(noted, null, 2)}\n`);

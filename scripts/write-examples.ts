// Writes formats/examples/*.json: one simulated run record for each shape, the same at each writing.
import { writeFileSync } from "node:fs";
import { exampleRecords } from "../formats/examples";

for (const [name, text] of exampleRecords()) {
  writeFileSync(`formats/examples/${name}.json`, text);
  console.log(`formats/examples/${name}.json`);
}

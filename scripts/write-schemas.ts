import { writeFileSync } from "node:fs";
import { publishedSchemas } from "../formats/published";

for (const [name, text] of publishedSchemas) {
  writeFileSync(new URL(`../formats/schemas/${name}`, import.meta.url), text);
  console.log(`formats/schemas/${name}`);
}

// Writes words/catalogs/en-US.json: every message of the program, and every text of the methods that ship with it. npm run catalog.
import { writeFileSync } from "node:fs";
import { messagesOfProgram } from "./messages";

writeFileSync("words/catalogs/en-US.json", `${JSON.stringify(messagesOfProgram(), null, 2)}\n`);

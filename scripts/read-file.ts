import { readFileSync } from "node:fs";

/** Ends a command with what is wrong with what it was given. */
export function fail(lines: readonly string[]): never {
  process.stderr.write(`${lines.join("\n")}\n`);
  process.exit(2);
}

/** What a JSON file holds; the command ends where it cannot be read. */
export function contents(name: string): unknown {
  try {
    return JSON.parse(readFileSync(name, "utf8"));
  } catch (error) {
    const words = error instanceof SyntaxError ? "is not JSON" : "cannot be read";
    return fail([`${name} ${words}: ${error instanceof Error ? error.message : ""}`]);
  }
}

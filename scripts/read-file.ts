import { readFileSync } from "node:fs";

/** Ends a command with what is wrong with what it was given. */
export function fail(lines: readonly string[]): never {
  process.stderr.write(`${lines.join("\n")}\n`);
  process.exit(2);
}

/** The bytes of a file; the command ends where it cannot be read. */
export function bytesOf(name: string): Uint8Array {
  try {
    return readFileSync(name);
  } catch (error) {
    return fail([`${name} cannot be read: ${error instanceof Error ? error.message : ""}`]);
  }
}

/** What the bytes of a JSON file say; the command ends where they are none. */
export function contentsOf(name: string, bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch (error) {
    return fail([`${name} is not JSON: ${error instanceof Error ? error.message : ""}`]);
  }
}

/** What a JSON file holds; the command ends where it cannot be read. */
export const contents = (name: string): unknown => contentsOf(name, bytesOf(name));

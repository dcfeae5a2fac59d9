import { tmpdir } from "node:os";
import { describe, expect, test } from "@jest/globals";
import { noRoom, StorageError, storageError } from "./storage";

const coded = (code: string, message = code, cause?: unknown) =>
  Object.assign(new Error(message, { cause }), { code });

describe("what an error says of the disk", () => {
  test.each([
    [coded("ENOSPC"), /^The disk is full: nothing more can be saved in \/data/],
    [coded("53100", "could not extend file"), /^The disk is full/],
    [
      new Error("Failed query", { cause: coded("x", "write failed: No space left on device") }),
      /^The disk is full/,
    ],
    [coded("EROFS"), /^The data folder \/data cannot be written to/],
    [coded("EACCES", "permission denied, mkdir"), /another folder with DATA_DIR/],
  ])("%s is told in words", (error, words) => {
    const problem = storageError(error, "/data");
    expect(problem).toBeInstanceOf(StorageError);
    expect(problem?.message).toMatch(words);
    // Said once, it stays as it is.
    expect(storageError(problem, "/elsewhere")).toBe(problem);
  });

  test.each([[coded("23505", "duplicate key")], [new Error("no such stage")], ["text"], [undefined]])(
    "%s is about something else",
    (error) => expect(storageError(error, "/data")).toBeNull(),
  );
});

test("a disk with room has nothing wrong with it; a folder that is not there is an error of its own", () => {
  expect(noRoom(tmpdir())).toBeNull();
  expect(() => noRoom("/no/such/folder")).toThrow(/ENOENT/);
});

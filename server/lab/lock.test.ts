import { existsSync, mkdirSync, mkdtempSync, rmSync, utimesSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { FolderInUseError, lockFolder } from "./lock";

let folder = "";
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), "steady-bead-lock-"));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));
const file = (name: string) => path.join(folder, name);

/** A lock that its owner has not refreshed for a minute, as a killed server leaves it. */
function leaveLockBehind(pidText: string) {
  mkdirSync(file("server.lock"));
  const past = new Date(Date.now() - 60_000);
  utimesSync(file("server.lock"), past, past);
  writeFileSync(file("server.pid"), pidText);
}

describe("the lock on a data folder", () => {
  test("is refused while its owner lives, and free again when it was given back", async () => {
    const unlock = await lockFolder(folder);
    await expect(lockFolder(folder)).rejects.toThrow(FolderInUseError);
    await expect(lockFolder(folder)).rejects.toThrow(
      `in use by process ${process.pid}. Stop that server first`,
    );
    await unlock();
    expect([existsSync(file("server.lock")), existsSync(file("server.pid"))]).toEqual([false, false]);
    await (
      await lockFolder(folder)
    )();
  });

  test.each([
    ["a process that is no more", "999999999\n12345"],
    ["another process that got the same number since", `${process.pid}\n1`],
    ["nobody that can be read", "not a number"],
  ])("left behind by %s is taken over", async (_whose, pidText) => {
    leaveLockBehind(pidText);
    const unlock = await lockFolder(folder);
    await expect(lockFolder(folder)).rejects.toThrow(FolderInUseError);
    await unlock();
  });

  test("is refused even when a living owner is too busy to refresh it", async () => {
    const unlock = await lockFolder(folder);
    const past = new Date(Date.now() - 60_000);
    utimesSync(file("server.lock"), past, past);
    await expect(lockFolder(folder)).rejects.toThrow(/in use by process/);
    await unlock();
  });

  test("makes the folder where there is none", async () => {
    const unlock = await lockFolder(path.join(folder, "deep", "er"));
    expect(existsSync(path.join(folder, "deep", "er", "server.pid"))).toBe(true);
    await unlock();
  });
});

import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { inEnglish } from "~/core/text";
import { problemOfPassphrase } from "~/protocol/access";
import { labEvent, session } from "../database/schema";
import { type OpenDatabase, openDatabase } from "../lab/open-database";
import { accessOf, endAllSessions } from "./access-file";
import { Attempts } from "./attempts";
import {
  accessView,
  type Lab,
  setPassphrase,
  setPassphraseHere,
  signIn,
  signOut,
  takeSignInAway,
  viewerOf,
} from "./door";
import { isPassphrase, keepPassphrase } from "./passphrase";
import { endSessions } from "./sessions";

let open: OpenDatabase;
beforeAll(async () => {
  open = await openDatabase(null);
}, 60_000);
afterAll(() => open.close());

const words = "otter kelp burette seven";
const now = new Date("2026-12-01T09:00:00Z");
const later = (hours: number) => new Date(now.getTime() + hours * 3_600_000);
const from = { address: "192.0.2.7", browser: "Mozilla/5.0 (Tablet; rv) Test" };

let lab: Lab;
beforeEach(() => {
  lab = { db: open.db, folder: mkdtempSync(path.join(tmpdir(), "steady-bead-access-")) };
});
afterEach(() => {
  delete process.env.HOST;
  rmSync(lab.folder, { recursive: true, force: true });
});

/** What a browser sends back of a Set-Cookie header. */
const sent = (header: string | null) => {
  expect(header).toMatch(/; HttpOnly; SameSite=Lax$/);
  return header!.split(";")[0]!;
};

describe("who comes in", () => {
  test("without a passphrase this machine alone may do everything, and nobody else anything", async () => {
    expect(await viewerOf(lab, undefined)).toEqual({ role: "instructor", session: null });
    process.env.HOST = "0.0.0.0";
    expect(await viewerOf(lab, undefined)).toBeNull();
    expect(await signIn(lab, words, from)).toBeNull();
  });

  test("with one, a cookie of this lab tells who somebody is, and nothing else does", async () => {
    await setPassphrase(lab, "instructor", words, null, now);
    expect(await viewerOf(lab, undefined, now)).toBeNull();
    expect(await signIn(lab, "otter kelp burette eight", from, now)).toBeNull();
    const cookie = sent(await signIn(lab, words, from, now));
    const viewer = (await viewerOf(lab, `a=b; ${cookie}`, now))!;
    expect(viewer).toEqual({ role: "instructor", session: expect.stringMatching(/^[0-9a-f]{64}$/) });
    // Neither the database nor the file holds what it takes.
    const [token = ""] = cookie.split("=")[1]!.split(".");
    const plain = JSON.parse(Buffer.from(decodeURIComponent(token), "base64").toString()) as string;
    const kept = JSON.stringify([await open.db.select().from(session), accessOf(lab.folder)]);
    expect(kept).not.toContain(plain);
    expect(kept).not.toContain("otter");
    expect(statSync(path.join(lab.folder, "access.json")).mode & 0o777).toBe(0o600);
    for (const other of [cookie.slice(0, -3), cookie.replace(/=../, "=xx"), "", "steady-bead-00000000=x"])
      expect(await viewerOf(lab, other, now)).toBeNull();
    const elsewhere = { ...lab, folder: mkdtempSync(path.join(tmpdir(), "steady-bead-access-")) };
    await setPassphrase(elsewhere, "instructor", words, null, now);
    expect(await viewerOf(elsewhere, cookie, now)).toBeNull();
    rmSync(elsewhere.folder, { recursive: true });
    // Twelve hours after it was used last it is over.
    expect(await viewerOf(lab, cookie, later(11))).not.toBeNull();
    expect(await viewerOf(lab, cookie, later(22))).not.toBeNull();
    expect(await viewerOf(lab, cookie, later(34.5))).toBeNull();
  });

  test("assistants have a passphrase of their own; a session can be ended; a new passphrase and another lab end all", async () => {
    await expect(setPassphrase(lab, "assistant", words, null, now)).rejects.toThrow(
      "Set the passphrase of the instructors first",
    );
    const own = sent(await setPassphraseHere(lab, "instructor", words, from, now));
    await setPassphrase(lab, "assistant", "urchin flask eleven", null, now);
    expect(await viewerOf(lab, own, now)).toBeNull();
    const instructor = sent(await signIn(lab, words, from, now));
    const assistant = sent(await signIn(lab, "urchin flask eleven", { ...from, browser: "Phone" }, later(1)));
    const viewer = (await viewerOf(lab, instructor, later(1)))!;
    const { sessions, assistants } = await accessView(lab, viewer, later(1));
    expect(assistants).toBe(true);
    expect(sessions.map(({ role, browser, own }) => [role, browser, own])).toEqual([
      ["assistant", "Phone", false],
      ["instructor", from.browser, true],
    ]);
    await endSessions(lab.db, { id: sessions[0]!.id }, later(1));
    expect(await viewerOf(lab, assistant, later(1))).toBeNull();
    expect(await viewerOf(lab, instructor, later(1))).toMatchObject({ role: "instructor" });
    expect(await signOut(lab, viewer, later(1))).toMatch(/Max-Age=0/);
    expect(await viewerOf(lab, instructor, later(1))).toBeNull();
    const again = sent(await signIn(lab, words, from, later(2)));
    endAllSessions(lab.folder);
    expect(await viewerOf(lab, again, later(2))).toBeNull();
    await setPassphrase(lab, "assistant", null, null, later(2));
    expect(await signIn(lab, "urchin flask eleven", from, later(2))).toBeNull();
    const told = (await open.db.select().from(labEvent)).filter(({ about }) => about === "access");
    expect(told.map(({ description }) => description).slice(-3)).toEqual([
      "passphrase of the instructors set",
      "passphrase of the assistants set",
      "passphrase of the assistants taken away",
    ]);
  });

  test("the sign-in goes where only this machine reaches the server, and stays where others do", async () => {
    await setPassphrase(lab, "instructor", words, null, now);
    const before = sent(await signIn(lab, words, from, now));
    process.env.HOST = "0.0.0.0";
    expect(await takeSignInAway(lab, from.address, now)).toBe(false);
    expect(await viewerOf(lab, undefined, now)).toBeNull();
    delete process.env.HOST;
    expect(await takeSignInAway(lab, from.address, now)).toBe(true);
    expect(await viewerOf(lab, undefined, now)).toEqual({ role: "instructor", session: null });
    // Set anew, it has no session of before.
    await setPassphrase(lab, "instructor", words, null, now);
    expect(await viewerOf(lab, before, now)).toBeNull();
    const viewer = (await viewerOf(lab, sent(await signIn(lab, words, from, now)), now))!;
    expect((await accessView(lab, viewer, now)).sessions.map(({ own }) => own)).toEqual([true]);
  });

  test("a file that cannot be read lets nobody in", () => {
    writeFileSync(path.join(lab.folder, "access.json"), "{");
    expect(() => accessOf(lab.folder)).toThrow(/says who may sign in, and cannot be read/);
    expect(readFileSync(path.join(lab.folder, "access.json"), "utf8")).toBe("{");
  });
});

describe("passphrases", () => {
  test("the same one is kept in another way each time, however its letters are composed", async () => {
    const [one, other] = await Promise.all([
      keepPassphrase("caf\u00e9 au laiton"),
      keepPassphrase("café au laiton"),
    ]);
    expect(one.hash).not.toBe(other.hash);
    expect(await isPassphrase("cafe\u0301 au laiton", one)).toBe(true);
    expect(await isPassphrase("cafe au laiton", one)).toBe(false);
    expect(await isPassphrase("", null)).toBe(false);
  });

  test("a published key of scrypt comes out", async () => {
    // RFC 7914, section 12: P = "pleaseletmein", S = "SodiumChloride", N = 16384, r = 8, p = 1; the first 32 of its 64 bytes.
    const kept = {
      ...{ salt: Buffer.from("SodiumChloride").toString("base64"), cost: 16_384, blockSize: 8, parallel: 1 },
      hash: Buffer.from("7023bdcb3afd7348461c06cd81fd38ebfda8fbba904f8e3ea9b543f6545da1f2", "hex").toString(
        "base64",
      ),
    };
    expect(await isPassphrase("pleaseletmein", kept)).toBe(true);
  });

  test("one that is short is told", () => {
    expect(inEnglish(problemOfPassphrase("nine char") ?? "")).toMatch(/^At least 10 characters/);
    expect(problemOfPassphrase("ten chars.")).toBeUndefined();
    expect(inEnglish(problemOfPassphrase("x".repeat(201)) ?? "")).toMatch(/^At most 200 characters/);
  });

  test("wrong ones slow their address down, and are forgotten", () => {
    let at = 0;
    const attempts = new Attempts(() => at);
    const waits = Array.from({ length: 10 }, () => {
      attempts.failed("192.0.2.7");
      return attempts.waitMs("192.0.2.7");
    });
    expect(waits).toEqual([0, 0, 0, 500, 1000, 2000, 4000, 8000, 8000, 8000]);
    expect(attempts.waitMs("192.0.2.8")).toBe(0);
    at = 6.5 * 60_000;
    expect(attempts.waitMs("192.0.2.7")).toBe(500);
    at = 20 * 60_000;
    expect(attempts.waitMs("192.0.2.7")).toBe(0);
  });
});

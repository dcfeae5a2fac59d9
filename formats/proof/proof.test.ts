import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { generateKeyPairSync } from "node:crypto";
import { inEnglish } from "~/core/text";
import type { RunFile } from "../concluded";
import { exampleRecords } from "../examples";
import { readRunRecord, reportOf } from "../run-report";
import { linksOf } from "./links";
import { fingerprint, publicPart, signed } from "./sign";
import { type Finding, findings } from "./verify";

const { privateKey } = generateKeyPairSync("ed25519");
const lab = "lab-of-the-test";
const at = new Date("2026-11-30T10:00:00.000Z");
const examples = exampleRecords().map(([name, text]) => [name, JSON.parse(text) as RunFile] as const);
const signedRecord = (file: RunFile) => signed(file, { lab, privateKey }, at);

/** What was written to a disk and read again. */
const reread = (file: RunFile): RunFile => JSON.parse(JSON.stringify(file)) as RunFile;
const found = (file: RunFile, key?: string) => findings(reread(file), key);
const codes = (all: readonly Finding[]) =>
  all.map(({ code, id }) => (id === undefined ? code : `${code} ${id}`));

/** All lists of readings of a record, to be meddled with. */
const listsOf = (file: RunFile) =>
  file.stages
    .flatMap((s) => [s.observations, ...s.trials.map((t) => t.observations)])
    .filter((l) => l.length > 0);

/** One reading of a copy of a record, chosen by a number. */
function chosen(file: RunFile, n: number) {
  const copy = structuredClone(file);
  const places = listsOf(copy).flatMap((list) => list.map((_, i) => ({ list, i })));
  const { list, i } = places[n % places.length]!;
  return { copy, list, i, reading: list[i]! };
}

describe.each(examples)("%s", (_name, file) => {
  const whole = signedRecord(file);

  test("is as it was written, also with its properties in another order, and computes as before", () => {
    expect(found(whole)).toEqual([]);
    expect(found(whole, fingerprint(publicPart(privateKey)))).toEqual([]);
    const turned = Object.fromEntries(Object.entries(whole).reverse()) as RunFile;
    expect(found(turned)).toEqual([]);
    const [plain, proven] = [readRunRecord(file), readRunRecord(reread(whole))];
    if ("problems" in plain || "problems" in proven) throw new Error("not a record");
    expect(reportOf(proven.record)).toEqual(reportOf(plain.record));
  });

  test("names the reading that was altered, removed, put in or moved", () => {
    fc.assert(
      fc.property(fc.nat(), fc.constantFrom("altered", "removed", "put-in", "moved"), (n, how) => {
        const { copy, list, i, reading } = chosen(whole, n);
        if (how === "altered") list[i] = { ...reading, text: `${reading.text}1`, value: `${reading.value}1` };
        if (how === "removed") list.splice(i, 1);
        if (how === "put-in") list.push({ ...reading, id: "00000000-0000-7000-8000-000000000001" });
        if (how === "moved") {
          if (list.length < 2) return;
          list.splice(i, 1);
          list.splice(i === 0 ? 1 : 0, 0, reading);
        }
        const all = found(copy);
        expect(all.map(({ code }) => code)).toEqual([how]);
        if (how === "altered" || how === "removed") expect(all[0]?.id).toBe(reading.id);
        if (how === "altered") expect(inEnglish(all[0]!.message)).toContain(`reading ${reading.text}1`);
        if (how === "put-in") expect(all[0]?.id).toBe("00000000-0000-7000-8000-000000000001");
      }),
      { numRuns: 40 },
    );
  });
});

describe("what stands around the readings, and whoever covers their tracks", () => {
  const [, file] = examples[0]!;
  const whole = signedRecord(file);
  const stage = (copy: RunFile) => copy.stages.find(({ trials }) => trials.length > 0)!;

  test("a trial struck out, house rules, the title: each is named", () => {
    const copy = structuredClone(whole);
    const trial = stage(copy).trials[0]!;
    trial.struck = { at: at.toISOString(), person: "M. Finn", reason: "too high" };
    copy.title = "Another title";
    copy.houseRules = { ...copy.houseRules, plusMinus: copy.houseRules.plusMinus === "u" ? "k2" : "u" };
    expect(codes(found(copy)).sort()).toEqual(
      ["altered title", "altered houseRules", `altered ${trial.id}`].sort(),
    );
  });

  test("the same reading twice is found, though every part is as it was", () => {
    const { copy, list, reading } = chosen(whole, 0);
    list.push(reading);
    expect(codes(found(copy))).toEqual([`put-in ${reading.id}`]);
  });

  test("whoever makes the links anew is told by the signature", () => {
    const { copy, list, i, reading } = chosen(whole, 3);
    list[i] = { ...reading, text: "1.00", value: "1.00" };
    const links = linksOf(copy);
    const remade = { ...copy, proof: { ...whole.proof!, links, head: links.at(-1)!.link } };
    expect(codes(found(remade))).toEqual(["signature"]);
    const forged = { ...remade, proof: { ...remade.proof, links: whole.proof!.links } };
    expect(codes(found(forged))).toEqual([`altered ${reading.id}`, "chain", "signature"]);
  });

  test("another key signs what it likes, and is another key", () => {
    const other = generateKeyPairSync("ed25519").privateKey;
    const { copy, list, i, reading } = chosen(whole, 3);
    list[i] = { ...reading, text: "1.00", value: "1.00" };
    const forged = signed(copy, { lab, privateKey: other }, at);
    expect(found(forged)).toEqual([]);
    expect(codes(found(forged, fingerprint(publicPart(privateKey))))).toEqual(["other-key"]);
  });

  test("a count that is wrong, a broken link, no chain at all", () => {
    const { proof } = whole;
    const counted = { ...whole, proof: { ...proof!, readings: proof!.readings + 1 } };
    expect(codes(found(counted))).toEqual(["chain", "signature"]);
    const links = proof!.links.map((link, i) => (i === 2 ? { ...link, link: "0".repeat(64) } : link));
    expect(codes(found({ ...whole, proof: { ...proof!, links } }))).toEqual(["chain"]);
    expect(codes(found(file))).toEqual(["unsigned"]);
  });
});

import { readFileSync } from "node:fs";
import { generateKeyPairSync } from "node:crypto";
import { type Schema, Validator } from "@cfworker/json-schema";
import { describe, expect, test } from "@jest/globals";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { manifestOf } from "./archive/manifest";
import type { ShelfBottle, ShelfFile } from "./archive/schema";
import { fileOfMethod } from "./concluded";
import { exampleRecords } from "./examples";
import { signed } from "./proof/sign";
import { fileWithResults } from "./results/stated";
import { readRunRecord } from "./run-report";

/* What is written fits the published schemas by the judgement of a validator that has nothing to do with the one that the program uses. */

const validator = (name: string) =>
  new Validator(
    JSON.parse(readFileSync(`formats/schemas/${name}.schema.json`, "utf8")) as Schema,
    "7",
    false,
  );
const asFile = (value: unknown): unknown => JSON.parse(JSON.stringify(value));

const signer = { lab: "lab-of-the-test", privateKey: generateKeyPairSync("ed25519").privateKey };
const at = new Date("2026-11-30T10:00:00Z");

describe("run records, signed and with their results", () => {
  const records = validator("run-record");
  test.each(exampleRecords())("%s", (_name, text) => {
    const read = readRunRecord(JSON.parse(text));
    if ("problems" in read) throw new Error(JSON.stringify(read.problems));
    const file = asFile(signed(fileWithResults(read.record), signer, at)) as Record<string, unknown>;
    expect(file.results).not.toEqual([]);
    expect(records.validate(file).errors).toEqual([]);
    // And it is no yes-sayer.
    for (const wrong of [
      { ...file, formatVersion: 2 },
      { ...file, status: "lost" },
      { ...file, more: 1 },
    ])
      expect(records.validate(wrong).valid).toBe(false);
  });
});

test("methods, house rules, a manifest and a shelf", () => {
  const [example] = exampleRecords();
  const read = readRunRecord(JSON.parse(example![1]));
  if ("problems" in read) throw new Error("an example cannot be read");
  const manifest = manifestOf(new Map([["runs/a.json", Uint8Array.of(1, 2)]]), signer, at);
  const given: ShelfBottle["assignments"][number] = {
    ...({
      id: "01a00000-0000-7000-8000-000000000002",
      at: at.toISOString(),
      person: "M. Finn",
      how: "certificate",
    } as const),
    ...{ value: "0.1000", plusMinus: "0.0002", shape: "rectangular", unit: "mol/L", run: null, stage: null },
    sources: [],
  };
  const shelf: ShelfFile = {
    ...{ format: "steady-bead/shelf", formatVersion: 1 },
    bottles: [
      {
        ...{
          id: "01a00000-0000-7000-8000-000000000001",
          number: 3,
          form: "solution",
          formula: "NaOH",
          name: "base",
        },
        ...{ madeAt: at.toISOString(), madeBy: "", amountMade: "500", amountLeft: null, amountUnit: "mL" },
        ...{ restandardizeBy: "2026-12-24", usedUpAt: null, hazards: "", note: "", making: null },
        assignments: [given],
      },
    ],
  };
  const files: readonly (readonly [string, unknown])[] = [
    ["method", fileOfMethod(read.record.method)],
    ["house-rules", defaultHouseRules],
    ["archive-manifest", manifest],
    ["shelf", shelf],
  ];
  for (const [name, value] of files) {
    const valid = validator(name);
    expect([name, valid.validate(asFile(value)).errors]).toEqual([name, []]);
    expect([name, valid.validate({ ...(asFile(value) as object), more: 1 }).valid]).toEqual([name, false]);
  }
});

import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { type Method } from "~/core/method";
import { compileMethod } from "~/core/stages";
import { evaluateRun } from "~/core/evaluate";
import { hashOf, type MethodHashes } from "./method-hashes";
import { methods } from "./methods";
import { titer, typedRun } from "../core/testing/typed-run";
import { plain } from "~/core/testing/plain";

const noted = JSON.parse(
  readFileSync(new URL("./method-hashes.json", import.meta.url), "utf8"),
) as MethodHashes;

test.each(methods.map((m) => [m.id, m] as const))(
  "%s: what is in a version never changes (a change takes the next version, then npm run method-hashes)",
  (id, method) => {
    expect(noted[id]?.[method.version]).toBe(hashOf(method));
    // None is skipped back to: the newest noted version is the one that ships.
    expect(Math.max(...Object.keys(noted[id] ?? {}).map(Number))).toBe(method.version);
    expect(hashOf({ ...method, purpose: `${method.purpose}!` })).not.toBe(noted[id]?.[method.version]);
  },
);

test("a method as it was written before plausibility, brackets in units and densities still computes as it did", () => {
  const old: Method = {
    ...methods.find((m) => m.id === "acid-by-base")!,
    version: 3,
    stages: [
      {
        kind: "titration",
        key: "determine",
        title: "Titrate the acid",
        inputs: [
          {
            ...{ symbol: "c_b", is: "given", label: "Concentration of the base", of: "NaOH" },
            ...{ per: "run", unit: "mol/L", presumed: { value: "0.1000", plusMinus: "0.0002" } },
          } as const,
          { symbol: "V_a", is: "pipette", label: "Aliquot", of: "HCl", per: "trial", presumed: "25.00" },
          { symbol: "V", is: "titer", label: "Titer", titrant: "NaOH", per: "trial" },
        ],
        relations: [
          { relation: "c_a = c_b * V * ratio(HCl, NaOH) / V_a", title: "Acid", unit: "mol/L" },
          { relation: "x = c_a * 1 [L/mol·cm] * 1 [cm]", title: "As before", unit: "1" },
        ],
        result: { symbol: "c_a", name: "Concentration of the acid", unit: "mol/L" },
        also: [{ symbol: "x", name: "As before", unit: "1" }],
        agree: { on: "V / V_a", per: "V_a" },
        ...{ indicator: "x", persistence: "x", meniscus: "bottom", ribbon: [], steps: [], cautions: [] },
      },
    ],
  };
  expect(plain(compileMethod(old))).toMatchObject({ ok: true });
  const run = typedRun(old, { determine: { trials: [{ "V_a:volume.taken": "25.00", ...titer("20.00") }] } });
  const [stage] = evaluateRun(run).stages;
  expect(plain(stage?.kind === "titration" ? [stage.shown?.value, stage.implausible] : [])).toEqual([
    "0.08000",
    [],
  ]);
});

import { describe, expect, test } from "@jest/globals";
import { methods } from "~/catalog/methods";
import { alkalinityOfWater } from "~/catalog/methods/acid-base/alkalinity-of-water";
import { type Method } from "~/core/method";
import { compileMethod } from "~/core/stages";
import { readMethodFile } from "./method-file";
import { inEnglish } from "~/core/text";
import { plain } from "~/core/testing/plain";

const text = (change: (method: Method) => unknown = (m) => m) =>
  JSON.stringify(change(structuredClone(alkalinityOfWater)));

const problems = (file: string) => {
  const read = readMethodFile(file);
  return "problems" in read ? read.problems : [];
};

test.each(methods.map((m) => [m.id, m] as const))("%s comes back from its file as it was", (_id, method) => {
  const read = readMethodFile(JSON.stringify(method, null, 2));
  expect(plain(read)).toEqual({ method });
  expect(plain(compileMethod((read as { method: Method }).method))).toMatchObject({ ok: true });
});

describe("a file that is no method", () => {
  test.each([
    ["no JSON", "{ half", [{ path: "the whole", message: /is no JSON/ }]],
    [
      "something foreign",
      '{"compound": "x"}',
      [{ path: "the whole", message: /must have required property 'id'/ }],
    ],
    ["a list", "[]", [{ path: "the whole", message: /must be object/ }]],
    ["nothing", "", [{ path: "the whole", message: /is no JSON/ }]],
  ] as const)("%s", (_name, file, expected) => {
    const found = problems(file);
    for (const { path, message } of expected) {
      expect(
        found.filter((p) => p.path === path && message.test(inEnglish(p.message))).length,
      ).toBeGreaterThan(0);
    }
  });

  test("a family that is none is told at its path", () => {
    const found = problems(text((m) => ({ ...m, family: "alchemy" })));
    expect(plain(found)).toEqual([
      { path: "family", message: expect.stringMatching(/must be one of acid-base, redox/) },
    ]);
  });

  test("an input of an unknown kind, deep inside, is told at its path", () => {
    const found = problems(
      text((m) => {
        const [stage] = m.stages;
        if (stage?.kind === "titration") (stage.inputs[0] as { is: string }).is = "bucket";
        return m;
      }),
    );
    expect(found[0]?.path).toBe("stages.0.inputs.0.is");
    expect(plain(found[0]?.message)).toMatch(/must be one of .*mass.*pipette/);
  });

  test("a field too many is told by its name", () => {
    expect(plain(problems(text((m) => ({ ...m, script: "alert(1)" }))))).toEqual([
      { path: "the whole", message: expect.stringMatching(/"script"/) },
    ]);
  });
});

describe("a method that does not hold together", () => {
  test.each([
    [
      "an equation out of balance",
      (m: Method) => ({ ...m, equations: [{ name: "x", equation: "HCl + NaOH -> NaCl + 2 H2O" }] }),
      { path: "equations.0.equation", message: expect.stringMatching(/does not balance/) },
    ],
    [
      "an unknown element",
      (m: Method) => ({ ...m, equations: [{ name: "x", equation: "Qq -> Qq" }] }),
      { path: "equations.0.equation", message: expect.stringMatching(/Qq/) },
    ],
    [
      "a stage that uses what no stage yields",
      (m: Method) => {
        const stage = m.stages[2];
        const input = stage?.kind === "titration" ? stage.inputs.find((i) => i.is === "result") : undefined;
        if (input?.is === "result") input.result = "q";
        return m;
      },
      {
        path: expect.stringMatching(/^stages\.2\.inputs\.\d\.result$/),
        message: expect.stringMatching(/yields .*not q/),
      },
    ],
    [
      "units that do not fit",
      (m: Method) => {
        const stage = m.stages[2];
        if (stage?.kind === "titration") stage.result.unit = "g";
        return m;
      },
      { path: "stages.2.result.unit", message: expect.stringMatching(/cannot be shown in g/) },
    ],
  ])("%s", (_name, change, expected) => {
    expect(plain(problems(text(change)))).toEqual([expected]);
  });
});

import { describe, expect, test } from "@jest/globals";
import { compileMethod, MethodSchema } from "~/core/run";
import Ajv from "ajv";
import { methods } from ".";

const isMethod = new Ajv().compile(MethodSchema);

describe.each(methods.map((m) => [m.id, m] as const))("method %s", (_id, method) => {
  test("has the shape of the published schema", () => {
    expect(isMethod(method) ? [] : isMethod.errors).toEqual([]);
  });

  test("balances its equations and computes its results in the units that it names", () => {
    expect(compileMethod(method)).toMatchObject({ ok: true });
  });

  test("warns, protects and disposes", () => {
    expect(method.hazards.join(" ")).toMatch(/safety data sheets/);
    for (const list of [method.protection, method.waste, method.glassware]) expect(list).not.toHaveLength(0);
    for (const stage of method.stages) {
      if (stage.kind === "titration") expect(stage.ribbon.filter((step) => step.end)).toHaveLength(1);
    }
  });
});

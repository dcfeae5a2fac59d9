import { describe, expect, test } from "@jest/globals";
import { MethodSchema } from "~/core/method";
import { compileMethod } from "~/core/stages";
import Ajv from "ajv";
import { offered as methods } from ".";
import { plain } from "~/core/testing/plain";

const isMethod = new Ajv().compile(MethodSchema);

describe.each(methods.map((m) => [m.id, m] as const))("method %s", (_id, method) => {
  test("has the shape of the published schema", () => {
    expect(isMethod(method) ? [] : isMethod.errors).toEqual([]);
  });

  test("balances its equations and computes its results in the units that it names", () => {
    expect(plain(compileMethod(method))).toMatchObject({ ok: true });
  });

  test("warns, protects and disposes", () => {
    expect(method.hazards.join(" ")).toMatch(/safety data sheets/);
    for (const list of [method.protection, method.waste, method.glassware]) expect(list).not.toHaveLength(0);
    for (const stage of method.stages) {
      if (stage.kind === "titration") expect(stage.ribbon.filter((step) => step.end)).toHaveLength(1);
    }
  });

  test("says what is added, how to do it, where the end will come and what to watch", () => {
    for (const stage of method.stages) {
      const { key, steps, cautions, reagents = [] } = stage;
      // Nothing is added where nothing is read.
      const added = reagents.length > 0 || stage.kind === "isotherm";
      expect([key, steps.length > 1, cautions.length > 0, added]).toEqual([key, true, true, true]);
      if (stage.kind === "titration") expect([key, stage.expectMl !== undefined]).toEqual([key, true]);
    }
  });

  test("names its substances, and what it is a variant of", () => {
    const named = new Set(Object.keys(method.substances));
    for (const stage of method.stages) {
      if (stage.result === undefined) continue;
      const { assigns } = stage.result;
      if (assigns !== undefined) expect(named).toContain(assigns);
    }
    if (method.variant) expect(methods.map((m) => m.id)).toContain(method.variant.of);
  });
});

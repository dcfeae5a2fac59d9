import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { ancestorsOf, dependentsOf } from "~/core/prepare";
import { seedDemo } from "./seed/demo";
import { type OpenDatabase, openDatabase } from "./lab/open-database";
import { lineageGraph } from "./queries/lineage";
import { bottlesOf, dueBottles, listShelf, solutionById } from "./queries/shelf";
import { searchFinishedRuns } from "./queries/runs";
import { loadRunRecord } from "./queries/stored-run";
import { shelfOfRun } from "./queries/shelf-of-run";

const now = new Date("2026-11-25T10:00:00Z");
let open: OpenDatabase;
beforeAll(async () => {
  open = await openDatabase(null);
  await seedDemo(open.db, now);
}, 60_000);
afterAll(() => open.close());

const graph = () => lineageGraph(open.db, now);

async function standsOn() {
  const { bottles, runs } = await graph();
  return new Map([
    ...bottles.map((b) => [b.bottle.id, b.standsOn] as const),
    ...runs.map((r) => [r.id, r.standsOn] as const),
  ]);
}

const bottleOf = async (formula: string, form: "solid" | "solution") => {
  const found = (await listShelf(open.db, true, now)).find((b) => b.formula === formula && b.form === form);
  if (!found) throw new Error(`no ${formula}`);
  return found;
};

describe("lineage of the demo shelf", () => {
  test("runs from a solid by way of what it fixed to the waters that were titrated", async () => {
    const lineage = await standsOn();
    const carbonate = await bottleOf("Na2CO3", "solid");
    const acid = await bottleOf("HCl", "solution");
    expect(lineage.get(acid.id)).toEqual([carbonate.id]);
    const { runs } = await graph();
    const dependents = dependentsOf(carbonate.id, lineage);
    expect(dependents).toContain(acid.id);
    const named = runs.filter((r) => dependents.has(r.id)).map((r) => r.sample);
    expect(named.sort()).toEqual(["KT-4", "NS-9"]);
  });

  test("a run that only fixed a bottle is shown by that bottle, not twice", async () => {
    const { runs } = await graph();
    expect(runs.map((r) => r.title)).not.toContain("EDTA for the reef tank");
    expect(runs.map((r) => r.title)).toContain("Oxygen in the seal pool");
  });

  test("a solution weighed from a jar stands on it, and took its mass out of it", async () => {
    const lineage = await standsOn();
    const jar = await bottleOf("KHC8H4O4", "solid");
    const standard = await bottleOf("KHC8H4O4", "solution");
    expect(ancestorsOf(standard.id, lineage)).toEqual(new Set([jar.id]));
    // 92.4 g less 5.1027 g
    expect(Number(jar.amountLeft)).toBeCloseTo(87.2973, 4);
    expect((await solutionById(open.db, standard.id))?.making?.method.family).toBe("solutions");
  });

  test("has no circle", async () => {
    const lineage = await standsOn();
    for (const id of lineage.keys()) expect(ancestorsOf(id, lineage).has(id)).toBe(false);
  });
});

describe("what the shelf offers a run", () => {
  test("is the bottles of its substances, the newest first, and what it has put there itself", async () => {
    const { runs } = await searchFinishedRuns(open.db, "oxygen seal pool");
    const record = await loadRunRecord(open.db, runs[0]?.id ?? "");
    if (!record) throw new Error("no run");
    const shelf = await shelfOfRun(open.db, record);
    expect(new Set(shelf.bottles.map((b) => b.formula))).toEqual(new Set(["KIO3", "Na2S2O3"]));
    expect(shelf.shelved.map((s) => [s.stageKey, s.name])).toEqual([
      ["standardize", "sodium thiosulfate, 0.0125 mol/L"],
    ]);
    expect(shelf.newer).toEqual([]);
    expect(record.solutions?.map((s) => [s.formula, s.how])).toEqual([["KIO3", "certificate"]]);
  });

  test("and the bench is told what is due: past its date, or within two days", async () => {
    const names = async (day: string) => (await dueBottles(open.db, new Date(day))).map((b) => b.formula);
    expect(await names("2026-11-25T10:00:00Z")).toEqual(["NaOH"]);
    // The thiosulfate is due fourteen days after the 22nd.
    expect(await names("2026-12-03T10:00:00Z")).toEqual(["NaOH"]);
    expect(await names("2026-12-04T10:00:00Z")).toEqual(["NaOH", "Na2S2O3"]);
  });

  test("is nothing for a method that names none", async () => {
    expect(await bottlesOf(open.db, [])).toEqual([]);
  });
});

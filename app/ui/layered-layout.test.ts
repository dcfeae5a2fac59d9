import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { layOut } from "./layered-layout";

const size = { width: 100, height: 40 };

/** A lineage without circles: each stands on some of those before it. */
const lineage = fc
  .array(fc.array(fc.nat(30), { maxLength: 3 }), { minLength: 1, maxLength: 20 })
  .map(
    (all) =>
      new Map(
        all.map((grounds, i): [string, string[]] => [
          `n${i}`,
          i === 0 ? [] : [...new Set(grounds.map((g) => `n${g % i}`))],
        ]),
      ),
  );

describe("a layered layout", () => {
  test("puts each right of all that it stands on, with room between, and lets none overlap", () => {
    fc.assert(
      fc.property(lineage, (standsOn) => {
        const { places, edges, width, height } = layOut([...standsOn.keys()], standsOn, size);
        for (const { from, to } of edges) {
          const gap = (places.get(to)?.x ?? NaN) - (places.get(from)?.x ?? NaN);
          if (!(gap > size.width)) return false;
        }
        const all = [...places.values()];
        for (const [i, a] of all.entries()) {
          if (a.x < size.width / 2 || a.x > width - size.width / 2) return false;
          if (a.y < size.height / 2 || a.y > height - size.height / 2) return false;
          for (const b of all.slice(i + 1)) {
            if (Math.abs(a.x - b.x) < size.width && Math.abs(a.y - b.y) < size.height) return false;
          }
        }
        return edges.length === [...standsOn.values()].flat().length;
      }),
      { numRuns: 60 },
    );
  });

  test("leaves out lines to what is not in the picture, and is empty where nothing is", () => {
    expect(layOut(["a"], new Map([["a", ["gone"]]]), size).edges).toEqual([]);
    expect(layOut([], new Map(), size).places.size).toBe(0);
  });
});

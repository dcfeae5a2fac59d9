import { baseByPhthalateThenAcid as method } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { mustHold } from "~/core/result";
import type { Mapping } from "~/formats/table/mapping";
import { sheetOfText } from "~/formats/table/sheet";
import type { Database } from "~/server/database/types";
import {
  importTable,
  lookAtTable,
  openedTable,
  tableTargets,
  type Working,
} from "~/server/import/import-table";
import { ms, say } from "./bench-parts";

const quiet: Working = () => Promise.resolve();

/** A table of 10,000 rows, four of which make a run: opened, checked and imported. */
export async function benchTable(db: Database): Promise<void> {
  const rows = Array.from(
    { length: 10_000 },
    (_, i) =>
      `T-${Math.floor(i / 4)};14.11.2025;${(i % 4) + 1};25,00;0,0${i % 7};${(24.9 + (i % 11) / 100).toFixed(2).replace(".", ",")}`,
  );
  const text = ["Sample;Date;Trial;Aliquot of acid;Initial reading;Final reading", ...rows].join("\n");
  const timed = async <T>(what: string, work: () => Promise<T> | T): Promise<T> => {
    const began = performance.now();
    const outcome = await work();
    say(`table of 10,000 rows, ${what}`, ms(performance.now() - began), "5 s");
    return outcome;
  };
  const { sheet, mapping } = await timed("opened", async () => {
    const read = mustHold(sheetOfText(text));
    const opened = openedTable(read);
    const { targets, guessed } = await tableTargets(db, read, method, "determine");
    const given = targets.find(({ needed, per }) => needed && per === "run");
    const columns: Mapping = {
      ...{ methodId: method.id, stageKey: "determine", headings: true, decimal: opened.decimal },
      ...{ dates: "dmy", zeros: false, columns: guessed, fixed: given ? { [given.key]: "0.1000" } : {} },
    };
    return { sheet: read, mapping: columns };
  });
  const asked = { sheet, mapping, method, person: "M. Finn", file: "class.csv", from: null };
  const looked = mustHold(await timed("checked", () => lookAtTable(db, asked, new Date(), quiet)));

  const done = mustHold(await timed("imported", () => importTable(db, asked, new Date(), quiet)));
  if (done.runs !== looked.runs) throw new Error("Not all runs were imported");
}

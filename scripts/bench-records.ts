import { baseByPhthalateThenAcid as method } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { writeReport } from "~/app/features/report/pdf/asked.server";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { mustHold } from "~/core/result";
import { simulateRun } from "~/core/simulate";
import { truthOf } from "~/core/testing/library-truth";
import { workbookOf } from "~/formats/exports/xlsx";
import { linksHead } from "~/formats/proof/head";
import { fileWithResults } from "~/formats/results/stated";
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
import { median, ms, say } from "./bench-parts";

/** A run as it leaves the lab: its report on paper, and its spreadsheet. */
export async function benchReports(): Promise<void> {
  const truth = truthOf(method);
  const { record } = mustHold(simulateRun({ method, houseRules: defaultHouseRules, truth, seed: 7 }));
  const words = defaultHouseRules.words;
  const proof = { ...linksHead(fileWithResults(record)), key: null };
  const asked = {
    of: { record, proof },
    letterhead: "Tern Rock Aquarium",
    paper: "A4",
    working: "full",
    words,
  } as const;
  const times: number[] = [];
  let body = new Uint8Array();
  for (let i = 0; i < 6; i++) {
    const began = performance.now();
    body = await writeReport(asked);
    times.push(performance.now() - began);
  }
  say(
    `report as PDF, ${(body.length / 1024).toFixed(0)} kB, the first in a process`,
    ms(times[0] ?? NaN),
    "",
  );
  say("report as PDF, median of the next 5", ms(median(times.slice(1))), "");
  const sheets: number[] = [];
  for (let i = 0; i < 6; i++) {
    const began = performance.now();
    body = await workbookOf(record);
    sheets.push(performance.now() - began);
  }
  say(
    `spreadsheet with formulas, ${(body.length / 1024).toFixed(0)} kB, median of 6`,
    ms(median(sheets)),
    "",
  );
}

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

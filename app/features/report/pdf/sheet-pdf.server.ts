import type { Content, TableCell } from "pdfmake/interfaces";
import { seriesRemark, type SeriesRow, type SeriesTable } from "~/core/evaluate";
import { unitText } from "~/core/text";
import { colors } from "../../../theme/theme";
import type { ClassSheet } from "../../history/class-sheet";
import { columnsOf, errorWords, resultWords, roleWords, scatterWords } from "../../series/results-words";
import { checkedBy, checksumsOf, keyOfLab } from "../words";
import { figures, set } from "./faces.server";
import { headed, onPaper, roomOn } from "./paper.server";
import { heading, paragraph, type PrintedAs, rule, ruledTable } from "./parts.server";

function resultsTable(table: SeriesTable, { say }: PrintedAs): Content {
  const { known, beside } = columnsOf(table);
  const cellsOf = (row: SeriesRow): TableCell[] => [
    set([row.sample || row.title, say(roleWords[row.role])].filter((text) => text !== "").join(", ")),
    figures(say(resultWords(row)), { noWrap: true }),
    ...(known ? [figures(say(errorWords(row)), row.within === false ? { color: colors.brick } : {})] : []),
    ...(beside ? [set(say(seriesRemark(row)))] : []),
    set(row.bench),
    set(say(row.state)),
  ];
  const heads = [
    say`Sample`,
    `${table.name}, ${say(unitText(table.unit))}`,
    ...(known ? [say`error, %`] : []),
    ...(beside ? [say`Comparison`] : []),
    say`Bench or person`,
    say`State`,
  ];
  return ruledTable(heads, table.rows.map(cellsOf));
}

/** By what a copy of each record is proven, and a place for who checks the sheet. */
function ends({ heads, labKey }: ClassSheet, { say }: PrintedAs): Content[] {
  return [
    set(say(checksumsOf), { style: "soft", margin: [0, 16, 0, 2] }),
    ...heads.map(({ title, head }): Content => ({
      unbreakable: true,
      margin: [0, 1, 0, 1],
      stack: [set(title, { fontSize: 8.5 }), figures(head, { fontSize: 8 })],
    })),
    ...(labKey === null ? [] : [set(say(keyOfLab), { style: "soft" }), figures(labKey, { fontSize: 8 })]),
    {
      unbreakable: true,
      margin: [0, 44, 0, 0],
      stack: [rule(220, 0.8, colors.ink), set(say(checkedBy), { style: "soft", margin: [0, 2, 0, 0] })],
    },
  ];
}

/** Several runs on one sheet as PDF: the same content as on the screen. */
export function sheetPdf(
  sheet: ClassSheet,
  letterhead: string,
  asked: Omit<PrintedAs, "room">,
): Promise<Uint8Array<ArrayBuffer>> {
  const as = { ...asked, room: roomOn(asked.paper) };
  const { say } = as;
  const title = say`Results of ${sheet.heads.length} runs`;
  return onPaper({ title, subject: say`Class sheet` }, as, [
    ...headed(letterhead),
    set(title, { style: "h1" }),
    ...sheet.groups.flatMap(({ method, table }): Content[] => {
      const scatter = scatterWords(table);
      return [
        { headlineLevel: 2, stack: [heading(method)] },
        resultsTable(table, as),
        ...(scatter ? [paragraph(say(scatter), colors.inkSoft)] : []),
      ];
    }),
    ...ends(sheet, as),
  ]);
}

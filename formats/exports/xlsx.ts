import type ExcelJS from "exceljs";
import type { RunRecord } from "~/core/run";
import { bookOf } from "../spreadsheet/book";
import type { Look, Sheet } from "../spreadsheet/sheet";

const font = { name: "Arial", size: 10 };
const shade = (argb: string): ExcelJS.FillPattern => ({
  type: "pattern",
  pattern: "solid",
  fgColor: { argb },
});

const looks: Record<Look, Partial<ExcelJS.Style>> = {
  title: { font: { ...font, size: 14, bold: true } },
  note: { font: { ...font, italic: true } },
  head: { font: { ...font, bold: true }, fill: shade("FFE7E5DE") },
  label: { font },
  // What may be changed stands on a ground of its own.
  read: { font, fill: shade("FFFFF6DC") },
  chosen: { font, fill: shade("FFFFF6DC") },
  computed: { font },
  result: { font: { ...font, bold: true } },
};

function fill(worksheet: ExcelJS.Worksheet, sheet: Sheet): void {
  for (const [address, { value, formula, look, decimals }] of sheet.cells) {
    const cell = worksheet.getCell(address);
    cell.value = formula === undefined ? value : { formula, result: value };
    cell.style = {
      ...looks[look],
      ...(decimals === undefined ? {} : { numFmt: `0${decimals > 0 ? `.${"0".repeat(decimals)}` : ""}` }),
    };
  }
  worksheet.getColumn(1).width = 16;
  worksheet.getColumn(2).width = sheet.name === "Results" ? 36 : 44;
  for (let column = 3; column <= worksheet.columnCount; column++) worksheet.getColumn(column).width = 18;
}

/** A run as a workbook whose results follow its readings. */
export async function workbookOf(record: RunRecord): Promise<Uint8Array<ArrayBuffer>> {
  const { sheets, names } = bookOf(record);
  // Only those who want a workbook wait for its library.
  const { default: library } = await import("exceljs");
  const workbook = new library.Workbook();
  workbook.creator = "Steady Bead";
  workbook.calcProperties.fullCalcOnLoad = true;
  const worksheets = new Map(sheets.map((sheet) => [sheet, workbook.addWorksheet(sheet.name)]));
  for (const [sheet, worksheet] of worksheets) fill(worksheet, sheet);
  for (const { name, sheet, address } of names)
    workbook.definedNames.add(sheet.reference(address.replace(/^([A-Z]+)(\d+)$/, "$$$1$$$2")), name);
  return new Uint8Array(await workbook.xlsx.writeBuffer());
}

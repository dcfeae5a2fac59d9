import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import ExcelJS from "exceljs";

/** Cells of a workbook by sheet and address, as a spreadsheet program from Debian computes them. */
export type Recalculated = (sheet: string, address: string) => number | string | null;

/** A workbook, and what is changed in it before it is calculated. */
export interface ToCalculate {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly change?: (workbook: ExcelJS.Workbook) => void;
}

/**
 * Workbooks opened and recalculated by LibreOffice without a screen. What their formulas came to when they were written is taken away
 * before, so that nothing but a calculation can give it. All in one start of the program, which takes seconds.
 */
export async function recalculate(
  books: ReadonlyMap<string, ToCalculate>,
): Promise<ReadonlyMap<string, Recalculated>> {
  const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-sheets-"));
  try {
    for (const [name, { bytes, change }] of books) {
      const workbook = new ExcelJS.Workbook();
      await workbook.xlsx.load(bytes.buffer);
      workbook.eachSheet((sheet) =>
        sheet.eachRow((row) =>
          row.eachCell((cell) => {
            if (cell.formula) cell.value = { formula: cell.formula };
          }),
        ),
      );
      change?.(workbook);
      await workbook.xlsx.writeFile(path.join(folder, `${name}.xlsx`));
    }
    const files = [...books.keys()].map((name) => path.join(folder, `${name}.xlsx`));
    const into = path.join(folder, "out");
    execFileSync(
      "soffice",
      [
        `-env:UserInstallation=file://${folder}/profile`,
        "--headless",
        "--convert-to",
        "xlsx",
        "--outdir",
        into,
        ...files,
      ],
      { stdio: "ignore" },
    );
    const found = new Map<string, Recalculated>();
    for (const name of books.keys()) {
      const workbook = new ExcelJS.Workbook();
      const bytes = readFileSync(path.join(into, `${name}.xlsx`));
      await workbook.xlsx.load(new Uint8Array(bytes).buffer);
      found.set(name, (sheet, address) => {
        const value = workbook.getWorksheet(sheet)?.getCell(address).value ?? null;
        const plain = value !== null && typeof value === "object" && "result" in value ? value.result : value;
        return typeof plain === "number" || typeof plain === "string" ? plain : null;
      });
    }
    return found;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

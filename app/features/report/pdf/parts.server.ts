import dayjs from "dayjs";
import type { Content, ContentTable, CustomTableLayout, Margins, TableCell } from "pdfmake/interfaces";
import { colors } from "../../../theme/theme";
import type { Phrase } from "~/core/text";
import type { HouseWords } from "~/core/rules";
import type { Localized } from "../../../words/text";
import { patterns } from "../../../ui/when";
import { set } from "./faces.server";

/** How a report is printed. */
export interface PrintedAs {
  readonly paper: "A4" | "Letter";
  /** Each step of the working, or results only. */
  readonly working: "full" | "short";
  readonly words: HouseWords;
  readonly say: Localized;
  /** Points between the margins. */
  readonly room: number;
}

export const dated = (at: string, say: Localized, as: "dated" | "datedTime"): string =>
  dayjs(at).format(say(patterns[as]));

export const heading = (text: string, more: { margin?: Margins } = {}): Content =>
  set(text, { style: "h2", margin: [0, 14, 0, 4], ...more });

export const subheading = (text: string): Content => set(text, { style: "h3", margin: [0, 6, 0, 2] });

export const paragraph = (text: string, color: string = colors.ink): Content =>
  set(text, { color, margin: [0, 2, 0, 2] });

export const rule = (room: number, lineWidth: number, lineColor: string): Content => ({
  canvas: [{ type: "line", x1: 0, y1: 0, x2: room, y2: 0, lineWidth, lineColor }],
  margin: [0, 4, 0, 0],
});

/** Thin rules under each row, a stronger one under the heads. */
const ruled: CustomTableLayout = {
  hLineWidth: (i, { table }) => (i === 0 ? 0 : i === (table.headerRows ?? 0) ? 0.9 : 0.4),
  vLineWidth: () => 0,
  hLineColor: (i, { table }) => (i === (table.headerRows ?? 0) ? colors.lineStrong : colors.line),
  paddingLeft: () => 0,
  paddingRight: (i, { table }) => (i === (table.body[0]?.length ?? 0) - 1 ? 0 : 10),
  paddingTop: () => 2.5,
  paddingBottom: () => 2.5,
};

/** A table whose heads are repeated on each page. */
export function ruledTable(heads: readonly string[], rows: readonly (readonly TableCell[])[]): ContentTable {
  const many = heads.length > 7;
  return {
    layout: ruled,
    margin: [0, 4, 0, 4],
    fontSize: many ? 7.5 : 9,
    table: {
      headerRows: 1,
      dontBreakRows: true,
      keepWithHeaderRows: 1,
      // The last column takes what is left: remarks are long.
      widths: heads.map((_head, i) => (i === heads.length - 1 ? "*" : "auto")),
      body: [heads.map((head) => set(head, { bold: true }) as TableCell), ...rows.map((row) => [...row])],
    },
  };
}

export const list = (title: string, items: readonly Phrase[], say: Localized): Content =>
  items.length === 0
    ? ""
    : {
        stack: [heading(title), { ul: items.map((item) => set(say(item), { margin: [0, 1, 0, 1] })) }],
        unbreakable: true,
      };

import pdfmake from "pdfmake";
import type { Content, TDocumentDefinitions } from "pdfmake/interfaces";
import { colors } from "../../../theme/theme";
import { fontFiles, set } from "./faces.server";
import type { PrintedAs } from "./parts.server";

/** Margins in points: 16 mm, and room for the foot. */
const margins = { side: 45, top: 45, bottom: 54 } as const;
/** Widths of the papers in points. */
const widths = { A4: 595.28, Letter: 612 } as const;

export const roomOn = (paper: PrintedAs["paper"]): number => widths[paper] - 2 * margins.side;

/** The header of the lab; nothing where it has none. */
export const headed = (letterhead: string): Content[] =>
  letterhead === "" ? [] : [set(letterhead, { color: colors.inkSoft, margin: [0, 0, 0, 10] })];

/** A heading stays with what follows it. */
const leftAlone: TDocumentDefinitions["pageBreakBefore"] = (node, { getFollowingNodesOnPage }) =>
  node.headlineLevel !== undefined && getFollowingNodesOnPage().length === 0;

pdfmake.setFonts(fontFiles);
// Nothing is fetched, and no file is read but the faces.
pdfmake.setUrlAccessPolicy(() => false);
const faceFiles = new Set(Object.values(fontFiles).flatMap(({ normal, bold }) => [normal, bold]));
pdfmake.setLocalAccessPolicy((file: string) => faceFiles.has(file));

/** Sets content on paper, with its title and the number of each page at the foot. */
export async function onPaper(
  { title, subject }: { readonly title: string; readonly subject: string },
  { paper, words }: Pick<PrintedAs, "paper" | "words">,
  content: Content[],
): Promise<Uint8Array<ArrayBuffer>> {
  const foot = { color: colors.inkSoft, fontSize: 8 };
  const definition: TDocumentDefinitions = {
    pageSize: paper === "A4" ? "A4" : "LETTER",
    pageMargins: [margins.side, margins.top, margins.side, margins.bottom],
    info: { title, creator: "Steady Bead", subject },
    language: words.titer === "titre" ? "en-GB" : "en-US",
    displayTitle: true,
    pageBreakBefore: leftAlone,
    defaultStyle: { font: "Text", fontSize: 10, lineHeight: 1.25, color: colors.ink },
    styles: {
      h1: { fontSize: 18, bold: true },
      h2: { fontSize: 12, bold: true },
      h3: { fontSize: 9.5, bold: true, color: colors.inkSoft },
      soft: { fontSize: 8.5, color: colors.inkSoft },
    },
    footer: (page, pages) => ({
      margin: [margins.side, 16, margins.side, 0],
      columns: [
        { width: "*", ...set(title, foot) },
        { width: "auto", ...set(`${page} / ${pages}`, foot) },
      ],
      columnGap: 16,
    }),
    content,
  };
  return new Uint8Array(await pdfmake.createPdf(definition).getBuffer());
}

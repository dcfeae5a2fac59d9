import { runsOf, type Script } from "./faces.server";

/*
 * Vector pictures as a PDF takes them: each text in faces that have its glyphs.
 */

const entities: Readonly<Record<string, string>> = {
  amp: "&",
  lt: "<",
  gt: ">",
  quot: '"',
  apos: "'",
  nbsp: "\u00a0",
};

const decoded = (text: string): string =>
  text.replace(/&(?:#x([0-9a-f]+)|#(\d+)|(\w+));/gi, (whole, hex?: string, dec?: string, name?: string) =>
    hex !== undefined
      ? String.fromCodePoint(parseInt(hex, 16))
      : dec !== undefined
        ? String.fromCodePoint(Number(dec))
        : (entities[name ?? ""] ?? whole),
  );

export const escaped = (text: string): string =>
  text.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/>/g, "&gt;");

const scriptOf = (attributes: string): Script => (/mono/i.test(attributes) ? "reading" : "text");

/** A text of a picture in runs of one face each. */
const inFaces = (text: string, script: Script): string =>
  runsOf(text, script)
    .map((run) => `<tspan font-family="${run.face}">${escaped(run.text)}</tspan>`)
    .join("");

/** An SVG in which each text names faces that a PDF has. */
export const withFaces = (svg: string): string =>
  svg.replace(
    /<text\b([^>]*)>([^<]*)<\/text>/g,
    (_whole, attributes: string, text: string) =>
      `<text${attributes}>${inFaces(decoded(text), scriptOf(attributes))}</text>`,
  );

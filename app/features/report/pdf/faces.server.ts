import { createRequire } from "node:module";
import { type Font, openSync } from "fontkit";
import type { ContentText, TFontDictionary } from "pdfmake/interfaces";

/*
 * The faces of a PDF: those of the screen, and for what they have no glyph for (Greek, arrows, roots, raised and lowered figures)
 * one that has nearly everything. A PDF picks no other face by itself where a glyph is missing: each text is parted here.
 */

const { resolve } = createRequire(import.meta.url);

const shipped = (family: "next" | "mono", subset: string, weight: 400 | 700) =>
  resolve(
    `@fontsource/atkinson-hyperlegible-${family}/files/atkinson-hyperlegible-${family}-${subset}-${weight}-normal.woff`,
  );
const wide = (name: string) => resolve(`dejavu-fonts-ttf/ttf/${name}.ttf`);

interface Face {
  readonly name: string;
  readonly normal: string;
  readonly bold: string;
}

const face = (name: string, normal: string, bold: string): Face => ({ name, normal, bold });
const ofScreen = (name: string, family: "next" | "mono", subset: string) =>
  face(name, shipped(family, subset, 400), shipped(family, subset, 700));

export type Script = "text" | "reading";

/** The faces of each script, the first that has a glyph is taken. */
const faces: Readonly<Record<Script, readonly Face[]>> = {
  text: [
    ofScreen("Text", "next", "latin"),
    ofScreen("Text more", "next", "latin-ext"),
    face("Symbols", wide("DejaVuSans"), wide("DejaVuSans-Bold")),
  ],
  reading: [
    ofScreen("Reading", "mono", "latin"),
    ofScreen("Reading more", "mono", "latin-ext"),
    face("Even symbols", wide("DejaVuSansMono"), wide("DejaVuSansMono-Bold")),
  ],
};

/** All faces as the library wants them. */
export const fontFiles: TFontDictionary = Object.fromEntries(
  [...faces.text, ...faces.reading].map(({ name, normal, bold }) => [
    name,
    { normal, bold, italics: normal, bolditalics: bold },
  ]),
);

const opened = new Map<string, Font>();

function fontOf(file: string): Font {
  const there = opened.get(file);
  if (there) return there;
  const font = openSync(file);
  if (!("hasGlyphForCodePoint" in font)) throw new Error(`${file} is no single font`);
  opened.set(file, font);
  return font;
}

const hasGlyph = (file: string, point: number): boolean => fontOf(file).hasGlyphForCodePoint(point);

export interface FaceRun {
  readonly text: string;
  readonly face: string;
}

const marks = /\p{M}/u;

/** A letter with the marks that stand over it belongs together. */
function clusters(text: string): string[] {
  const found: string[] = [];
  for (const char of text)
    if (marks.test(char) && found.length > 0) found.push((found.pop() ?? "") + char);
    else found.push(char);
  return found;
}

/** The first face that has all of it; null where none has. */
const faceFor = (cluster: string, script: Script): string | null =>
  faces[script].find(({ normal }) =>
    [...cluster].every((char) => char === "\n" || hasGlyph(normal, char.codePointAt(0) ?? 0)),
  )?.name ?? null;

/** Characters of a text for which no face of a PDF has a glyph. */
export const withoutGlyph = (text: string): readonly string[] => [
  ...new Set(clusters(text).filter((cluster) => faceFor(cluster, "text") === null)),
];

/** A text in runs of one face each. Where none has a glyph, the sign for that stands. */
export function runsOf(text: string, script: Script = "text"): readonly FaceRun[] {
  const runs: { text: string; face: string }[] = [];
  for (const cluster of clusters(text)) {
    const found = faceFor(cluster, script);
    const face = found ?? faces[script].at(-1)?.name ?? "";
    const shown = found === null ? "\ufffd" : cluster;
    const last = runs.at(-1);
    // A space is of every face: it does not part a run.
    if (last && (last.face === face || cluster === " ")) last.text += shown;
    else runs.push({ text: shown, face });
  }
  return runs;
}

const fileOf = new Map([...faces.text, ...faces.reading].map(({ name, normal }) => [name, normal]));

/** How wide a text is, in the same measure as the size of its script. */
export const widthOf = (text: string, size: number, script: Script): number =>
  runsOf(text, script).reduce((sum, run) => {
    const font = fontOf(fileOf.get(run.face) ?? "");
    return sum + (font.layout(run.text).advanceWidth / font.unitsPerEm) * size;
  }, 0);

type Look = Omit<ContentText, "text" | "font">;

/** A text as the library sets it; each run has the look by itself, since within another text it would be lost. */
export const set = (text: string, look: Look = {}, script: Script = "text"): ContentText => ({
  text: runsOf(text, script).map((run) => ({ ...look, text: run.text, font: run.face, margin: undefined })),
  ...look,
});

/** Figures: all as wide as each other. */
export const figures = (text: string, look: Look = {}): ContentText => set(text, look, "reading");

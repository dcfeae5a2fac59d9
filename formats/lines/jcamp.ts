import type { PointLine } from "./line";

/*
 * JCAMP-DX 4.24 (IUPAC; McDonald and Wilks, Appl. Spectrosc. 42 (1988) 151; from memory). Points are written as pairs, (XY..XY): the form
 * that holds any distances between them, and each number with the digits with which it came.
 */

const dataTypes: Readonly<Record<PointLine["is"], string>> = {
  spectrum: "UV/VIS SPECTRUM",
  course: "UV/VIS TIME COURSE",
  curve: "TITRATION CURVE",
};

const unitWords: Readonly<Record<string, string>> = {
  nm: "NANOMETERS",
  s: "SECONDS",
  mL: "MILLILITERS",
  mV: "MILLIVOLTS",
  mS: "MILLISIEMENS",
};

/** A text as the value of a record: one line, in which nothing begins another record or a comment. */
const plainText = (text: string): string =>
  text
    .replace(/[\p{Cc}\s]+/gu, " ")
    .replace(/##|\$\$/g, " ")
    .trim();

const inUnits = ({ unit, name }: PointLine["x"]): string => unitWords[unit] ?? plainText(name).toUpperCase();

/** The records of one block, without its end. */
function block({ is, name, x, y, at, person }: PointLine): string[] {
  return [
    `##TITLE=${plainText(name)}`,
    "##JCAMP-DX=4.24",
    `##DATA TYPE=${dataTypes[is]}`,
    "##ORIGIN=Steady Bead",
    `##OWNER=${plainText(person)}`,
    `##LONGDATE=${at.slice(0, 19).replaceAll("-", "/").replace("T", " ")}`,
    `##XUNITS=${inUnits(x)}`,
    `##YUNITS=${inUnits(y)}`,
    "##XFACTOR=1",
    "##YFACTOR=1",
    `##FIRSTX=${x.texts[0] ?? ""}`,
    `##LASTX=${x.texts.at(-1) ?? ""}`,
    `##NPOINTS=${x.texts.length}`,
    "##XYPOINTS=(XY..XY)",
    ...x.texts.map((text, i) => `${text}, ${y.texts[i] ?? ""}`),
    "##END=",
  ];
}

const textOf = (records: readonly string[]): string => `${records.join("\r\n")}\r\n`;

export const lineJcamp = (line: PointLine): string => textOf(block(line));

/** All lines of a run in one file: a block for each, linked as the format has it. */
export const linesJcamp = (title: string, lines: readonly PointLine[]): string => {
  const [only] = lines;
  return only && lines.length === 1
    ? lineJcamp(only)
    : textOf([
        `##TITLE=${plainText(title)}`,
        "##JCAMP-DX=4.24",
        "##DATA TYPE=LINK",
        `##BLOCKS=${lines.length}`,
        ...lines.flatMap(block),
        "##END=",
      ]);
};

import { failure, type Problem, type Result, success } from "../result";
import { standardAtomicWeights } from "./atomic-weights";
import { msg } from "../text";

export interface Formula {
  readonly source: string;
  /** Atoms of each element in one formula unit. */
  readonly atoms: ReadonlyMap<string, number>;
  /** Charge number: -1 for MnO4-. */
  readonly charge: number;
}

const subscripts = "₀₁₂₃₄₅₆₇₈₉";
const superscripts = "⁰¹²³⁴⁵⁶⁷⁸⁹";
const closing: Record<string, string> = { "(": ")", "[": "]", "{": "}" };
const hydrateDots = "·•∙*.";
const fractions: Readonly<Record<string, number>> = { "½": 0.5, "¼": 0.25, "¾": 0.75 };
/** How many formula units come after a dot: 5, 0.5, 1/2, ½, 1½. A point counts as one only with a digit before it. */
const multiplier = /^(?:\d*[½¼¾]|\d+\.\d+(?=\s*[A-Z([{])|\d+\/\d+|\d+)/;
/** The state that a species is in, which is no part of it. */
const stateAtEnd = /\s*\((?:s|l|g|aq)\)\s*$/;

/** Writes Unicode sub- and superscripts as plain text, one character for one, so that positions still hold. */
function plain(source: string): string {
  return [...source]
    .map((c) => {
      if (subscripts.includes(c)) return String(subscripts.indexOf(c));
      if (superscripts.includes(c)) return String(superscripts.indexOf(c));
      return { "⁺": "+", "⁻": "-", "−": "-" }[c] ?? c;
    })
    .join("");
}

interface Charge {
  readonly charge: number;
  /** Where the atoms end and the charge begins. */
  readonly end: number;
}

/** A charge at the end: `-`, `+`, `^2-`, `^-2`, `+3`, or superscripts as in SO₄²⁻. */
function readCharge(whole: string, wholeText: string): Charge {
  const length = wholeText.replace(stateAtEnd, "").trimEnd().length;
  const [source, text] = [whole.slice(0, length), wholeText.slice(0, length)];
  const caret = /\^(\d*)([+-])(\d*)$/.exec(text);
  const signFirst = /([+-])(\d+)$/.exec(text);
  const raised = new RegExp(`([${superscripts}]*)[⁺⁻]$`).exec(source);
  const sign = (s: string | undefined) => (s === "-" ? -1 : 1);
  if (caret) return { charge: sign(caret[2]) * Number(caret[1] || caret[3] || 1), end: caret.index };
  if (raised) {
    const digits = plain(raised[1] ?? "");
    return { charge: sign(text.at(-1)) * Number(digits || 1), end: raised.index };
  }
  if (signFirst) return { charge: sign(signFirst[1]) * Number(signFirst[2]), end: signFirst.index };
  if (/[+-]$/.test(text)) return { charge: sign(text.at(-1)), end: text.length - 1 };
  return { charge: 0, end: text.length };
}

/** Ions of one element that are written with their atoms' count and a bare sign. */
const polyatomicIons = ["I3-", "N3-"];

/**
 * Digits before a bare sign can be atoms or charge: Fe3+ is iron(III) to one and three atoms to another, and SO42- has
 * no 42 oxygens. Says so, and how to write what was probably meant.
 */
function ambiguousCharge(typed: string, plainText: string): Problem | null {
  const [source, text] = [typed, plainText].map((t) => t.replace(stateAtEnd, "").trim()) as [string, string];
  if (source !== text || polyatomicIons.includes(text)) return null;
  const single = /^([A-Z][a-z]?)(\d)([+-])$/.exec(text);
  if (single) {
    const [, element = "", digit = "", sign = ""] = single;
    return {
      message: msg`${text} can be read two ways: write ${element}^${digit}${sign} for the charge, ${element}${digit}^${sign} for the atoms`,
      position: 0,
    };
  }
  const crowded = /^(.*?([A-Z][a-z]?|[)\]}]))(\d+)(\d)([+-])$/.exec(text);
  if (!crowded) return null;
  const [, body = "", last, digits = "", digit = "", sign = ""] = crowded;
  // Chains of carbon and hydrogen do get that long; nothing else does.
  if (last === "C" || last === "H" || Number(digits + digit) < 30) return null;
  return {
    message: msg`${digits}${digit} atoms? For the charge write ${body}${digits}^${digit}${sign}`,
    position: body.length,
  };
}

/** Longer than this no formula is that anybody titrates. */
const longestFormula = 120;
/** Atoms of one element in one formula unit: proteins have thousands. */
const mostAtoms = 100_000;

/** The number that a multiplier means. */
function multiplierValue(text: string): number {
  const part = fractions[text.at(-1) ?? ""];
  if (part !== undefined) return Number(text.slice(0, -1)) + part;
  const [over = "", under] = text.split("/");
  return under === undefined ? Number(over) : Number(over) / Number(under);
}

/**
 * Reads a chemical formula: nested brackets, hydrates with any dot and any part of a water (`CuSO4·5H2O`, `CaSO4 · 0.5 H2O`,
 * `2CaSO4·H2O`), a charge at the end, a state behind it that is left aside (`Na+(aq)`). A lone `e-` is the electron. Problems
 * carry the position in the text. Counts of atoms are whole, or parts of one in a hydrate such as a hemihydrate.
 */
export function parseFormula(source: string): Result<Formula> {
  if (source.length > longestFormula)
    return failure(msg`A formula has at most ${longestFormula} characters`, longestFormula);
  const text = plain(source);
  if (text.trim() === "") return failure(msg`A formula is missing here`, 0);
  if (/^e\^?-$/.test(text)) return success({ source, atoms: new Map(), charge: -1 });
  const ambiguous = ambiguousCharge(source, text);
  if (ambiguous) return { ok: false, problem: ambiguous };
  const { charge, end } = readCharge(source, text);
  let at = 0;
  const skipBlanks = () => {
    while (at < end && /\s/.test(text.charAt(at))) at++;
  };
  const howMany = (): Result<number> => {
    skipBlanks();
    const match = multiplier.exec(text.slice(at, end))?.[0];
    if (match === undefined) return success(1);
    const times = multiplierValue(match);
    if (!(times > 0 && Number.isFinite(times)))
      return failure(msg`A part of a formula cannot have the count zero`, at);
    at += match.length;
    skipBlanks();
    return success(times);
  };

  const number = (): number | null => {
    const match = /^\d+/.exec(text.slice(at, end));
    if (!match) return null;
    at += match[0].length;
    return Number(match[0]);
  };

  function group(close: string | null, opened: number): Result<Map<string, number>> {
    const atoms = new Map<string, number>();
    const put = (part: ReadonlyMap<string, number>, times: number) => {
      for (const [element, count] of part) atoms.set(element, (atoms.get(element) ?? 0) + count * times);
    };
    while (at < end) {
      const c = text.charAt(at);
      if (c === close) return success(atoms);
      if (close === null && hydrateDots.includes(c)) return success(atoms);
      if (/\s/.test(c)) {
        const blank = at;
        skipBlanks();
        if (at >= end || (close === null && hydrateDots.includes(text.charAt(at)))) continue;
        return failure(msg`A formula cannot have a space here`, blank);
      }
      const closer = closing[c];
      if (closer) {
        const start = at++;
        const inner = group(closer, start);
        if (!inner.ok) return inner;
        at++;
        const times = number() ?? 1;
        if (times === 0) return failure(msg`A group cannot have the count zero`, at - 1);
        put(inner.value, times);
        continue;
      }
      const element = /^[A-Z][a-z]?/.exec(text.slice(at, end))?.[0];
      if (!element) return failure(msg`"${c}" is not allowed here in a formula`, at);
      const symbol = element in standardAtomicWeights ? element : element.charAt(0);
      if (!(symbol in standardAtomicWeights)) {
        return failure(msg`"${element}" is not an element with a standard atomic weight`, at);
      }
      if (symbol !== element) return failure(msg`"${element}" is not an element`, at);
      at += element.length;
      const times = number() ?? 1;
      if (times === 0) return failure(msg`An element cannot have the count zero`, at - 1);
      put(new Map([[symbol, 1]]), times);
    }
    if (close !== null) return failure(msg`This bracket is never closed`, opened);
    return success(atoms);
  }

  const atoms = new Map<string, number>();
  while (at <= end) {
    const several = howMany();
    if (!several.ok) return several;
    const times = several.value;
    const start = at;
    const part = group(null, at);
    if (!part.ok) return part;
    if (at === start) return failure(msg`Part of the formula is missing here`, Math.min(at, text.length));
    for (const [element, count] of part.value) atoms.set(element, (atoms.get(element) ?? 0) + count * times);
    if (at >= end) break;
    at++;
  }
  if (Math.abs(charge) > 100) return failure(msg`No ion has this charge`, end);
  const most = [...atoms].find(([, count]) => count > mostAtoms);
  return most
    ? failure(msg`${most[1]} atoms of ${most[0]} are too many for a formula`, 0)
    : success({ source, atoms, charge });
}

/** The same species however it is written: elements sorted, with the charge. */
export function speciesKey({ atoms, charge }: Formula): string {
  const parts = [...atoms]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([element, count]) => `${element}${count}`);
  return `${parts.join("")}|${charge}`;
}

/** A formula cut into its body (hydrate dots made alike) and its charge as size and sign. */
function shownParts(source: string): { body: string; size: string; sign: "" | "-" | "+"; state: string } {
  const text = plain(source);
  const { charge, end } = readCharge(source, text);
  const size = Math.abs(charge) > 1 ? String(Math.abs(charge)) : "";
  return {
    // A point within a number is none of a hydrate.
    body: text
      .slice(0, end)
      .replace(
        /(?<!^\d+)\s*[*•∙·.]\s*(\d+\.\d+(?=\s*[A-Z([{]))?/g,
        (_dot, part: string | undefined) => `·${part ?? ""}`,
      )
      .replace(/\s+/g, ""),
    state: stateAtEnd.exec(text)?.[0].trim() ?? "",
    size,
    sign: charge === 0 ? "" : charge < 0 ? "-" : "+",
  };
}

const countDigits = /(?<=[A-Za-z)\]}])\d+/g;

/** A formula as mhchem reads it inside `\\ce{}`: `C2O4^2-`, `CuSO4*5H2O`. */
export function formulaMhchem(source: string): string {
  const { body, size, sign, state } = shownParts(source);
  const asFraction = body.replace(/½/g, "1/2").replace(/¼/g, "1/4").replace(/¾/g, "3/4");
  return asFraction.replace(/·/g, "*") + (sign ? `^${size}${sign}` : "") + (state ? ` ${state}` : "");
}

/** A formula with Unicode sub- and superscripts for plain text: `CuSO₄·5H₂O`, `C₂O₄²⁻`. */
export function prettyFormula(source: string): string {
  const { body, size, sign, state } = shownParts(source);
  const low = body.replace(countDigits, (digits) =>
    [...digits].map((d) => subscripts.charAt(Number(d))).join(""),
  );
  const high = [...size].map((d) => superscripts.charAt(Number(d))).join("");
  return low + high + { "": "", "-": "⁻", "+": "⁺" }[sign] + state;
}

/** A formula in TeX, upright: `\mathrm{C_{2}O_{4}^{2-}}`. */
export function formulaTex(source: string): string {
  const { body, size, sign, state } = shownParts(source);
  const low = body
    .replace(/·/g, "\\cdot ")
    .replace(/½/g, "\\tfrac{1}{2}")
    .replace(countDigits, (digits) => `_{${digits}}`);
  return `\\mathrm{${low}${sign ? `^{${size}${sign}}` : ""}${state}}`;
}

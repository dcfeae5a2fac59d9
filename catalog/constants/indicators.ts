import type { AcidIndicator, MetalIndicator, RedoxIndicator } from "~/core/plan";
import { msg } from "~/core/text";

const checked = "CHECKS.md (handbook, from memory)";
const remembered = "from memory";

const red = { color: "#c8413a", looks: msg`red` };
const yellow = { color: "#e3c32f", looks: msg`yellow` };
const blue = { color: "#3b5f9e", looks: msg`blue` };
const colorless = { color: "#eceeea", looks: msg`colorless` };
const wineRed = { color: "#8f2d56", looks: msg`wine red` };
const violet = { color: "#6d4a94", looks: msg`violet` };
const pink = { color: "#c7579a", looks: msg`pink` };

/** Indicators of acids and bases, from the lowest range to the highest. */
export const acidIndicators: readonly AcidIndicator[] = [
  {
    key: "bromophenol-blue",
    name: msg`bromophenol blue`,
    from: 3,
    to: 4.6,
    low: yellow,
    high: { color: "#5a4a9c", looks: msg`blue-violet` },
    source: checked,
  },
  {
    key: "methyl-orange",
    name: msg`methyl orange`,
    from: 3.1,
    to: 4.4,
    low: red,
    high: { color: "#e09a35", looks: msg`orange-yellow` },
    source: checked,
  },
  {
    key: "bromocresol-green",
    name: msg`bromocresol green`,
    from: 3.8,
    to: 5.4,
    low: yellow,
    high: blue,
    source: remembered,
  },
  { key: "methyl-red", name: msg`methyl red`, from: 4.4, to: 6.2, low: red, high: yellow, source: checked },
  {
    key: "bromothymol-blue",
    name: msg`bromothymol blue`,
    from: 6,
    to: 7.6,
    low: yellow,
    high: blue,
    source: checked,
  },
  {
    key: "phenol-red",
    name: msg`phenol red`,
    from: 6.8,
    to: 8.4,
    low: yellow,
    high: red,
    source: remembered,
  },
  {
    key: "phenolphthalein",
    name: msg`phenolphthalein`,
    from: 8.3,
    to: 10,
    low: colorless,
    oneColor: true,
    high: pink,
    source: checked,
  },
  {
    key: "thymolphthalein",
    name: msg`thymolphthalein`,
    from: 9.3,
    to: 10.5,
    low: colorless,
    oneColor: true,
    high: blue,
    source: checked,
  },
  {
    key: "alizarin-yellow",
    name: msg`alizarin yellow`,
    from: 10.1,
    to: 12,
    low: yellow,
    high: { color: "#a4492f", looks: msg`red-brown` },
    source: remembered,
  },
];

const protonated = (charge: number, ...pKas: readonly number[]) => ({
  charge,
  steps: pKas.map((pKa) => ({ pKa })),
});

/**
 * Indicators that metals bind: bound on the low side, free on the high side. Constants of the wholly deprotonated form, at 20 to 25 °C and an
 * ionic strength of 0.1 mol/L or so.
 */
export const metalIndicators: readonly MetalIndicator[] = [
  {
    key: "eriochrome-black-t",
    name: msg`eriochrome black T`,
    low: wineRed,
    high: blue,
    acid: protonated(-1, 6.3, 11.55),
    usable: [7, 11],
    logK: { Ca: 5.4, Mg: 7, Zn: 12.9 },
    source: remembered,
  },
  {
    key: "calmagite",
    name: msg`calmagite`,
    low: wineRed,
    high: blue,
    acid: protonated(-1, 8.1, 12.4),
    usable: [8.5, 11.5],
    logK: { Ca: 6.1, Mg: 8.1 },
    source: remembered,
  },
  {
    key: "calcon",
    name: msg`calcon`,
    low: wineRed,
    high: blue,
    acid: protonated(-1, 7.4, 13.5),
    usable: [12, 13.5],
    logK: { Ca: 5.6, Mg: 7.6 },
    source: remembered,
  },
  {
    key: "hydroxynaphthol-blue",
    name: msg`hydroxynaphthol blue`,
    low: pink,
    high: blue,
    acid: protonated(-3, 6.4, 12.9),
    usable: [12, 13.5],
    logK: { Ca: 6.1, Mg: 6.7 },
    source: remembered,
  },
  {
    key: "xylenol-orange",
    name: msg`xylenol orange`,
    low: { color: "#a8324f", looks: msg`red-violet` },
    high: yellow,
    // As the conditional constants of zinc have it: log10 of 4.8 at pH 5, 5.7 at pH 5.5, 6.5 at pH 6.
    acid: protonated(-2, 6.4, 10.4),
    usable: [1, 6],
    logK: { Zn: 11.5 },
    source: remembered,
  },
  {
    key: "murexide",
    name: msg`murexide`,
    low: pink,
    high: violet,
    acid: protonated(-1, 9.2, 10.9),
    usable: [11, 13],
    logK: { Ca: 5 },
    source: remembered,
  },
];

/** Dyes that are oxidized, by the potential in acid of 1 mol/L; and colors of oxidants themselves. */
export const redoxIndicators: readonly RedoxIndicator[] = [
  {
    key: "methylene-blue",
    name: msg`methylene blue`,
    low: colorless,
    oneColor: true,
    high: blue,
    volts: 0.53,
    electrons: 2,
    source: remembered,
  },
  {
    key: "diphenylamine",
    name: msg`diphenylamine`,
    low: colorless,
    oneColor: true,
    high: violet,
    volts: 0.76,
    electrons: 2,
    source: remembered,
  },
  {
    key: "diphenylamine-sulfonate",
    name: msg`diphenylamine sulfonate`,
    low: colorless,
    oneColor: true,
    high: violet,
    volts: 0.85,
    electrons: 2,
    source: remembered,
  },
  {
    key: "ferroin",
    name: msg`ferroin`,
    low: red,
    high: { color: "#a9c4dc", looks: msg`pale blue` },
    volts: 1.06,
    electrons: 1,
    source: remembered,
  },
  {
    key: "nitroferroin",
    name: msg`nitroferroin`,
    low: { color: "#a8324f", looks: msg`violet-red` },
    high: { color: "#a9c4dc", looks: msg`pale blue` },
    volts: 1.25,
    electrons: 1,
    source: remembered,
  },
  {
    key: "permanganate",
    name: msg`permanganate`,
    low: colorless,
    oneColor: true,
    high: pink,
    colorOf: "permanganate",
    from: 2e-6,
    to: 1e-5,
    source: remembered,
  },
  {
    key: "starch",
    name: msg`starch`,
    low: colorless,
    oneColor: true,
    high: { color: "#27335f", looks: msg`blue-black` },
    colorOf: "iodine",
    from: 1e-6,
    to: 1e-5,
    source: remembered,
  },
];

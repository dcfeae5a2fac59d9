import type { PHRange } from "~/core/equilibria";
import { msg, type Phrase } from "~/core/text";

/** An indicator of acids and bases, with the color of its acid and of its base. */
export interface KnownIndicator extends PHRange {
  readonly key: string;
  readonly name: Phrase;
  readonly acid: { readonly color: string; readonly looks: Phrase };
  readonly base: { readonly color: string; readonly looks: Phrase };
  readonly source: string;
}

const checked = "CHECKS.md (handbook, from memory)";
const remembered = "from memory";

const red = { color: "#c8413a", looks: msg`red` };
const yellow = { color: "#e3c32f", looks: msg`yellow` };
const blue = { color: "#3b5f9e", looks: msg`blue` };
const colorless = { color: "#eceeea", looks: msg`colorless` };

/** From the lowest range to the highest. */
export const indicators: readonly KnownIndicator[] = [
  {
    key: "bromophenol-blue",
    name: msg`bromophenol blue`,
    from: 3,
    to: 4.6,
    acid: yellow,
    base: { color: "#5a4a9c", looks: msg`blue-violet` },
    source: checked,
  },
  {
    key: "methyl-orange",
    name: msg`methyl orange`,
    from: 3.1,
    to: 4.4,
    acid: red,
    base: { color: "#e09a35", looks: msg`orange-yellow` },
    source: checked,
  },
  {
    key: "bromocresol-green",
    name: msg`bromocresol green`,
    from: 3.8,
    to: 5.4,
    acid: yellow,
    base: blue,
    source: remembered,
  },
  { key: "methyl-red", name: msg`methyl red`, from: 4.4, to: 6.2, acid: red, base: yellow, source: checked },
  {
    key: "bromothymol-blue",
    name: msg`bromothymol blue`,
    from: 6,
    to: 7.6,
    acid: yellow,
    base: blue,
    source: checked,
  },
  {
    key: "phenol-red",
    name: msg`phenol red`,
    from: 6.8,
    to: 8.4,
    acid: yellow,
    base: red,
    source: remembered,
  },
  {
    key: "phenolphthalein",
    name: msg`phenolphthalein`,
    from: 8.3,
    to: 10,
    acid: colorless,
    base: { color: "#c7579a", looks: msg`pink` },
    source: checked,
  },
  {
    key: "thymolphthalein",
    name: msg`thymolphthalein`,
    from: 9.3,
    to: 10.5,
    acid: colorless,
    base: blue,
    source: checked,
  },
  {
    key: "alizarin-yellow",
    name: msg`alizarin yellow`,
    from: 10.1,
    to: 12,
    acid: yellow,
    base: { color: "#a4492f", looks: msg`red-brown` },
    source: remembered,
  },
];

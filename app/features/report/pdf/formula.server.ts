import { liteAdaptor } from "mathjax-full/js/adaptors/liteAdaptor.js";
import { RegisterHTMLHandler } from "mathjax-full/js/handlers/html.js";
import { TeX } from "mathjax-full/js/input/tex.js";
import "mathjax-full/js/input/tex/ams/AmsConfiguration.js";
import "mathjax-full/js/input/tex/base/BaseConfiguration.js";
import "mathjax-full/js/input/tex/boldsymbol/BoldsymbolConfiguration.js";
import "mathjax-full/js/input/tex/mhchem/MhchemConfiguration.js";
import { mathjax } from "mathjax-full/js/mathjax.js";
import { SVG } from "mathjax-full/js/output/svg.js";
import type { LiteElement } from "mathjax-full/js/adaptors/lite/Element.js";
import type { ContentSvg } from "pdfmake/interfaces";
import { unitsShown } from "../../../ui/tex-units";
import type { Localized } from "../../../words/text";
import { withFaces } from "./svg.server";

const adaptor = liteAdaptor();
RegisterHTMLHandler(adaptor);
// A method that was brought in names its symbols itself: nothing is loaded here that could link or fetch.
const packages = ["base", "ams", "boldsymbol", "mhchem"];
const document = mathjax.document("", {
  InputJax: new TeX({ packages, maxMacros: 200 }),
  OutputJax: new SVG({ fontCache: "none" }),
});

interface Drawn {
  readonly svg: string;
  /** Units of a thousandth of the size of the script. */
  readonly width: number;
  readonly height: number;
}

/** Throws where the TeX cannot be set: a report must not show a formula by halves. */
function drawn(tex: string): Drawn {
  const node = document.convert(tex, { display: false }) as LiteElement;
  const svg = adaptor.innerHTML(node);
  const [, width, height] = /viewBox="[-\d.]+ [-\d.]+ ([\d.]+) ([\d.]+)"/.exec(svg) ?? [];
  if (width === undefined || height === undefined || /data-mjx-error/.test(svg))
    throw new Error(`This formula cannot be set: ${tex}`);
  return { svg, width: Number(width), height: Number(height) };
}

export interface FormulaLook {
  /** Size of the script, in points. */
  readonly size: number;
  readonly color: string;
  /** What it may be at most; a longer one is made smaller. */
  readonly room: number;
}

/** A formula as a picture of paths. The TeX is the one that the screen shows. */
export function formula(tex: string, { size, color, room }: FormulaLook, say: Localized): ContentSvg {
  const { svg, width, height } = drawn(unitsShown(tex, say));
  const scale = Math.min(size / 1000, room / width);
  const [w, h] = [width * scale, height * scale];
  const sized = svg
    .replace(/ width="[^"]*ex"/, ` width="${w.toFixed(2)}"`)
    .replace(/ height="[^"]*ex"/, ` height="${h.toFixed(2)}"`)
    .replace(/currentColor/g, color);
  return { svg: withFaces(sized), width: w, height: h };
}

import "katex/dist/katex.min.css";
import katex from "katex";
import { useSay } from "../words/text";
import { unitsShown } from "./tex-units";

/** A formula set by KaTeX, with MathML for those who listen. The TeX is written by the core from what a method says. */
export function Tex({ tex, display = false }: { tex: string; display?: boolean }) {
  const say = useSay();
  const html = katex.renderToString(unitsShown(tex, say), {
    displayMode: display,
    throwOnError: false,
    // A method that was brought in names its symbols itself: nothing of it may link, load or fill the page.
    trust: false,
    maxSize: 20,
    maxExpand: 200,
    strict: "ignore",
  });
  return <span dangerouslySetInnerHTML={{ __html: html }} />;
}

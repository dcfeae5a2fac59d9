import "katex/dist/katex.min.css";
import katex from "katex";
import { said } from "../words/house";

/** A formula set by KaTeX, with MathML for those who listen. The TeX is written by the core from what a method says. */
export function Tex({ tex, display = false }: { tex: string; display?: boolean }) {
  const html = katex.renderToString(said(tex), {
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

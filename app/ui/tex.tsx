import "katex/dist/katex.min.css";
import katex from "katex";
import { said } from "../words/house";

/** A formula set by KaTeX, with MathML for those who listen. The TeX comes from our own core, never from a person. */
export function Tex({ tex, display = false }: { tex: string; display?: boolean }) {
  const html = katex.renderToString(said(tex), {
    displayMode: display,
    throwOnError: false,
    strict: "ignore",
  });
  return <span dangerouslySetInnerHTML={{ __html: html }} />;
}

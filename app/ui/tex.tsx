import "katex/dist/katex.min.css";
import katex from "katex";
import { unitText } from "~/core/text";
import { useSay } from "../words/text";

/** Units stand behind their numbers as `~\\text{mL}`: they are shown as the lab writes them, and symbols as they are. */
const unitsIn = /(?<=~\\text\{)[^}]*(?=\})/g;

/** A formula set by KaTeX, with MathML for those who listen. The TeX is written by the core from what a method says. */
export function Tex({ tex, display = false }: { tex: string; display?: boolean }) {
  const say = useSay();
  const html = katex.renderToString(
    tex.replace(unitsIn, (unit) => say(unitText(unit))),
    {
      displayMode: display,
      throwOnError: false,
      // A method that was brought in names its symbols itself: nothing of it may link, load or fill the page.
      trust: false,
      maxSize: 20,
      maxExpand: 200,
      strict: "ignore",
    },
  );
  return <span dangerouslySetInnerHTML={{ __html: html }} />;
}

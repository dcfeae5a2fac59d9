import type { RunFile } from "../concluded";
import { linksOf } from "./links";

/** The head of a record's chain, and how many readings it is over. */
export function linksHead(file: RunFile): { readonly head: string; readonly readings: number } {
  const links = linksOf(file);
  return { head: links.at(-1)?.link ?? "", readings: links.filter(({ is }) => is === "reading").length };
}

import { unitText } from "~/core/text";
import type { Localized } from "../words/text";

/** Units stand behind their numbers as `~\\text{mL}`. */
const unitsIn = /(?<=~\\text\{)[^}]*(?=\})/g;

/** A formula with its units as the lab writes them, and symbols as they are. */
export const unitsShown = (tex: string, say: Localized): string =>
  tex.replace(unitsIn, (unit) => say(unitText(unit)));

import type { Way } from "../../curves";
import { msg, type Phrase } from "../../text";

/** The ways to an equivalence point, in a sentence. */
export const wayWords: Readonly<Record<Way, Phrase>> = {
  fit: msg`by the fit of the whole curve`,
  "gran before": msg`by Gran’s line before it`,
  "gran beyond": msg`by Gran’s line beyond it`,
  branches: msg`where the two branches cross`,
  "second derivative": msg`where the second derivative is zero`,
  steepest: msg`at the steepest place`,
};

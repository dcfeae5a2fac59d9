import type { Law } from "../../adsorption";
import { msg, type Phrase } from "../../text";

export const lawWords: Readonly<Record<Law, Phrase>> = {
  freundlich: msg`Freundlich`,
  langmuir: msg`Langmuir`,
};

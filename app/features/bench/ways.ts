import type { MethodChoice } from "~/protocol/answers";

/** What somebody wants to do who does not know the library yet. */
export type Way = "standardize" | "unknown" | "absorbance";

const fits: Record<Way, (method: MethodChoice) => boolean> = {
  standardize: ({ standardizes }) => standardizes,
  unknown: ({ findsUnknown }) => findsUnknown,
  absorbance: ({ family }) => family === "colorimetric",
};

/** The methods that lead there. */
export const methodsFor = (methods: readonly MethodChoice[], way: Way | null): MethodChoice[] =>
  way === null ? [...methods] : methods.filter(fits[way]);

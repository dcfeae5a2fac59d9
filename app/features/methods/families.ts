import { msg } from "~/core/text";
/** The families of methods, in the order in which they are listed. */
export const familyTitles = {
  "acid-base": msg`Acid-base`,
  redox: msg`Redox`,
  complexometric: msg`Complexometric`,
  precipitation: msg`Precipitation`,
  colorimetric: msg`Colorimetric`,
} as const;

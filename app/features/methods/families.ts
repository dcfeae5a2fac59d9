/** The families of methods, in the order in which they are listed. */
export const familyTitles = {
  "acid-base": "Acid-base",
  redox: "Redox",
  complexometric: "Complexometric",
  colorimetric: "Colorimetric",
} as const;

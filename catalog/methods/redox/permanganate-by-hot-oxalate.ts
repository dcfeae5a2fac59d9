import { oxalateMethod } from "./permanganate-by-oxalate";

/** The other school: hot, and titrated at once. */
export const permanganateByHotOxalate = oxalateMethod(
  {
    id: "permanganate-by-hot-oxalate",
    title: "Permanganate by oxalate, above 80 °C",
    variant: { of: "permanganate-by-oxalate", differs: "the flask is above 80 °C and titrated at once" },
  },
  {
    conditions: [
      { what: "hot when the titration starts, still warm when it ends", celsius: [80, 90], strict: true },
    ],
    step: "Heat to 80 to 90 °C, not to the boil, and titrate at once, before it falls below 60 °C.",
  },
);

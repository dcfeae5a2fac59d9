import type { Method } from "~/core/method";
import type { Truth } from "~/core/stages";

/** Results of unknown samples, where the method presumes none. */
const unknowns: Readonly<Record<string, number>> = {
  "acid-by-base/determine": 0.0921,
  "acid-by-cylinder/determine": 0.0921,
  "acid-in-burette/determine": 0.0953,
  "base-by-acid/determine": 0.1047,
  "base-by-phthalate-then-acid/determine": 0.0872,
  "acid-by-carbonate-then-base/determine": 0.1033,
};

/** What is aimed at where the usual amount does not go with the result. */
const amounts: Readonly<Record<string, Truth["amounts"]>> = {
  "dilute-and-check": { "dilute.V_0": 10, "check.c_t": 0.2 },
  "kappa-number": { "determine.w": 2, "determine.t": 24.6 },
  "phosphate-as-molybdenum-blue": { "wavelength.λ": 880 },
  "nitrite-as-azo-dye": { "wavelength.λ": 540 },
  "copper-with-ammonia": { "wavelength.λ": 620 },
  "iron-with-phenanthroline": { "wavelength.λ": 510 },
  "iron-by-standard-addition": { "wavelength.λ": 510 },
  "ethanol-by-dichromate": { "wavelength.λ": 600, "drop.m": 3.9, "drop.N": 80, "unknown.d_u": 20 },
  "fading-of-a-dye": { "wavelength.λ": 590 },
};

/** What a method of the library is simulated from: what it presumes, and what else it needs. */
export function truthOf(method: Method): Truth {
  const results: Record<string, number> = {};
  for (const stage of method.stages) {
    if (stage.kind !== "titration") continue;
    results[stage.key] = stage.presumed ?? unknowns[`${method.id}/${stage.key}`] ?? NaN;
  }
  return { results, amounts: amounts[method.id] ?? {} };
}

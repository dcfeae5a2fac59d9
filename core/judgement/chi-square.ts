/** Error function by its series; for small arguments. */
function erfOf(x: number): number {
  let [term, sum] = [x, x];
  for (let n = 1; Math.abs(term) > 1e-17 * Math.abs(sum) && n < 200; n++) {
    term *= -(x * x) / n;
    sum += term / (2 * n + 1);
  }
  return (2 / Math.sqrt(Math.PI)) * sum;
}

/** 1 - erf, by its continued fraction (Lentz) where the series would lose figures. */
function erfc(x: number): number {
  if (x < 2) return 1 - erfOf(x);
  let fraction = 0;
  for (let n = 60; n >= 1; n--) fraction = n / 2 / (x + fraction);
  return Math.exp(-x * x) / Math.sqrt(Math.PI) / (x + fraction);
}

/**
 * Probability of a χ² above a value by chance: Q(χ², ν), by Q(x, 1) = erfc √(x/2), Q(x, 2) = e^(-x/2) and
 * Q(x, ν + 2) = Q(x, ν) + (x/2)^(ν/2) e^(-x/2) / Γ(ν/2 + 1) (Abramowitz and Stegun, 26.4, from memory). 3.841 with one degree of freedom and
 * 7.815 with three have 0.05.
 */
export function chiSquareTail(chiSquare: number, degreesOfFreedom: number): number {
  if (!(chiSquare > 0)) return 1;
  const half = chiSquare / 2;
  const odd = degreesOfFreedom % 2 === 1;
  let tail = odd ? erfc(Math.sqrt(half)) : Math.exp(-half);
  // Γ(ν/2 + 1) for ν = 1 is √π / 2, for ν = 2 it is 1.
  let term = odd ? (Math.sqrt(half) * Math.exp(-half)) / (Math.sqrt(Math.PI) / 2) : half * Math.exp(-half);
  for (let df = odd ? 1 : 2; df < degreesOfFreedom; df += 2) {
    tail += term;
    term *= half / (df / 2 + 1);
  }
  return Math.min(1, tail);
}

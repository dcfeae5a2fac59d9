/** Arithmetic mean; NaN of nothing. */
export function mean(values: readonly number[]): number {
  return values.reduce((sum, x) => sum + x, 0) / values.length;
}

/** Sample standard deviation (n - 1); zero for fewer than two values, which show no scatter. */
export function standardDeviation(values: readonly number[]): number {
  if (values.length < 2) return 0;
  const m = mean(values);
  return Math.sqrt(values.reduce((sum, x) => sum + (x - m) ** 2, 0) / (values.length - 1));
}

/** An Akaike difference beyond which a model has hardly any support beside a better one (Burnham and Anderson, 2.6; from memory). */
export const hardlyAnySupport = 10;

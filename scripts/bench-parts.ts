/** How figures are printed: what, how much, and the budget it is held against. */
export const median = (values: readonly number[]) =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN;
export const say = (what: string, value: string, budget: string) =>
  console.log(`${what.padEnd(64)} ${value.padStart(10)}   budget ${budget}`);
export const ms = (value: number) => `${value.toFixed(value < 10 ? 2 : 0)} ms`;

/** Times of so many calls, ms. */
export function timesOf(call: () => unknown, calls: number): number[] {
  return Array.from({ length: calls }, () => {
    const began = performance.now();
    call();
    return performance.now() - began;
  });
}

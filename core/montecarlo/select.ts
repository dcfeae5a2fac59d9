/**
 * Puts the k-th smallest value (from 0) at index k, smaller ones before and larger ones behind it: Hoare's selection with
 * the median of three as pivot. Changes the order of `values`; expected time is linear.
 */
export function selectInPlace(values: Float64Array, k: number): number {
  let [low, high] = [0, values.length - 1];
  const at = (i: number) => values[i] ?? NaN;
  while (low < high) {
    const [a, b, c] = [at(low), at((low + high) >> 1), at(high)];
    const pivot = Math.max(Math.min(a, b), Math.min(Math.max(a, b), c));
    let [i, j] = [low, high];
    while (i <= j) {
      while (at(i) < pivot) i++;
      while (at(j) > pivot) j--;
      if (i <= j) {
        const kept = at(i);
        values[i++] = at(j);
        values[j--] = kept;
      }
    }
    if (k <= j) high = j;
    else if (k >= i) low = i;
    else break;
  }
  return at(k);
}

const bins = 4096;

function countInBins(values: Float64Array, low: number, scale: number): Int32Array {
  const counts = new Int32Array(bins);
  for (let i = 0; i < values.length; i++) counts[(((values[i] as number) - low) * scale) | 0]!++;
  return counts;
}

function heldInBin(
  values: Float64Array,
  low: number,
  scale: number,
  bin: number,
  size: number,
): Float64Array {
  const held = new Float64Array(size);
  for (let i = 0, n = 0; i < values.length && n < size; i++) {
    const value = values[i] as number;
    if ((((value - low) * scale) | 0) === bin) held[n++] = value;
  }
  return held;
}

/**
 * The values that would stand at the given indices if all were sorted, found without sorting: the values are counted in
 * equal steps, and only those of the steps that hold an index are put in order. `values` is left as it is. `low` and
 * `high` are the least and the greatest value.
 */
export function orderStatistics(
  values: Float64Array,
  indices: readonly number[],
  low: number,
  high: number,
): number[] {
  if (!(high > low)) return indices.map(() => low);
  const scale = (bins - 1e-6) / (high - low);
  const counts = countInBins(values, low, scale);
  return indices.map((index) => {
    let before = 0;
    let bin = 0;
    while (bin < bins - 1 && before + (counts[bin] as number) <= index) before += counts[bin++] as number;
    const held = heldInBin(values, low, scale, bin, counts[bin] as number);
    return selectInPlace(held, index - before);
  });
}

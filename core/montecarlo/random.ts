/** A stream of random numbers that is the same for the same seed, on every machine. */
export interface RandomStream {
  /** A whole number from 0 to 2³² - 1. */
  readonly next: () => number;
  /** Between 0 and 1, neither reached. */
  readonly uniform: () => number;
  /** Standard normal. */
  readonly normal: () => number;
  /** Standard normal draws into `out`, many at a time. */
  readonly fillNormal: (out: Float64Array) => void;
  /** Draws between -1 and 1 into `out`. */
  readonly fillRectangular: (out: Float64Array) => void;
}

// Written once: a power inside the loops would be computed at each draw.
const [per31, per32] = [2 ** -31, 2 ** -32] as const;
const half24 = 2 ** 23;
const layers = 256;
/** The outermost edge of the ziggurat and the area of each of its layers, from memory; the tests hold the tails. */
const [edge, area] = [3.6541528853610088, 0.00492867323399];
const density = (x: number) => Math.exp(-0.5 * x * x);

/** The layers: how wide each is, per step of 24 bits; up to which step no more need be asked; and the density at its edge. */
const ziggurat = (() => {
  const x = new Float64Array(layers + 1);
  x[0] = area / density(edge);
  x[1] = edge;
  for (let i = 2; i < layers; i++) {
    const below = x[i - 1] as number;
    x[i] = Math.sqrt(-2 * Math.log(area / below + density(below)));
  }
  const width = Float64Array.from({ length: layers }, (_, i) => (x[i] as number) / half24);
  const sure = Int32Array.from({ length: layers }, (_, i) =>
    Math.floor((half24 * (x[i + 1] as number)) / (x[i] as number)),
  );
  return { width, sure, height: x.map(density) };
})();
const { width, sure, height } = ziggurat;

/*
 * All that draws is a function of the module over the four words of a stream's state, and no closure: the engine compiles
 * it once for all streams.
 */

function nextInt(state: Int32Array): number {
  const a = state[0] as number;
  const b = state[1] as number;
  const c = (state[2] as number) ^ a;
  const d = (state[3] as number) ^ b;
  const sum = (a + (state[3] as number)) | 0;
  state[0] = a ^ d;
  state[1] = b ^ c;
  state[2] = c ^ (b << 9);
  state[3] = (d << 11) | (d >>> 21);
  return (((sum << 7) | (sum >>> 25)) + a) | 0;
}

const uniformOf = (state: Int32Array) => ((nextInt(state) >>> 0) + 0.5) * per32;

/** Beyond the last edge (Marsaglia 1964). */
function tail(state: Int32Array): number {
  for (;;) {
    const far = -Math.log(uniformOf(state)) / edge;
    if (-2 * Math.log(uniformOf(state)) > far * far) return edge + far;
  }
}

/** The rare draws that a layer's rectangle does not decide; NaN where another must be made. */
function wedge(value: number, layer: number, state: Int32Array): number {
  if (layer === 0) return value < 0 ? -tail(state) : tail(state);
  const outer = height[layer] as number;
  const inner = height[layer + 1] as number;
  return outer + uniformOf(state) * (inner - outer) < density(value) ? value : NaN;
}

function normalOf(state: Int32Array): number {
  for (;;) {
    const h = nextInt(state);
    const layer = h & 255;
    const at = h >> 8;
    const value = (at + 0.5) * (width[layer] as number);
    if (Math.abs(at) < (sure[layer] as number)) return value;
    const decided = wedge(value, layer, state);
    if (!Number.isNaN(decided)) return decided;
  }
}

/** Many normal draws, with the state in local variables: this is where the time of a simulation goes. */
function fillNormal(state: Int32Array, out: Float64Array): void {
  let a = state[0] as number;
  let b = state[1] as number;
  let c = state[2] as number;
  let d = state[3] as number;
  for (let i = 0; i < out.length;) {
    const sum = (a + d) | 0;
    const h = (((sum << 7) | (sum >>> 25)) + a) | 0;
    const t = b << 9;
    c ^= a;
    d ^= b;
    b ^= c;
    a ^= d;
    c ^= t;
    d = (d << 11) | (d >>> 21);
    const layer = h & 255;
    const at = h >> 8;
    const value = (at + 0.5) * (width[layer] as number);
    if (Math.abs(at) < (sure[layer] as number)) {
      out[i++] = value;
      continue;
    }
    state[0] = a;
    state[1] = b;
    state[2] = c;
    state[3] = d;
    const decided = wedge(value, layer, state);
    a = state[0];
    b = state[1];
    c = state[2];
    d = state[3];
    if (!Number.isNaN(decided)) out[i++] = decided;
  }
  state[0] = a;
  state[1] = b;
  state[2] = c;
  state[3] = d;
}

function fillRectangular(state: Int32Array, out: Float64Array): void {
  for (let i = 0; i < out.length; i++) out[i] = (nextInt(state) + 0.5) * per31;
}

/**
 * The generator xoshiro128++ (D. Blackman, S. Vigna, ACM Trans. Math. Softw. 47 (2021) 36), its state filled from a seed by a
 * mixing of 32 bits; normal draws by the ziggurat (G. Marsaglia, W. W. Tsang, J. Stat. Softw. 5 (2000) 8), eight bits of a
 * number for the layer and the other twenty-four for the value. All from memory; the tests hold moments, tails and
 * independence.
 */
export function randomStream(seed: number): RandomStream {
  let mixing = seed >>> 0;
  const mixed = () => {
    mixing = (mixing + 0x9e3779b9) >>> 0;
    let z = mixing;
    z = Math.imul(z ^ (z >>> 16), 0x85ebca6b);
    z = Math.imul(z ^ (z >>> 13), 0xc2b2ae35);
    return (z ^ (z >>> 16)) | 0;
  };
  const state = Int32Array.of(mixed(), mixed(), mixed(), mixed() | 1);
  return {
    next: () => nextInt(state) >>> 0,
    uniform: () => uniformOf(state),
    normal: () => normalOf(state),
    fillNormal: (out) => fillNormal(state, out),
    fillRectangular: (out) => fillRectangular(state, out),
  };
}

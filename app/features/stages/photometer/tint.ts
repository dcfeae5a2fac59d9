const dilute = 0.12;

/** Mixes a color with that of water: weak standards are pale. */
export function tintOf(color: string, part: number): string {
  const strength = dilute + (1 - dilute) * Math.max(0, Math.min(1, part));
  const mix = (i: number) => {
    const channel = parseInt(color.slice(1 + 2 * i, 3 + 2 * i), 16);
    return Math.round(240 + (channel - 240) * strength);
  };
  return `rgb(${mix(0)}, ${mix(1)}, ${mix(2)})`;
}

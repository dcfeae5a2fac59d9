/** The parts of the visible band: what light they are, and what the eye sees of a solution that absorbs them. */
export interface VisiblePart {
  readonly from: number;
  readonly to: number;
  readonly light: string;
  readonly seen: string;
}

/** Common practice, no source: the borders are a matter of taste to some 10 nm. */
export const visibleParts: readonly VisiblePart[] = [
  { from: 380, to: 435, light: "violet", seen: "yellow-green" },
  { from: 435, to: 480, light: "blue", seen: "yellow" },
  { from: 480, to: 490, light: "green-blue", seen: "orange" },
  { from: 490, to: 500, light: "blue-green", seen: "red" },
  { from: 500, to: 560, light: "green", seen: "purple-red" },
  { from: 560, to: 580, light: "yellow-green", seen: "violet" },
  { from: 580, to: 595, light: "yellow", seen: "blue" },
  { from: 595, to: 650, light: "orange", seen: "green-blue" },
  { from: 650, to: 780, light: "red", seen: "blue-green" },
];

/** The part of the visible band that a wavelength lies in; null for what no eye sees. */
export const visiblePart = (nm: number): VisiblePart | null =>
  visibleParts.find(({ from, to }) => nm >= from && nm < to) ?? null;

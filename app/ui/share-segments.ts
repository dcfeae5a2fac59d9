import type { Share } from "~/core/judgement";
import type { Localized } from "../words/text";

/** Fills of the segments, the largest contribution first: neighbors differ in lightness, so that they part without color. */
export const fills = ["#0f5a5e", "#8fbab4", "#3f7f80", "#c4dad5", "#5f6b68"] as const;

/** More segments than this are told together. */
const most = 5;

export interface Segment {
  readonly id: string;
  readonly label: string;
  readonly part: number;
}

/** The causes of a ±, the small ones together. */
export function segmentsOf(shares: readonly Share[], say: Localized): readonly Segment[] {
  const named = shares.map(({ id, label, part }) => ({ id, label: say(label), part }));
  if (named.length <= most) return named;
  const rest = named.slice(most - 1);
  const part = rest.reduce((sum, one) => sum + one.part, 0);
  return [...named.slice(0, most - 1), { id: "rest", label: say`${rest.length} others`, part }];
}

/** A part of the whole, as it is written. */
export const percent = (part: number) => (part < 0.005 ? "< 1 %" : `${Math.round(part * 100)} %`);

import type { ComputedStage } from "~/core/method";
import type { Field } from "~/core/inputs";

/** A vessel on the pan of a simulated balance, g. */
const vesselG = 10;

/** A number from -0.5 to 0.5 that belongs to a text: flasks differ, and one flask stays as it is. */
const scatter = (text: string) => [...text].reduce((h, c) => (h * 31 + c.charCodeAt(0)) % 997, 7) / 997 - 0.5;

/** About what a simulated pan carries at this weighing of a flask: the vessel, and what the method weighs, g. */
export function plausibleLoadG(stage: ComputedStage, { symbol, kind }: Field, flask: string): number {
  const input = stage.inputs.find((i) => i.symbol === symbol);
  const mass = input?.is === "mass" ? input : undefined;
  const [low, high] = mass?.expect ?? [0.5, 0.6];
  const sample = (low + high) / 2 + 0.4 * scatter(flask) * (high - low);
  if (kind === "mass.tared") return sample;
  const full = (kind === "mass.after") === (mass?.weighing === "addition");
  return full ? vesselG + sample : vesselG;
}

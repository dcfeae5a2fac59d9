import { buretteTexts } from "./burette";
import { byMass, massOf } from "./by-mass";
import { usualGraduatedMl } from "./graduated";
import type { SimulatedHand, Texts } from "./kind";
import { decimalsOfMass, type MassInput, middle } from "./mass";
import type { Input, InputOf } from "./schema";
import { usualC } from "./temperature";

/* What is typed at a simulated bench: a table of its own, since only simulations need it. */

type Simulate<I> = (input: I, hand: SimulatedHand) => Texts;

/** A vessel and what is in it, as a balance shows them. */
const weighed: Simulate<MassInput> = (input, { rules, aim, between, varied }) => {
  const decimals = decimalsOfMass(input, rules);
  const massG = varied(aim ?? middle(input) ?? 1);
  if (input.weighing === "tared") return { "mass.tared": massG.toFixed(decimals) };
  const vessel = between(8, 12);
  const [light, heavy] = [vessel.toFixed(decimals), (vessel + massG).toFixed(decimals)];
  return input.weighing === "addition"
    ? { "mass.before": light, "mass.after": heavy }
    : { "mass.before": heavy, "mass.after": light };
};

const kinds: { readonly [K in Input["is"]]?: Simulate<InputOf<K>> } = {
  mass: weighed,
  "by-mass": (input, hand) =>
    weighed(massOf(input), { ...hand, aim: hand.aim ?? byMass.usual?.(input) ?? 25 }),
  count: (_input, { aim }) => ({ count: Math.max(1, Math.round(aim ?? 1)).toFixed(0) }),
  delivered: (_input, hand) => buretteTexts(() => hand.varied(hand.aim ?? 20), hand),
  drops: (_input, { aim }) => ({ drops: Math.round(aim ?? 20).toFixed(0) }),
  flask: ({ presumed }, { aim }) => ({ "volume.taken": aim === undefined ? presumed : aim.toFixed(2) }),
  given: ({ usual }, { aim }) => {
    const value = aim === undefined ? usual : String(aim);
    return value === undefined ? {} : { given: value };
  },
  graduated: (input, { aim }) => ({ "volume.taken": (aim ?? usualGraduatedMl(input)).toFixed(1) }),
  pH: (_input, { aim }) => ({ pH: (aim ?? 4.8).toFixed(2) }),
  pipette: ({ presumed }, { aim }) => ({ "volume.taken": aim === undefined ? presumed : aim.toFixed(2) }),
  temperature: (_input, { aim }) => ({ temperature: (aim ?? usualC).toFixed(1) }),
};

/** What is typed at a simulated bench; nothing for what is not read. */
export const textsOf = (input: Input, hand: SimulatedHand): Texts =>
  (kinds[input.is] as Simulate<Input> | undefined)?.(input, hand) ?? {};

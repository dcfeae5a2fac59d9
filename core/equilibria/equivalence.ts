import type { Mixture } from "./solution";

const ionsOf = ({ ions }: Mixture): number =>
  ions.reduce((sum, { charge, concentration }) => sum + charge * concentration, 0);

/**
 * Strong base that takes all protons that a mixture has to give, mol/L: none is left on any acid then, and the charges add up to nothing.
 */
export const baseTaken = (mixture: Mixture): number =>
  mixture.acids.reduce(
    (sum, { acid, concentration }) => sum + concentration * (acid.steps.length - acid.charge),
    -ionsOf(mixture),
  );

/** Strong acid that gives a mixture all protons that it can take, mol/L. */
export const acidTaken = (mixture: Mixture): number =>
  mixture.acids.reduce((sum, { acid, concentration }) => sum + concentration * acid.charge, ionsOf(mixture));

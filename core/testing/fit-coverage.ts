import { fitIsotherm, type Law } from "../adsorption";
import { fitAcid, type Fitted } from "../curves";
import { type Mixture, room, titrationCurve } from "../equilibria";
import { randomStream } from "../montecarlo";
import { bottlesOf, series } from "./adsorption-series";

/* How often the ± of fitted parameters hold what is true, over seeded cases. */

const setting = { ...room, pKw: 14 };
const base: Mixture = { acids: [], ions: [{ charge: 1, concentration: 0.1 }] };

/** A diprotic acid of 0.02 mol/L, 50 mL of it, by a base of 0.1 mol/L. */
const trueAcid = { concentration: 0.02, pKas: [3.2, 5.4] };

/** pH after each addition, mL. */
function pHAt(volumes: readonly number[]): number[] {
  const { concentration, pKas } = trueAcid;
  const acid = { charge: 0, steps: pKas.map((pKa) => ({ pKa })) };
  const flask: Mixture = { acids: [{ acid, concentration }], ions: [] };
  return titrationCurve({ flask, flaskMl: 50, titrant: base }, volumes, setting).map(({ pH }) => pH);
}

const volumes = Array.from({ length: 60 }, (_, i) => i / 2);
const within = ({ value, u }: Fitted, truth: number) => Math.abs(value - truth) < 1.96 * u;

/**
 * Curves of a diprotic acid, 60 points each, under the noise of a meter (0.01 pH) and of a burette (0.01 mL): in what part of them the concentration
 * and both constants lie within their ±.
 */
export function acidFitCoverage(
  cases: number,
  seed = 77,
): readonly [concentration: number, first: number, second: number] {
  const random = randomStream(seed);
  const inside: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < cases; i++) {
    // The burette delivers what it does; the meter reads that; what is typed is the reading of the burette.
    const delivered = volumes.map((v) => Math.max(0, v + 0.01 * random.normal()));
    const shown = pHAt(delivered);
    const points = volumes.map((volume, j) => ({ volume, value: shown[j]! + 0.01 * random.normal() }));
    const fit = fitAcid(
      points,
      { flaskMl: 50, base: 0.1, setting, uPH: 0.01, uMl: 0.01 },
      { concentration: 0.021, pKas: [3, 5.6] },
    );
    if (!fit) continue;
    const [first, second] = fit.pKas;
    if (within(fit.concentration, trueAcid.concentration)) inside[0]++;
    if (first && within(first, trueAcid.pKas[0]!)) inside[1]++;
    if (second && within(second, trueAcid.pKas[1]!)) inside[2]++;
  }
  return inside.map((count) => count / cases) as unknown as [number, number, number];
}

/** Series of five bottles under the errors of titers, start acid and masses: in what part of them each parameter lies within its ±. */
export function isothermCoverage(law: Law, cases: number, seed = 41) {
  const random = randomStream(seed);
  const truth = series(law).logarithms.map(Math.exp);
  const inside = [0, 0];
  let [rejected, sum] = [0, 0];
  for (let i = 0; i < cases; i++) {
    const fit = fitIsotherm(
      bottlesOf(series(law), () => random.normal()),
      law,
    );
    if (!fit) continue;
    fit.parameters.forEach((parameter, j) => {
      if (within(parameter, truth[j]!)) inside[j]!++;
    });
    if (fit.probability < 0.05) rejected++;
    sum += fit.chiSquare;
  }
  return {
    inside: inside.map((count) => count / cases),
    rejected: rejected / cases,
    meanChiSquare: sum / cases,
  };
}

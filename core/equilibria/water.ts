/* Water as a solvent: its own dissociation, and what it does to the activity of ions. */

const kelvin = (celsius: number): number => celsius + 273.15;

/**
 * -log10 of the ion product of water at zero ionic strength, mol²/L², from 0 to 60 °C: 4470.99 / T - 6.0875 + 0.01706 T (Harned and Owen,
 * from memory); 13.995 at 25 °C.
 */
export const pKwAt = (celsius: number): number =>
  4470.99 / kelvin(celsius) - 6.0875 + 0.01706 * kelvin(celsius);

/** Relative permittivity of water, 0 to 100 °C (Malmberg and Maryott 1956, from memory). */
const permittivity = (celsius: number): number =>
  87.74 - 0.40008 * celsius + 9.398e-4 * celsius ** 2 - 1.41e-6 * celsius ** 3;

/** A of the law of Debye and Hückel, (L/mol)^½: 1.8246e6 / (ε T)^(3/2); 0.509 at 25 °C. */
export const debyeHueckelA = (celsius: number): number =>
  1.8246e6 / (permittivity(celsius) * kelvin(celsius)) ** 1.5;

/** Beyond this ionic strength, mol/L, the equation of Davies is no longer trusted. Common practice, no source. */
export const mostIonicStrength = 0.5;

/**
 * log10 of the activity coefficient of an ion with a charge of one, by the equation of Davies (1962): -A (√I / (1 + √I) - 0.3 I). That of
 * an ion with the charge z is z² times as much; that of an uncharged species is zero.
 *
 * @param ionicStrength mol/L.
 */
export function logGammaOfOne(ionicStrength: number, celsius: number): number {
  const root = Math.sqrt(ionicStrength);
  return -debyeHueckelA(celsius) * (root / (1 + root) - 0.3 * ionicStrength);
}

/** Nernst's slope for one electron, V: R T ln 10 / F; 0.05916 at 25 °C. */
export const nernstSlope = (celsius: number): number =>
  (8.31446261815324 * kelvin(celsius) * Math.LN10) / 96485.33212;

/** How a constant changes from 25 °C with its enthalpy: what is added to pK, by van 't Hoff's equation. */
export const pKShift = (enthalpyKJ: number, celsius: number): number =>
  ((enthalpyKJ * 1000) / (8.31446261815324 * Math.LN10)) * (1 / kelvin(celsius) - 1 / kelvin(25));

/** Absorbance of a transmittance in percent: A = 2 - log₁₀ T. T must be above zero. */
export const absorbanceOf = (transmittancePercent: number): number => 2 - Math.log10(transmittancePercent);

/** Transmittance in percent of an absorbance. */
export const transmittanceOf = (absorbance: number): number => 100 * 10 ** -absorbance;

/**
 * What an instrument shows of a true absorbance where a part of the light is stray: A' = -log₁₀((10⁻ᴬ + s)/(1 + s)).
 * It can never show more than -log₁₀(s/(1 + s)), so that the line bends.
 */
export const withStrayLight = (absorbance: number, part: number): number =>
  -Math.log10((10 ** -absorbance + part) / (1 + part));

/** Above this, stray light bends the line in ordinary instruments. Common practice, no source. */
export const strayLightFrom = 1.5;

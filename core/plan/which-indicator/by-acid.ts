import { poured, room, type Setting, solvePH, type Titrated } from "../../equilibria";
import { msg } from "../../text";
import type { AcidIndicator, Known } from "./known";
import type { PlannedTitration } from "./planned-titration";
import type { EndTheory } from "./theory";

/** An acid or a base that is titrated, whoever says so. */
export interface AcidTitration extends Pick<EndTheory, "titrant" | "analyte" | "equivalenceMl" | "endMl"> {
  readonly titrated: Titrated;
  readonly setting: Setting;
}

/** The pH along a titration, and the indicators of acids and bases on it. */
export function acidEnd(
  { titrated, setting, ...rest }: AcidTitration,
  indicators: readonly AcidIndicator[],
): EndTheory {
  const { flask, flaskMl, titrant } = titrated;
  const at = (ml: number) => solvePH(poured(flask, flaskMl, titrant, ml), setting).pH;
  const carbonated = flask.acids.some(({ acid }) => acid.steps.length === 2 && acid.steps[0]?.pKa === 6.35);
  const theory =
    setting.activity === "none"
      ? msg`By theory at ${setting.celsius} °C, without activity coefficients`
      : msg`By theory at ${setting.celsius} °C, with activity coefficients by Davies`;
  return {
    ...rest,
    flaskMl,
    scale: { is: "pH" },
    at,
    changing: indicators.map((indicator) => {
      const { from, to } = indicator;
      const [middle, half] = [(from + to) / 2, (to - from) / 2];
      return { indicator, change: (ml) => (at(ml) - middle) / half, range: [from, to] };
    }),
    assumed: carbonated
      ? msg`${theory}. Carbon dioxide is taken to stay in the flask; where it is boiled off, the jump is larger`
      : theory,
  };
}

/** A planned titration of an acid or a base; null where the constants are not known. */
export function byAcid(planned: PlannedTitration, { dissolved, indicators }: Known): EndTheory | null {
  const { analyte, titrant, molPerL, flaskMolPerL, flaskMl, equivalenceMl } = planned;
  const [flask, added] = [dissolved(analyte, flaskMolPerL), dissolved(titrant, molPerL)];
  if (!flask || !added) return null;
  const titrated = { flask, flaskMl, titrant: added };
  return acidEnd(
    { titrated, titrant, analyte, equivalenceMl, setting: room, endMl: 1.5 * equivalenceMl },
    indicators.acid,
  );
}

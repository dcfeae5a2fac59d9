import { type CurveInput, meterOf } from "~/core/inputs";
import {
  decimalsIn,
  pointsOf,
  presentObservation,
  type TraceRecord,
  type TrialRecord,
  trialName,
  written,
} from "~/core/record";
import { methodOf, type RunRecord } from "~/core/run";
import { inEnglish } from "~/core/text";

/** Points in a row as a run holds them: a spectrum, a course in time, or a titration curve; numbers as they came. */
export interface PointLine {
  readonly is: "spectrum" | "course" | "curve";
  readonly name: string;
  readonly x: Axis;
  readonly y: Axis;
  /** When the first of it was written down, and by whom. */
  readonly at: string;
  readonly person: string;
}

export interface Axis {
  readonly name: string;
  /** Empty for a number without a unit. */
  readonly unit: string;
  readonly texts: readonly string[];
}

/** A spectrum or a course. */
export function lineOfTrace({ name, xUnit, x, absorbance, decimals, at, person }: TraceRecord): PointLine {
  const nm = xUnit === "nm";
  return {
    ...{ is: nm ? "spectrum" : "course", name, at, person },
    x: { name: nm ? "wavelength" : "time", unit: xUnit, texts: written(x, decimals?.x) },
    y: { name: "absorbance", unit: "", texts: written(absorbance, decimals?.absorbance) },
  };
}

/** A titration curve by the volume that was added; null where two points of it do not stand. Points that were struck out are none. */
export function lineOfCurve(input: CurveInput, trial: TrialRecord): PointLine | null {
  const { label, unit } = meterOf(input);
  const start = presentObservation(trial.observations, input.symbol, "burette.initial");
  const points = pointsOf(trial.observations, input.symbol).filter(({ struck }) => !struck);
  const [first] = trial.observations;
  if (!start || !first || points.length < 2) return null;
  const added = points.map(({ place: { burette } }) =>
    (Number(burette) - Number(start.text)).toFixed(Math.max(decimalsIn(burette), decimalsIn(start.text))),
  );
  return {
    ...{ is: "curve", name: `curve ${inEnglish(trialName(trial))}`, at: first.at, person: first.person },
    x: { name: "volume added", unit: "mL", texts: added },
    y: { name: inEnglish(label), unit, texts: points.map(({ text }) => text) },
  };
}

function curvesOf(record: RunRecord): PointLine[] {
  const method = methodOf(record);
  return record.stages.flatMap(({ key, trials }) => {
    const input = method.stages.find((stage) => stage.key === key)?.inputs.find(({ is }) => is === "curve");
    if (input?.is !== "curve") return [];
    return trials.flatMap((trial) => (trial.struck ? [] : (lineOfCurve(input, trial) ?? [])));
  });
}

/** All spectra, courses and curves of a run that are in use. */
export const linesOf = (record: RunRecord): PointLine[] => [
  ...record.stages
    .flatMap(({ traces = [] }) => traces)
    .filter(({ removed }) => removed === null)
    .map(lineOfTrace),
  ...curvesOf(record),
];

import {
  membersOf,
  type CalibrationEvaluation,
  type ComputedEvaluation,
  type CurveStageEvaluation,
  type IsothermEvaluation,
  type RateEvaluation,
  type TitrationEvaluation,
  type UnknownEvaluation,
} from "~/core/stages";
import { decimalsFor, inUnit, standardUncertainty, unitOf, printedUnit } from "~/core/quantity";
import { msg, unitText } from "~/core/text";
import type { RailBead } from "../../../ui/bead-rail";
import type { ChartOption } from "../../../ui/chart/echarts";
import type { Localized } from "../../../words/text";
import { curveOption } from "../curve/curve-option";
import { curveInputOf } from "../curve/use-curve-entry";
import { isothermOption } from "../isotherm/isotherm-option";
import { lineOption } from "../photometer/line-option";
import { courseOption } from "../rate/rate-option";
import { agreementRail, beadRole, type CaptionedRailProps } from "../shared/beads";

/** Points with what was fitted to them. */
export interface ChartPicture {
  readonly kind: "chart";
  readonly option: ChartOption;
  /** What it shows, in a sentence. */
  readonly label: string;
  readonly height: number;
  /** What is drawn, in a word: the end of the name of a file. */
  readonly what: "line" | "curve" | "course" | "isotherm";
  readonly many: boolean;
}

/** Trials as beads on a number line. */
export interface RailPicture extends CaptionedRailProps {
  readonly kind: "rail";
}

export type Picture = ChartPicture | RailPicture;

const height = 280;

function railPicture(stage: TitrationEvaluation, say: Localized): RailPicture | null {
  const rail = agreementRail(stage, say);
  return rail && { kind: "rail", ...rail };
}

function linePicture(stage: CalibrationEvaluation, say: Localized): ChartPicture | null {
  if (!stage.line) return null;
  const label = say`${stage.line.points.length} readings and the line through them`;
  const option = lineOption(stage, null, say);
  return { kind: "chart", what: "line", option, label, height: 420, many: false };
}

/** Flasks on a rail, by their results. */
function unknownPicture(stage: UnknownEvaluation, say: Localized): RailPicture | null {
  const { unit, name } = stage.definition.result;
  const quantities = stage.trials.flatMap((t) => (t.result && !t.missing ? [{ t, q: t.result }] : []));
  if (quantities.length < 2) return null;
  const largest = Math.max(0, ...quantities.map(({ q }) => standardUncertainty(q) / unitOf(unit).factor));
  const decimals = largest > 0 ? decimalsFor(largest, 2) : 3;
  const members = membersOf(stage).map(({ id }) => id);
  const beads = quantities.map(({ t, q }): RailBead => ({
    id: t.id,
    name: say(t.name),
    value: inUnit(q, unit),
    role: beadRole(t, members),
  }));
  const label = say(msg`${name}, ${unitText(printedUnit(unit))}`);
  return { kind: "rail", beads, collars: [], label, decimals, caption: null };
}

function curvePicture(stage: CurveStageEvaluation, say: Localized): ChartPicture | null {
  const members = membersOf(stage).map(({ id }) => id);
  const curve =
    stage.trials.find(({ id }) => members.includes(id)) ??
    stage.trials.findLast(({ points }) => points.length > 1);
  if (!curve) return null;
  const shown = { readings: false, beneath: "derivative", band: null, theory: null } as const;
  const option = curveOption(stage, curve, shown, say);
  const label = say`Curve of ${curveInputOf(stage).label}, ${curve.points.length} points`;
  return { kind: "chart", what: "curve", option, label, height: 400, many: false };
}

function coursePicture(stage: RateEvaluation, say: Localized): ChartPicture | null {
  const course = stage.trials.find((t) => t.trace && !t.record.struck);
  const option = course && courseOption(course, stage.order, say);
  if (!course || !option) return null;
  const count = course.trace?.x.length ?? 0;
  const label = say`Absorbance in time, ${count} readings, with the fitted law`;
  return { kind: "chart", what: "course", option, label, height, many: count > 1000 };
}

function isothermPicture(stage: IsothermEvaluation, say: Localized): ChartPicture | null {
  if (stage.bottles.filter(({ leftOut }) => leftOut === null).length < 2) return null;
  const label = say`Taken up by a gram against the concentration at equilibrium, ${stage.bottles.length} bottles`;
  const option = isothermOption(stage, "uptake", say);
  return { kind: "chart", what: "isotherm", option, label, height, many: false };
}

type Kind = ComputedEvaluation["kind"];
type Pictures = {
  readonly [K in Kind]: (stage: Extract<ComputedEvaluation, { kind: K }>, say: Localized) => Picture | null;
};

/** The picture of each kind of stage: its trials on their rail, or its points with what was fitted to them. */
const pictures: Pictures = {
  titration: railPicture,
  preparation: () => null,
  calibration: linePicture,
  unknown: unknownPicture,
  curve: curvePicture,
  isotherm: isothermPicture,
  rate: coursePicture,
};

/** What a stage found, as a picture; null where it has none. */
export function pictureOf(stage: ComputedEvaluation, say: Localized): Picture | null {
  const draw = pictures[stage.kind] as (stage: ComputedEvaluation, say: Localized) => Picture | null;
  return draw(stage, say);
}

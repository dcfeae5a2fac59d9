import Box from "@mui/material/Box";
import type { ComponentType } from "react";
import { useMemo } from "react";
import {
  membersOf,
  type CalibrationEvaluation,
  type ComputedEvaluation,
  type CurveStageEvaluation,
  type IsothermEvaluation,
  type RateEvaluation,
  type UnknownEvaluation,
} from "~/core/stages";
import { decimalsFor, inUnit, standardUncertainty, unitOf, printedUnit } from "~/core/quantity";
import { msg, unitText } from "~/core/text";
import { BeadRail, type RailBead } from "../../../ui/bead-rail";
import { Chart } from "../../../ui/chart/chart";
import { useSay } from "../../../words/text";
import { curveOption } from "../curve/curve-option";
import { curveInputOf } from "../curve/use-curve-entry";
import { isothermOption } from "../isotherm/isotherm-option";
import { lineOption } from "../photometer/line-option";
import { courseOption } from "../rate/rate-option";
import { AgreementRail, beadRole } from "../shared/agreement-rail";

/** What a stage found, as a picture to look back at. */
interface PictureProps<E extends ComputedEvaluation> {
  readonly stage: E;
  /** Name of the file that it is saved as. */
  readonly title: string;
}

const height = 280;

function LinePicture({ stage, title }: PictureProps<CalibrationEvaluation>) {
  const say = useSay();
  const option = useMemo(() => lineOption(stage, null, say), [stage, say]);
  if (!stage.line) return null;
  const label = say`${stage.line.points.length} readings and the line through them`;
  return <Chart label={label} option={option} height={420} fileName={`${title} line`} />;
}

/** Flasks on a rail, by their results. */
function UnknownPicture({ stage }: PictureProps<UnknownEvaluation>) {
  const say = useSay();
  const { unit, name } = stage.definition.result;
  const quantities = stage.trials.flatMap((t) => (t.result && !t.missing ? [{ t, q: t.result }] : []));
  const largest = Math.max(0, ...quantities.map(({ q }) => standardUncertainty(q) / unitOf(unit).factor));
  const decimals = largest > 0 ? decimalsFor(largest, 2) : 3;
  const beads = quantities.map(({ t, q }): RailBead => ({
    id: t.id,
    name: say(t.name),
    value: inUnit(q, unit),
    role: beadRole(
      t,
      membersOf(stage).map(({ id }) => id),
    ),
  }));
  if (beads.length < 2) return null;
  const label = say(msg`${name}, ${unitText(printedUnit(unit))}`);
  return (
    <Box sx={{ maxWidth: 460 }}>
      <BeadRail beads={beads} collars={[]} label={label} decimals={decimals} />
    </Box>
  );
}

function CurvePicture({ stage, title }: PictureProps<CurveStageEvaluation>) {
  const say = useSay();
  const members = membersOf(stage).map(({ id }) => id);
  const curve =
    stage.trials.find(({ id }) => members.includes(id)) ??
    stage.trials.findLast(({ points }) => points.length > 1);
  const option = useMemo(
    () =>
      curve &&
      curveOption(stage, curve, { readings: false, beneath: "derivative", band: null, theory: null }, say),
    [stage, curve, say],
  );
  if (!curve || !option) return null;
  const label = say`Curve of ${curveInputOf(stage).label}, ${curve.points.length} points`;
  return <Chart label={label} option={option} height={400} fileName={`${title} curve`} />;
}

function CoursePicture({ stage, title }: PictureProps<RateEvaluation>) {
  const say = useSay();
  const course = stage.trials.find((t) => t.trace && !t.record.struck);
  const option = useMemo(() => course && courseOption(course, stage.order, say), [course, stage.order, say]);
  if (!course || !option) return null;
  const count = course.trace?.x.length ?? 0;
  const label = say`Absorbance in time, ${count} readings, with the fitted law`;
  return (
    <Chart label={label} option={option} height={height} fileName={`${title} course`} many={count > 1000} />
  );
}

function IsothermPicture({ stage, title }: PictureProps<IsothermEvaluation>) {
  const say = useSay();
  const option = useMemo(() => isothermOption(stage, "uptake", say), [stage, say]);
  if (stage.bottles.filter(({ leftOut }) => leftOut === null).length < 2) return null;
  const label = say`Taken up by a gram against the concentration at equilibrium, ${stage.bottles.length} bottles`;
  return <Chart label={label} option={option} height={height} fileName={`${title} isotherm`} />;
}

type Kind = ComputedEvaluation["kind"];
type Pictures = {
  readonly [K in Kind]: ComponentType<PictureProps<Extract<ComputedEvaluation, { kind: K }>>>;
};

/** The picture of each kind of stage: its trials on their rail, or its points with what was fitted to them. */
const pictures: Pictures = {
  titration: AgreementRail,
  preparation: () => null,
  calibration: LinePicture,
  unknown: UnknownPicture,
  curve: CurvePicture,
  isotherm: IsothermPicture,
  rate: CoursePicture,
};

/** What a stage found, as a picture; nothing where it has none. */
export function StagePicture(props: PictureProps<ComputedEvaluation>) {
  const Picture = pictures[props.stage.kind] as ComponentType<PictureProps<ComputedEvaluation>>;
  return <Picture {...props} />;
}

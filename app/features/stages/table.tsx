import { lazy } from "react";
import type { ComputedEvaluation } from "~/core/stages";
import { PreparationStageView } from "./preparation/preparation-stage";
import { RateFacts } from "./rate/rate-facts";
import type { StageScreens, StageViewProps } from "./screens";
import { Footing } from "./shared/footing";
import { TitrationStageView } from "./titration/titration-stage";

type Kind = ComputedEvaluation["kind"];
type Screens = { readonly [K in Kind]: StageScreens<Extract<ComputedEvaluation, { kind: K }>> };

// A titration never needs the photometer's screens: they come when a run has such a stage.
const calibration = lazy(() =>
  import("./calibration/calibration-stage").then((m) => ({ default: m.CalibrationStageView })),
);
const unknown = lazy(() => import("./unknown/unknown-stage").then((m) => ({ default: m.UnknownStageView })));
const curve = lazy(() => import("./curve/curve-stage").then((m) => ({ default: m.CurveStageView })));
const isotherm = lazy(() =>
  import("./isotherm/isotherm-stage").then((m) => ({ default: m.IsothermStageView })),
);
const rate = lazy(() => import("./rate/rate-stage").then((m) => ({ default: m.RateStageView })));

/** The screens of all kinds of stages. */
const screens: Screens = {
  titration: { View: TitrationStageView, Facts: () => null, rinse: ["burette", "pipettes"] },
  preparation: { View: PreparationStageView, Facts: Footing, rinse: [] },
  calibration: { View: calibration, Facts: Footing, rinse: ["cuvettes", "pipettes"] },
  unknown: { View: unknown, Facts: Footing, rinse: ["cuvettes", "pipettes"] },
  curve: { View: curve, Facts: Footing, rinse: ["burette", "pipettes", "electrode"] },
  isotherm: { View: isotherm, Facts: Footing, rinse: [] },
  rate: {
    View: rate,
    Facts: ({ stage, record }) => (
      <>
        <RateFacts stage={stage} record={record} />
        <Footing stage={stage} />
      </>
    ),
    rinse: ["cuvettes", "pipettes"],
  },
};

/** The screens of a stage; the union of stages is matched with the table here, and nowhere else. */
export const screensOf = ({ kind }: { readonly kind: Kind }) =>
  screens[kind] as unknown as StageScreens<ComputedEvaluation>;

/** The working place of a stage, whatever its kind. */
export function StageView(props: StageViewProps<ComputedEvaluation>) {
  const { View } = screensOf(props.stage);
  return <View {...props} />;
}

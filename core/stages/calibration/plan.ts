import type { CompiledCalibration } from "./compile";
import type { StagePlanning } from "../shared/planning";
import { seriesKind } from "./series";
import { msg } from "../../text";

/** All standards of the series from one stock; the blank takes the reagents too. */
export const calibrationPlanning: StagePlanning<CompiledCalibration> = {
  plan: ({ definition: { series } }) => ({
    value: null,
    message: msg`${series.values.length} standards from one stock: ${series.values.join(", ")}`,
  }),
  flasks: ({ series }) => series.values.length,
  reagentFlasks: ({ series }) => series.values.length + 1,
  series: (definition) => ({
    symbol: definition.series.symbol,
    kind: seriesKind(definition),
    texts: definition.series.values,
  }),
};

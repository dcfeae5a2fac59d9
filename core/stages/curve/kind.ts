import type { CurveStage } from "../../method";
import { success } from "../../result";
import { msg } from "../../text";
import type { CompiledStage } from "../compiled";
import type { StageKind } from "../kind";
import { engineOf } from "../late";
import { heldReasons, notAllRead } from "../shared/allows";
import type { CurveStageEvaluation } from "../shared/evaluation";
import { curveProblem, curveSymbols } from "./compile";

export const curve: StageKind<CurveStage, CompiledStage<CurveStage>, CurveStageEvaluation> = {
  problem: curveProblem,
  fitted: curveSymbols,
  compile: (definition, { lines }) => success({ definition, lines }),
  allows: ({ curve: { constants = [] } }) => ({
    trials: true,
    trace: () => false,
    holds: true,
    expects: false,
    choices: {
      way: ["fit", "gran before", "gran beyond", "second derivative", "steepest"],
      // What the fit asks for besides, where somebody wants that.
      ...{ offset: ["fitted"], carbonate: ["fitted"] },
      // What the first curve is taken by, where that is not the points alone.
      ahead: ["theory"],
      ...(constants.length > 0 ? { protons: ["1", "2", "3"] } : {}),
    },
  }),
  evaluate: (stage, record, context) => engineOf("curve")(stage, record, context),
  begun: ({ trials }) => trials.length > 0,
  fact: ({ current, trials }) => {
    if (!current) return trials.length === 0 ? msg`not read yet` : msg`being read`;
    const count = current.points.length;
    return count === 1 ? msg`1 point` : msg`${count} points`;
  },
  reasons: (stage) => [...(stage.agreement.text === "" ? [] : [stage.agreement.text]), ...heldReasons(stage)],
  unfinished: () => notAllRead,
  next: ({ next }) => next,
};

import { perOf, type TitrationStage } from "../../method";
import { toDecimals } from "../../quantity";
import { capitalized, uncapitalized, msg, type Phrase } from "../../text";
import type { StageKind } from "../kind";
import { percentBeside } from "../shared/accept";
import { stageSpectra } from "../shared/allows";
import type { TitrationEvaluation } from "../shared/evaluation";
import { type CompiledTitration, compileTitration, titrationProblem } from "./compile";
import { evaluateTitration } from "./evaluate";

/** How the work at a flask begins, by what is done first. */
function firstStep({ definition }: TitrationEvaluation): Phrase {
  const first = definition.inputs.find((input) => perOf(input) === "trial");
  if (first?.is === "mass") return msg`Weigh the first flask`;
  return first && first.is !== "titer" ? msg`Take the first aliquot` : msg`Begin the first trial`;
}

export const titration: StageKind<TitrationStage, CompiledTitration, TitrationEvaluation> = {
  problem: titrationProblem,
  fitted: () => [],
  compile: compileTitration,
  allows: () => ({ trials: true, trace: stageSpectra, holds: true, expects: true, choices: {} }),
  evaluate: evaluateTitration,
  begun: ({ trials }) => trials.length > 0,
  fact: ({ acceptance, trials, agreement }) => {
    if (acceptance?.against === "value" && acceptance.decision) {
      const { errorPercent, allowedPercent } = acceptance;
      return msg`off by ${percentBeside(Math.abs(errorPercent), allowedPercent ?? 0)} %`;
    }
    const complete = trials.filter((t) => t.eligible).length;
    if (complete === 0) return trials.length === 0 ? msg`no trial yet` : msg`no trial counts yet`;
    const { members, needed, state } = agreement;
    if (state === "apart" || state === "rivals") return `${complete} disagree`;
    return members.length > 1 ? msg`${members.length} of ${needed} agree` : msg`${complete} of ${needed}`;
  },
  reasons: ({ verdict: { reason, tellsAcceptance }, acceptance }) =>
    acceptance && !tellsAcceptance ? [reason, acceptance.text] : [reason],
  unfinished: ({ verdict }) => msg`the set is not closed. ${verdict.next}`,
  next: (stage) => {
    const { current, guidance, trials, verdict } = stage;
    if (!current?.missing) return trials.length === 0 ? firstStep(stage) : verdict.next;
    const { label, kind } = current.missing;
    const near =
      kind === "burette.final" && guidance?.endNear && guidance.from !== "presumed"
        ? msg` (near ${toDecimals(guidance.endNear, 1)})`
        : "";
    return msg`${capitalized(uncapitalized(label))} of ${current.words}${near}`;
  },
};

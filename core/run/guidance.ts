import { inUnit, type Quantity, toDecimals, unitOf } from "../quantity";
import { solveForTiter } from "../relation";
import type { Reference } from "./agreement";
import type { Expected } from "../measure";
import type { CompiledMethod, CompiledTitration } from "./compile";
import { perUnit } from "./evaluate-trial";
import type { AgreementView, Guidance, TrialEvaluation } from "./evaluation";
import type { Field } from "./fields";
import { presumedOf } from "./input-kinds";
import { perOf, type TitrationStage } from "./method";
import { type ObservationKind, presentObservation } from "./record";
import { buretteDecimals, buretteText, type HouseRules } from "./rules";
import { capitalized, trialWords } from "./words";

/** What each field of the next trial is likely to be: the last final reading, the volume taken before. */
export function proposalsFor(
  stage: TitrationStage,
  trials: readonly TrialEvaluation[],
  rules: HouseRules,
): Map<string, string> {
  const proposals = new Map<string, string>();
  const last = trials.filter((t) => !t.missing).at(-1);
  for (const input of stage.inputs) {
    const { symbol } = input;
    const read = (kind: ObservationKind) =>
      last ? presentObservation(last.record.observations, symbol, kind)?.value : null;
    if (input.is === "titer" || input.is === "delivered") {
      const zero = input.is === "titer" && rules.burette.start === "zero" ? buretteText(0, rules) : null;
      const carried = zero ?? read("burette.final");
      if (carried) proposals.set(`${symbol}:burette.initial`, carried);
    }
    const usual = presumedOf(input)["volume.taken"];
    const volume = perOf(input) === "trial" ? (read("volume.taken") ?? usual) : usual;
    if (volume) proposals.set(`${symbol}:volume.taken`, volume);
  }
  return proposals;
}

/**
 * Where the final reading of a trial should come, by the trials before, and how far from it a reading still surprises
 * nobody: half a milliliter beside trials that agree, a tenth of the titer and at least two beside a rough one. Theory
 * alone, which rests on a nominal concentration, expects nothing.
 */
export function expectedReading({ kind }: Pick<Field, "kind">, guidance: Guidance | null): Expected | null {
  if (kind !== "burette.final" || !guidance || guidance.endNear === null || guidance.from === "theory")
    return null;
  const rough = guidance.from === "rough";
  return {
    value: guidance.endNear,
    within: rough ? Math.max(2, 0.1 * guidance.titerMl) : 0.5,
    by: rough ? "the rough trial" : "the trials before",
  };
}

interface Expectation {
  readonly value: number;
  readonly from: Guidance["from"];
}

/** What the stage's result will probably be: from trials that agree, else from a rough one, else as presumed. */
function expectedResult(
  trials: readonly TrialEvaluation[],
  agreement: AgreementView,
  stage: TitrationStage,
): Expectation | null {
  const mean = (chosen: readonly TrialEvaluation[]) => {
    const values = chosen.flatMap(({ result }) => (result ? [result.value] : []));
    return values.length > 0 ? values.reduce((a, b) => a + b, 0) / values.length : null;
  };
  const usable = trials.filter((t) => !t.record.struck);
  const fine = mean(usable.filter((t) => agreement.members.includes(t.id)));
  if (fine !== null) return { value: fine, from: "trials" };
  const rough = mean(usable.filter((t) => t.record.kind === "rough"));
  if (rough !== null) return { value: rough, from: "rough" };
  if (stage.presumed === undefined) return null;
  return { value: stage.presumed * unitOf(stage.result.unit).factor, from: "theory" };
}

/** How far short of the expected end to slow down, mL: 1 to 2 where trials are known, more where they are not. */
function shortfallMl(titerMl: number, from: Guidance["from"]): number {
  if (from === "trials") return 1.25;
  if (from === "rough") return 2;
  return Math.max(2, 0.1 * titerMl);
}

const downToHalf = (x: number) => Math.floor(x * 2 + 1e-9) / 2;

export interface GuidanceInput {
  readonly method: CompiledMethod;
  readonly stage: CompiledTitration;
  readonly rules: HouseRules;
  readonly trials: readonly TrialEvaluation[];
  readonly agreement: AgreementView;
  readonly reference: Reference;
  /** All that is known for the trial in hand: its own readings, carried volumes, earlier results. */
  readonly known: ReadonlyMap<string, Quantity>;
  readonly initialMl: number | null;
  /** What the trial is called. */
  readonly name: string;
}

/** Where the end of the trial in hand should come, where to slow down, and whether the burette lasts. */
export function guide(input: GuidanceInput): Guidance | null {
  const { method, stage, rules, trials, agreement, reference, known, initialMl, name } = input;
  const expected = expectedResult(trials, agreement, stage.definition);
  if (!expected) return null;
  const solved = solveForTiter({
    relations: stage.lines,
    stoichiometry: method.stoichiometry,
    known: new Map([...known].map(([symbol, q]) => [symbol, q.value] as const)),
    titer: stage.titer,
    target: stage.definition.result.symbol,
    value: expected.value,
  });
  if (!solved.ok) return null;
  const titerMl = solved.value;
  const { capacityMl } = rules.burette;
  const decimals = buretteDecimals(rules);
  const endNear = initialMl === null ? null : initialMl + titerMl;
  const slow = endNear === null ? null : downToHalf(endNear - shortfallMl(titerMl, expected.from));
  const slowAt = slow !== null && initialMl !== null && slow > initialMl ? slow : null;
  const roomLeft = endNear === null ? titerMl <= capacityMl : endNear <= capacityMl;
  const end = endNear === null ? "" : toDecimals(endNear, expected.from === "trials" ? decimals : 1);
  const text = sentence({ name, endNear, end, slowAt, roomLeft, titerMl, capacityMl, from: expected.from });
  return {
    titerMl,
    from: expected.from,
    endNear,
    endText: end,
    slowAt,
    roomLeft,
    joins:
      stage.compares === "result" || rules.agreementOf === "results"
        ? null
        : joiningTiters(stage, agreement, reference, known),
    text,
  };
}

function sentence(known: {
  name: string;
  endNear: number | null;
  end: string;
  slowAt: number | null;
  roomLeft: boolean;
  titerMl: number;
  capacityMl: number;
  from: Guidance["from"];
}): string {
  const { name, endNear, end, slowAt, roomLeft, titerMl, capacityMl, from } = known;
  const why = { trials: "", rough: ", by the rough trial", theory: ", by theory" }[from];
  const who = capitalized(trialWords(name));
  if (titerMl > capacityMl) {
    return `${who}: about ${toDecimals(titerMl, 1)} mL are needed${why}, more than the burette holds. Take less.`;
  }
  if (endNear === null) return `${who}: about ${toDecimals(titerMl, 1)} mL are needed${why}.`;
  if (!roomLeft) {
    return `${who}: it will end near ${end}${why}, past the last mark at ${capacityMl}. Refill the burette first.`;
  }
  const slowly =
    slowAt === null ? "go drop by drop" : `run freely to ${toDecimals(slowAt, 1)}, then drop by drop`;
  return `${who}: ${slowly}. The end should come near ${end}${why}; the burette has room for it.`;
}

/** The titers of the flask in hand that would join the concordant set, from the window in compared mL. */
function joiningTiters(
  stage: CompiledTitration,
  { window, closed }: AgreementView,
  reference: Reference,
  known: ReadonlyMap<string, Quantity>,
): readonly [number, number] | null {
  if (!window || closed) return null;
  const { per } = stage.definition.agree;
  if (per === undefined) return window;
  const amount = known.get(per);
  if (!amount) return null;
  const scale = inUnit(amount, perUnit(stage)) / reference.amount;
  return [window[0] * scale, window[1] * scale];
}

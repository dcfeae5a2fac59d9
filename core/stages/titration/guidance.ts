import { mean } from "../../statistics";
import { inUnit, type Quantity, toDecimals, unitOf } from "../../quantity";
import { solveForTiter } from "../../relation";
import type { Window } from "../../judgement";
import type { Expected } from "../../measure";
import type { Reference } from "./agreement";
import { type TitrationStage } from "../../method";
import { type CompiledMethod } from "../compiled";
import { type CompiledTitration } from "./compile";
import { perUnit, titerAsRead } from "./trial";
import type { AgreementView, Guidance, TrialEvaluation } from "../shared/evaluation";
import { type Field, proposedTexts } from "../../inputs";
import { type ObservationKind, presentObservation } from "../../record";
import { type HouseRules, buretteDecimals } from "../../rules";
import { capitalized, msg, type Phrase, uncapitalized } from "../../text";
import type { Earlier } from "../shared/trial";

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
    const before = (kind: ObservationKind) =>
      (last && presentObservation(last.record.observations, symbol, kind)?.value) ?? null;
    for (const [kind, text] of Object.entries(proposedTexts(input, before, rules)))
      proposals.set(`${symbol}:${kind}`, text);
  }
  return proposals;
}

/**
 * Where the final reading of a trial should come, by the trials before, and how far from it a reading still surprises
 * nobody: half a milliliter beside trials that agree, a tenth of the titer and at least two beside a rough one. What is only
 * expected or presumed of the result surprises nobody.
 */
export function expectedReading({ kind }: Pick<Field, "kind">, guidance: Guidance | null): Expected | null {
  if (kind !== "burette.final" || !guidance || guidance.endNear === null) return null;
  if (guidance.from === "expected" || guidance.from === "presumed") return null;
  // That an end was overshot says where it is not.
  if (guidance.before) return null;
  const rough = guidance.from === "rough";
  return {
    value: guidance.endNear,
    others: guidance.repeats,
    within: rough ? Math.max(2, 0.1 * guidance.titerMl) : 0.5,
    by: rough ? msg`the rough trial` : msg`the trials before`,
    near: oneOf(guidance.endTexts),
  };
}

interface Expectation {
  /** Results that are expected: one, or as many as trials that disagree name. */
  readonly values: readonly number[];
  /** Titers of the flask in hand, mL, where they are expected as such. */
  readonly titersMl?: readonly number[];
  readonly from: Guidance["from"];
  /** What it is expected by, where that is no trial. */
  readonly by?: Phrase;
  /** True where the end comes before that of the trial it is told by: a rough one that was overshot. */
  readonly before?: boolean;
}

/** What the stage's result will probably be by its own trials: those that agree, each where they disagree, a rough one. */
function resultsByTrials(trials: readonly TrialEvaluation[], agreement: AgreementView): Expectation | null {
  const results = (chosen: readonly TrialEvaluation[]) =>
    chosen.flatMap(({ result }) => (result ? [result.value] : []));
  const usable = trials.filter((t) => !t.record.struck);
  const fine = results(usable.filter((t) => agreement.members.includes(t.id)));
  if (fine.length > 0) return { values: [mean(fine)], from: "trials" };
  const sets = agreement.rivals
    .map((ids) => results(usable.filter((t) => ids.includes(t.id))))
    .filter((v) => v.length > 0);
  if (sets.length > 0) return { values: sets.map(mean), from: "trials" };
  const apart = results(usable.filter((t) => t.eligible));
  if (apart.length > 0) return { values: apart, from: "trials" };
  const rough = usable.filter((t) => t.record.kind === "rough");
  const met = results(rough.filter((t) => !t.overshot));
  if (met.length > 0) return { values: [mean(met)], from: "rough" };
  // Of several ends that were overshot, the first is the closest bound.
  const [bound] = [...rough].sort((a, b) => (a.titerMl ?? Infinity) - (b.titerMl ?? Infinity));
  return bound?.result ? { values: [bound.result.value], from: "rough", before: true } : null;
}

/** Titers of the trials by the amount of the flask in hand, where no result follows from them yet: the titrant is still unknown. */
function titersByTrials(
  trials: readonly TrialEvaluation[],
  stage: CompiledTitration,
  known: ReadonlyMap<string, Quantity>,
): Expectation | null {
  // Where results must agree, as of unlike flasks in a back-titration, titers tell nothing of the next one.
  if (stage.compares === "result") return null;
  const { per } = stage.definition.agree;
  const amountOf = (symbols: ReadonlyMap<string, Quantity>) =>
    per === undefined ? 1 : (symbols.get(per)?.value ?? null);
  const here = amountOf(known);
  if (here === null) return null;
  const usable = trials.filter((t) => !t.record.struck && !t.overshot);
  const perAmount = (chosen: readonly TrialEvaluation[]) =>
    chosen.flatMap(({ titerMl, symbols }) => {
      const amount = amountOf(symbols);
      return titerMl === null || amount === null || amount === 0 ? [] : [titerMl / amount];
    });
  const fine = perAmount(usable.filter((t) => t.record.kind === "fine"));
  const titers = fine.length > 0 ? fine : perAmount(usable);
  if (titers.length === 0) return null;
  return { values: [], titersMl: [mean(titers) * here], from: fine.length > 0 ? "trials" : "rough" };
}

/** What is known or expected of the result before its first trial: by the target, an earlier stage, or a person. */
function byWhatIsKnown(
  { definition: { accept, expectedFrom: from, expected, result, inputs } }: CompiledTitration,
  known: ReadonlyMap<string, Quantity>,
  earlier: Earlier,
  method: CompiledMethod,
): Expectation | null {
  if (from) {
    const main = method.method.stages.find(({ key }) => key === from.stage)?.result.symbol ?? "";
    const there = earlier.get(from.stage)?.get(from.result ?? main);
    if (there)
      return { values: [there.quantity.value], from: "expected", by: msg`, by what an earlier stage found` };
  }
  const target = accept?.against === "value" ? known.get(accept.symbol) : undefined;
  if (target) {
    const label = inputs.find(({ symbol }) => symbol === accept?.symbol)?.label ?? "";
    return { values: [target.value], from: "expected", by: msg`, by the ${uncapitalized(label)}` };
  }
  if (!expected) return null;
  const by = expected.presumed ? msg`, as the method presumes` : msg`, as you expect`;
  return expected.in === "mL"
    ? { values: [], titersMl: [expected.value], from: "expected", by }
    : { values: [expected.value * unitOf(result.unit).factor], from: "expected", by };
}

/** How far short of the expected end to slow down, mL: 1 to 2 where trials are known, more where they are not. */
function shortfallMl(titerMl: number, { from, before }: Expectation): number {
  if (from === "trials") return 1.25;
  if (from === "rough") return before ? Math.max(4, 0.2 * titerMl) : 2;
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
  /** Results of earlier stages. */
  readonly earlier: Earlier;
  readonly initialMl: number | null;
  /** Where the burette stood when it was last read before the end, mL: its start, or after a refill. */
  readonly fromMl: number | null;
  /** What the trial is called. */
  readonly flask: Phrase;
}

/** By the best that is known: its own trials, what is known or expected of the result, what the method presumes. */
function expectationOf({
  trials,
  agreement,
  stage,
  known,
  earlier,
  method,
}: GuidanceInput): Expectation | null {
  const { presumed, result } = stage.definition;
  return (
    resultsByTrials(trials, agreement) ??
    titersByTrials(trials, stage, known) ??
    byWhatIsKnown(stage, known, earlier, method) ??
    (presumed === undefined ? null : { values: [presumed * unitOf(result.unit).factor], from: "presumed" })
  );
}

/** Where to slow down on the burette; null where that is before it begins, and where nothing but the method speaks for an end. */
function slowFrom(
  endNear: number | null,
  titerMl: number,
  fromMl: number | null,
  expected: Expectation,
): number | null {
  if (endNear === null || fromMl === null || expected.from === "presumed") return null;
  const slow = downToHalf(endNear - shortfallMl(titerMl, expected));
  return slow > fromMl ? slow : null;
}

/** Expected end point of the trial in hand, where to slow down, and whether the burette has enough left. */
export function guide(input: GuidanceInput): Guidance | null {
  const { method, stage, rules, trials, agreement, reference, known, initialMl, fromMl, flask } = input;
  const expected = expectationOf(input);
  if (!expected) return null;
  const numbers = new Map([...known].map(([symbol, q]) => [symbol, q.value] as const));
  const titerFor = titerSolver(stage, method, numbers, rules);
  const all = expected.titersMl ?? expected.values.flatMap(titerFor);
  const titers = [...new Set(all)].sort((a, b) => a - b);
  const [titerMl] = titers;
  const largest = titers.at(-1);
  if (titerMl === undefined || largest === undefined) return null;
  const others = trials.filter((t) => t.eligible && !agreement.members.includes(t.id) && t.result);
  const repeats = [
    ...titers,
    ...(expected.from === "trials" ? others.flatMap((t) => titerFor(t.result?.value ?? NaN)) : []),
  ];
  const isBound = expected.before === true;
  const { capacityMl } = rules.burette;
  const decimals = buretteDecimals(rules);
  const at = (ml: number) => (initialMl === null ? [] : [initialMl + ml]);
  const ends = titers.flatMap(at);
  const [endNear = null] = ends;
  const slowAt = slowFrom(endNear, titerMl, fromMl, expected);
  const roomLeft = (initialMl ?? 0) + largest <= capacityMl;
  const shown = (ml: number) => toDecimals(ml, expected.from === "trials" ? decimals : 1);
  const endTexts = [...new Set(ends.map(shown))];
  const text = sentence({
    flask,
    end: oneOf(endTexts),
    titer: oneOf([...new Set(titers.map((ml) => toDecimals(ml, 1)))]),
    slowAt,
    roomLeft,
    titerMl: largest,
    capacityMl,
    from: expected.from,
    by: expected.by ?? "",
    before: isBound,
  });
  return {
    titerMl,
    from: expected.from,
    before: isBound,
    endNear,
    ends,
    repeats: repeats.flatMap(at),
    endTexts,
    slowAt,
    roomLeft,
    joins:
      stage.compares === "result" || rules.agreementOf === "results"
        ? []
        : joiningTiters(stage, agreement, reference, known),
    text,
  };
}

/** "24.3", "24.3 or 31.0"; empty for none. */
const oneOf = (texts: readonly string[]): Phrase =>
  texts.reduce<Phrase>((all, one) => (all === "" ? one : msg`${all} or ${one}`), "");

/** Finds the titer, as it is read, that makes the result a value; none where no titer does. */
function titerSolver(
  stage: CompiledTitration,
  method: CompiledMethod,
  numbers: Map<string, number>,
  rules: HouseRules,
) {
  return (value: number): number[] => {
    const solved = solveForTiter({
      relations: stage.lines,
      stoichiometry: method.stoichiometry,
      known: numbers,
      titer: stage.titer,
      target: stage.definition.result.symbol,
      value,
    });
    return solved.ok ? [titerAsRead(solved.value, stage, rules)] : [];
  };
}

function sentence(known: {
  flask: Phrase;
  end: Phrase;
  titer: Phrase;
  slowAt: number | null;
  roomLeft: boolean;
  titerMl: number;
  capacityMl: number;
  from: Guidance["from"];
  by: Phrase;
  before: boolean;
}): Phrase {
  const { flask, end, titer, slowAt, roomLeft, titerMl, capacityMl, from, by, before } = known;
  if (from === "presumed") return presumedSentence(known);
  const why = from === "rough" ? msg`, by the rough trial` : by;
  const who = capitalized(flask);
  // After a refill midway the rest may well fit.
  if (titerMl > capacityMl && !roomLeft)
    return msg`${who}: about ${titer} mL are needed${why}, more than the burette holds. Take less, or refill midway.`;
  if (before) {
    const first =
      slowAt === null
        ? msg`go drop by drop from the start`
        : msg`run freely to ${toDecimals(slowAt, 1)} at most, then slowly`;
    return end === ""
      ? msg`${who}: less than ${titer} mL; the rough trial overshot the end point.`
      : msg`${who}: ${first}. Expect the end point before ${end} mL: the rough trial overshot it.`;
  }
  if (end === "") return msg`${who}: about ${titer} mL are needed${why}.`;
  if (!roomLeft) {
    return msg`${who}: expect the end point near ${end} mL${why}, past the last mark at ${capacityMl}. Refill the burette first.`;
  }
  const slowly =
    slowAt === null ? msg`go drop by drop` : msg`run freely to ${toDecimals(slowAt, 1)}, then drop by drop`;
  return msg`${who}: ${slowly}. Expect the end point near ${end} mL${why}. The burette has enough left.`;
}

/** Where nothing but the method speaks for an end: it is not known, and here is where it might be. */
function presumedSentence(known: {
  flask: Phrase;
  end: Phrase;
  titer: Phrase;
  roomLeft: boolean;
  titerMl: number;
  capacityMl: number;
}): Phrase {
  const { flask, end, titer, roomLeft, titerMl, capacityMl } = known;
  const who = capitalized(flask);
  if (titerMl > capacityMl && !roomLeft)
    return msg`${who}: the end point is not known. The method presumes about ${titer} mL, more than the burette holds: take less, or refill midway.`;
  if (end === "")
    return msg`${who}: the end point is not known: titrate a rough one first. The method presumes about ${titer} mL.`;
  const near = msg`${who}: the end point is not known: titrate a rough one first. The method presumes it near ${end} mL`;
  return roomLeft
    ? msg`${near}.`
    : msg`${near}, past the last mark at ${capacityMl}. Refill the burette first.`;
}

/** The titers of the flask in hand that would join or make a set, from the windows in compared mL. */
function joiningTiters(
  stage: CompiledTitration,
  { windows, closed }: AgreementView,
  reference: Reference,
  known: ReadonlyMap<string, Quantity>,
): readonly Window[] {
  if (closed) return [];
  const { per } = stage.definition.agree;
  if (per === undefined) return windows;
  const amount = known.get(per);
  if (!amount) return [];
  const scale = inUnit(amount, perUnit(stage)) / reference.amount;
  return windows.map(([low, high]) => [low * scale, high * scale]);
}

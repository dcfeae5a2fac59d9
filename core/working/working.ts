import { methodOf, type RunRecord } from "../run";
import { plusMinus } from "../judgement";
import { glassC, volumeFactor } from "../measure";
import {
  decimalsFor,
  inUnit,
  type Quantity,
  standardUncertainty,
  toDecimals,
  unitOf,
  withUnit,
} from "../quantity";
import { numberTex, symbolTex, unitTex } from "../relation";
import { type Method, unitOfInput } from "../method";
import {
  compiledMethod,
  compiledStage,
  type WorkingStep,
  type Board,
  causes,
  guarded,
  workingOfKind,
  lineStep,
  type ComputedEvaluation,
  isOnce,
  membersOf,
  resultQuantity,
  type RunEvaluation,
  type Shown,
  type TrialEvaluation,
  plusMinusWords,
} from "../stages";
import {
  decimalsOfInput,
  volumeConditions,
  differenceOf,
  buoyancyOf,
  quotientOf,
  type QuotientTerm,
  legsOf,
  type Input,
  type Difference,
} from "../inputs";
import { type HouseRules, buretteDecimals } from "../rules";
import { listed, uncapitalized, msg, type Phrase, joined } from "../text";

export interface Working {
  readonly stage: ComputedEvaluation;
  /** The trial that is shown; null for what is made once. */
  readonly trial: TrialEvaluation | null;
  readonly steps: readonly WorkingStep[];
}

/** What an overshoot that was brought back took of the titrant is no part of the titer: the term that is taken off. */
function addedBack(read: (kind: string) => string) {
  const [addedMl, worth] = [read("back.volume"), read("back.worth")];
  if (addedMl === "" || worth === "") return { names: "", numbers: "", formula: "", text: "" };
  return {
    names: ` - ${symbolTex("V_back")} \\cdot w`,
    numbers: ` - ${numberTex(addedMl, "mL")} \\cdot ${worth}`,
    formula: " - V_back·w",
    text: ` - ${addedMl}·${worth}`,
  };
}

/** First steps: each mass and titer as a difference of two readings. */
function readingSteps(board: Board): WorkingStep[] {
  return board.compiled.definition.inputs.flatMap((input) => {
    const q = board.symbols.get(input.symbol);
    if (!q) return [];
    const difference = differenceOf(input);
    if (difference) return differenceSteps(board, input, difference, q);
    const quotient = quotientOf(input);
    if (quotient) return [quotientStep(board, input, quotient, q)];
    const { houseRules } = board.record;
    const shown = inUnit(q, "g") / (buoyancyOf(input, houseRules)?.factor ?? 1);
    return buoyancyStep(board, input, toDecimals(shown, decimalsOfInput(input, houseRules) ?? 4), q);
  });
}

/** (1 - ρa/ρw) / (1 - ρa/ρ), as `buoyancyFactor` takes it. */
const airText = (density: string) => `(1 - 0.0012/8.0)/(1 - 0.0012/${density})`;
const airTex = (density: string) => `\\dfrac{1 - 0.0012/8.0}{1 - 0.0012/${density}}`;
const airNames = `\\dfrac{1 - \\rho_{\\mathrm{air}}/\\rho_{\\mathrm{w}}}{1 - \\rho_{\\mathrm{air}}/\\rho}`;

/** A mass as the balance showed it, corrected for the buoyancy of air; nothing where the house does not, or no density is known. */
function buoyancyStep(
  { record: { houseRules } }: Board,
  input: Input,
  shown: string,
  q: Quantity,
): WorkingStep[] {
  const air = buoyancyOf(input, houseRules);
  if (!air) return [];
  const { symbol } = input;
  const value = toDecimals(inUnit(q, "g"), (decimalsOfInput(input, houseRules) ?? 4) + 1);
  return [
    {
      id: `${symbol}-corrected`,
      title: msg`The same without the buoyancy of air`,
      formula: `${symbol} = ${shown} · ${airText(air.density)}`,
      names: `${symbolTex(symbol)} = ${symbolTex(`${symbol}_air`)} \\cdot ${airNames}`,
      numbers: `= ${numberTex(shown, "g")} \\cdot ${airTex(air.density)}`,
      value: `= ${numberTex(value, "g")}`,
      valueText: withUnit(value, "g"),
      inputs: [],
    },
  ];
}

type Quotient = NonNullable<ReturnType<typeof quotientOf>>;

/** A volume as what was weighed over its density, or as drops over drops in a milliliter. */
function quotientStep(
  { fields: all, record: { houseRules }, method }: Board,
  input: Input,
  { over, under }: Quotient,
  q: Quantity,
): WorkingStep {
  const { symbol, label } = input;
  const fields = all.filter(({ field }) => field.symbol === symbol);
  const read = ({ kind, text = "" }: QuotientTerm) =>
    kind === undefined ? text : (fields.find(({ field }) => field.kind === kind)?.present?.value ?? "");
  const unit = unitOfInput(input, method.method);
  const decimals = decimalsOfInput(input, houseRules) ?? 2;
  const value = toDecimals(inUnit(q, unit), decimals);
  const half = plusMinus(q, houseRules.plusMinus) / unitOf(unit).factor;
  const shown = `${value} ± ${toDecimals(half, Math.max(decimals, Math.min(decimalsFor(half, 1), decimals + 1)))}`;
  const difference = (of: (term: QuotientTerm) => string) => over.map(of).join(" - ");
  const bracketed = (text: string) => (over.length > 1 ? `(${text})` : text);
  const air = buoyancyOf(input, houseRules);
  const fraction = (top: string, bottom: string) => `\\dfrac{${top}}{${bottom}}`;
  return {
    id: symbol,
    title: label,
    formula: `${symbol} = ${bracketed(difference((term) => term.symbol))} / ${under.symbol} = ${bracketed(difference(read))} / ${read(under)}${air ? ` · ${airText(air.density)}` : ""}`,
    names: `${symbolTex(symbol)} = ${fraction(
      difference((term) => symbolTex(term.symbol)),
      symbolTex(under.symbol),
    )}${air ? ` \\cdot ${airNames}` : ""}`,
    numbers: `= ${fraction(
      difference((term) => numberTex(read(term), term.unit)),
      numberTex(read(under), under.unit),
    )}${air ? ` \\cdot ${airTex(air.density)}` : ""}`,
    value: `= ${numberTex(shown.replace("±", "\\pm"), unit)}`,
    valueText: withUnit(shown, unit),
    inputs: [
      {
        key: symbol,
        label: msg`what was read`,
        origin: { kind: "readings", fields, causes: causes(q, unit) },
      },
    ],
  };
}

function differenceSteps(
  board: Board,
  input: Input,
  { unit, minuend, subtrahend, words }: Difference,
  q: Quantity,
): WorkingStep[] {
  const { fields: all, record, name } = board;
  const { houseRules } = record;
  const { symbol } = input;
  const fields = all.filter(({ field }) => field.symbol === symbol);
  const read = (kind: string) => fields.find(({ field }) => field.kind === kind)?.present?.value ?? "";
  const decimals = decimalsOfInput(input, houseRules) ?? 2;
  const titer = input.is === "titer" ? input : null;
  const bias = Number(titer?.bias?.ml ?? 0);
  const factor =
    unit === "mL" ? volumeFactor(volumeConditions(houseRules)) : (buoyancyOf(input, houseRules)?.factor ?? 1);
  const value = toDecimals(inUnit(q, unit) / factor + bias, decimals);
  const half = plusMinus(q, houseRules.plusMinus) / unitOf(unit).factor;
  const shownHalf = toDecimals(half, Math.max(decimals, Math.min(decimalsFor(half, 1), decimals + 1)));
  const base = symbolTex(symbol);
  const back = titer ? addedBack(read) : addedBack(() => "");
  const legs = titer ? legsOf((kind) => read(kind) !== "") : [];
  // A burette that was refilled midway: the difference of each leg, and their sum.
  const differences =
    legs.length > 1
      ? legs.map(({ initial, final }, i) =>
          [
            { kind: final, name: `final ${i + 1}` },
            { kind: initial, name: `initial ${i + 1}` },
          ].map((end) => ({ ...end, text: read(end.kind) })),
        )
      : [[minuend, subtrahend].map((end) => ({ ...end, text: read(end.kind) }))];
  const written = (of: (end: (typeof differences)[0][0]) => string) => {
    const parts = differences.map((ends) => ends.map(of).join(" - "));
    return parts.length > 1 ? parts.map((part) => `(${part})`).join(" + ") : (parts[0] ?? "");
  };
  return [
    {
      id: symbol,
      title: titer ? msg`Titer of ${name}` : input.label,
      formula: `${symbol} = ${written((end) => end.name)}${back.formula} = ${written((end) => end.text)}${back.text}`,
      names: `${base} = ${written((end) => symbolTex(`${symbol}_${end.name.replace(" ", "_")}`))}${back.names}`,
      numbers: `= ${written((end) => numberTex(end.text, unit))}${back.numbers}`,
      value: `= ${numberTex(`${value} \\pm ${shownHalf}`, unit)}`,
      valueText: withUnit(`${value} ± ${shownHalf}`, unit),
      inputs: [{ key: symbol, label: words, origin: { kind: "readings", fields, causes: causes(q, unit) } }],
    },
    ...(unit === "g"
      ? buoyancyStep(board, input, value, q)
      : factor === 1 && bias === 0
        ? []
        : [correctedStep(symbol, value, q, { bias, houseRules })]),
  ];
}

/** A volume as it was read, made one at 20 °C, and a titer without the bias of its indicator. */
function correctedStep(
  symbol: string,
  read: string,
  q: Quantity,
  { bias, houseRules }: { readonly bias: number; readonly houseRules: HouseRules },
): WorkingStep {
  const { roomC } = volumeConditions(houseRules);
  const offCalibration = roomC !== glassC;
  const off = bias < 0 ? `+ ${-bias}` : `- ${bias}`;
  const before = bias === 0 ? read : `(${read} ${off})`;
  const byRoom = offCalibration ? ` · (1 - 2.1e-4·(${roomC} - ${glassC}))` : "";
  const base = symbolTex(symbol);
  const value = toDecimals(inUnit(q, "mL"), buretteDecimals(houseRules) + 1);
  const what = [
    offCalibration ? msg`at ${glassC} °C` : "",
    bias === 0 ? "" : msg`without the bias of the indicator`,
  ];
  return {
    id: `${symbol}-corrected`,
    title: msg`The same ${joined(
      what.filter((w) => w !== ""),
      ", ",
    )}`,
    formula: `${symbol} = ${before}${byRoom}`,
    names: `${base}${bias === 0 ? "" : " - V_{\\mathrm{bias}}"}${offCalibration ? " \\cdot (1 - \\gamma\\,(T - T_{20}))" : ""}`,
    numbers: `= ${bias === 0 ? read : `(${read} ${off})`}${offCalibration ? ` \\cdot (1 - 2.1 \\times 10^{-4} \\cdot (${roomC} - ${glassC}))` : ""}`,
    value: `= ${numberTex(value, "mL")}`,
    valueText: withUnit(value, "mL"),
    inputs: [],
  };
}

/** In a room that is not at 20 °C: how the other volumes of a stage were made ones at that. */
function roomStep({ compiled, record, symbols }: Board): WorkingStep[] {
  const { roomC } = volumeConditions(record.houseRules);
  const glass = compiled.definition.inputs.filter(
    ({ is, symbol }) => ["pipette", "flask", "graduated"].includes(is) && symbols.has(symbol),
  );
  if (roomC === glassC || glass.length === 0) return [];
  const factor = volumeFactor({ roomC });
  return [
    {
      id: "room",
      title: msg`Volumes read at ${roomC} °C, converted to ${glassC} °C, the reference temperature of glassware and concentrations: ${listed(glass.map(({ label }) => uncapitalized(label)))}`,
      formula: `V = V_read · (1 - 2.1e-4·(${roomC} - ${glassC}))`,
      names: "V = V_{\\mathrm{read}} \\cdot (1 - \\gamma\\,(T - T_{20}))",
      numbers: `= V_{\\mathrm{read}} \\cdot ${toDecimals(factor, 5)}`,
      value: "",
      valueText: msg`factor ${toDecimals(factor, 5)}`,
      inputs: [],
    },
  ];
}

/** Last steps: the mean of the concordant trials, and its ± from what scatters and what is shared. */
function meanSteps({ stage, record }: Board): WorkingStep[] {
  if (isOnce(stage)) return [...resultStep(stage, record), ...errorStep(stage, record)];
  const { combined, definition, shown } = stage;
  if (!combined || !shown) return [];
  const { unit, symbol } = definition.result;
  const members = membersOf(stage);
  const values = members.map((t) => (t.result ? guarded(t.result, unit) : ""));
  const base = symbolTex(symbol);
  const n = members.length;
  const u = standardUncertainty(combined.quantity) / unitOf(unit).factor;
  const digits = decimalsFor(u, 2);
  const part = (x: number) => toDecimals(x / unitOf(unit).factor, digits + 1);
  const from = {
    scatter: msg`the scatter of the trials, s/√${n} with s = ${part(combined.standardDeviation)}`,
    reading: msg`reading and weighing, since the trials scatter less than those alone would explain`,
    "earlier work": msg`the repeatability known from earlier work`,
  }[combined.repeatabilityFrom];
  const { members: averaged = "trials", mean: ownMean } = workingOfKind(stage);
  const mean: WorkingStep = ownMean?.(stage, record.houseRules) ?? {
    id: "mean",
    title:
      n > 1
        ? msg`Mean of ${averaged} ${listed(members.map((t) => t.name))}`
        : msg`One trial, taken as the mean`,
    formula: msg`mean of ${values.join(", ")}`,
    names: `\\bar{${base}} = \\dfrac{1}{n} \\sum_i ${symbolTex(`${symbol}_i`)}`,
    numbers: `= \\dfrac{${values.join(" + ")}}{${n}}${unitTex(unit)}`,
    value: `= ${numberTex(guarded(combined.quantity, unit), unit)}`,
    valueText: withUnit(guarded(combined.quantity, unit), unit),
    inputs: [],
  };
  const spread: WorkingStep = {
    id: "uncertainty",
    title: msg`Standard uncertainty: scatter (${from}) combined with what all trials share`,
    formula: "u = √(u_rep² + u_sys²)",
    names: `u = \\sqrt{u_{\\mathrm{rep}}^{2} + u_{\\mathrm{sys}}^{2}}`,
    numbers: `= \\sqrt{${part(combined.repeatability)}^{2} + ${part(combined.systematic)}^{2}}${unitTex(unit)}`,
    value: `= ${numberTex(toDecimals(u, digits), unit)}`,
    valueText: withUnit(toDecimals(u, digits), unit),
    inputs: [],
  };
  return [mean, spread, ...resultStep(stage, record), ...furtherSteps(stage), ...errorStep(stage, record)];
}

/** How far the result is from the value that it is held against, in percent of that, and what of it was found. */
function errorStep(stage: ComputedEvaluation, { houseRules }: RunRecord): WorkingStep[] {
  const quantity = resultQuantity(stage);
  if (stage.acceptance?.against !== "value" || !quantity) return [];
  const { known, errorPercent, recoveryPercent } = stage.acceptance;
  const { accept, result, inputs } = stage.definition;
  const [found, should] = [guarded(quantity, result.unit), guarded(known, result.unit)];
  const mean = symbolTex(result.symbol);
  const [x, ref] = [isOnce(stage) ? mean : `\\bar{${mean}}`, symbolTex(accept?.symbol ?? "")];
  const [open, close] = houseRules.percentError === "signed" ? ["", ""] : ["\\left|", "\\right|"];
  const label = inputs.find(({ symbol }) => symbol === accept?.symbol)?.label ?? "";
  const error = toDecimals(errorPercent, 2);
  return [
    {
      id: "error",
      title: msg`Error against the ${uncapitalized(label)}; recovery ${toDecimals(recoveryPercent, 1)} %`,
      formula: msg`100 % × (result - ${uncapitalized(label)}) / ${uncapitalized(label)}`,
      names: `${open}\\dfrac{${x} - ${ref}}{${ref}}${close} \\cdot 100\\,\\%`,
      numbers: `= ${open}\\dfrac{${found} - ${should}}{${should}}${close} \\cdot 100\\,\\%`,
      value: `= ${error}\\,\\%`,
      valueText: `${error} %`,
      inputs: [],
    },
  ];
}

/** The result, rounded once, with its ±. */
function resultStep(stage: ComputedEvaluation, record: RunRecord): WorkingStep[] {
  const { shown } = stage;
  if (!shown) return [];
  const { name, symbol } = stage.definition.result;
  const base = isOnce(stage) ? symbolTex(symbol) : `\\bar{${symbolTex(symbol)}}`;
  const step: WorkingStep = {
    id: "result",
    title:
      shown.plusMinus === "0"
        ? name
        : msg`${name}, rounded once, with its ± (${plusMinusWords[record.houseRules.plusMinus]})`,
    formula: "",
    names: "",
    numbers: "",
    value: `${base} = ${shownTex(shown)}`,
    valueText: shown.text,
    inputs: [],
  };
  return isOnce(stage) ? [step, ...furtherSteps(stage)] : [step];
}

/** The same result in other words and units, and others beside it. */
function furtherSteps({ also }: ComputedEvaluation): WorkingStep[] {
  return also.map(({ definition: { symbol, name }, shown }) => ({
    id: `also-${symbol}`,
    title: shown.nearestWhole === undefined ? name : msg`${name}: nearest whole number ${shown.nearestWhole}`,
    formula: "",
    names: "",
    numbers: "",
    value: `${symbolTex(symbol)} = ${shownTex(shown)}`,
    valueText: shown.text,
    inputs: [],
  }));
}

/** A value with its ±; alone where it has none, as what was chosen. */
const shownTex = ({ value, plusMinus: half, unit }: Shown): string =>
  numberTex(half === "0" ? value : `${value} \\pm ${half}`, unit);

/**
 * The working of a stage's result, as a teacher would write it on the board: one trial from its readings to its result,
 * then the mean and its ±. Without a trial named, the first of the concordant set is shown. Null while none is complete.
 */
export function workingOf(
  record: RunRecord,
  evaluation: RunEvaluation,
  stageKey: string,
  trialId: string | null,
): Working | null {
  const stage = evaluation.stages.find((s) => s.key === stageKey);
  const method = compiledMethod(methodOf(record));
  const compiled = compiledStage(method, stageKey);
  if (!stage || !compiled) return null;
  const written = (own: Pick<Board, "symbols" | "fields" | "name">, id: string | null) => {
    const board: Board = { record, method, evaluation, compiled, stage, ...own };
    const steps = [
      ...roomStep(board),
      ...readingSteps(board),
      ...workingOfKind(stage).fitted(board, compiled, stage, id),
      ...compiled.lines.flatMap((line) => lineStep(board, line)),
    ];
    return { board, steps };
  };
  if (isOnce(stage)) {
    if (!stage.quantity) return null;
    const { board, steps } = written({ symbols: stage.symbols, fields: stage.stageFields, name: "" }, null);
    return { stage, trial: null, steps: [...steps, ...meanSteps(board)] };
  }
  const members = membersOf(stage);
  const complete = stage.trials.filter((t) => t.result);
  const trial =
    complete.find((t) => t.id === trialId) ??
    complete.find((t) => members.some((m) => m.id === t.id)) ??
    complete[0];
  if (!trial) return null;
  const fields = [...trial.fields, ...stage.stageFields];
  const { board, steps } = written({ symbols: trial.symbols, fields, name: trial.words }, trial.id);
  const inSet = members.some((m) => m.id === trial.id);
  return { stage, trial, steps: [...steps, ...(inSet ? meanSteps(board) : [])] };
}

/** What a stage's result rests on, from the first stage up to itself. */
export function standsOn(
  evaluation: RunEvaluation,
  method: Method,
  stageKey: string,
): { title: string; text: Phrase }[] {
  const upTo = evaluation.stages.findIndex((s) => s.key === stageKey);
  return evaluation.stages.slice(0, upTo + 1).flatMap((s) => {
    const purities = s.definition.inputs.flatMap((input) => {
      if (input.is !== "purity") return [];
      const present = (kind: string) =>
        s.stageFields.find(({ field }) => field.kind === kind)?.present?.value;
      const percent = present("purity") ?? input.presumed.percent;
      // The presumed ± is that of the presumed purity.
      const half =
        present("purity.plus-minus") ?? (present("purity") == null ? input.presumed.plusMinus : null);
      const name = method.substances[input.of] ?? input.of;
      return [
        {
          title: name.charAt(0).toUpperCase() + name.slice(1),
          text: half === null ? `${percent} %` : `${percent} ± ${half} %`,
        },
      ];
    });
    return [...purities, { title: s.definition.result.name, text: s.shown?.text ?? msg`no result yet` }];
  });
}

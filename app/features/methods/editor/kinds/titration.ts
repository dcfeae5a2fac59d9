import type { TitrationStage } from "~/core/method";
import { withPoint, msg } from "~/core/text";
import { given, text, trimmed } from "../draft-text";
import { foundBy, nameOf, nextTitration, speciesOf, standardFor, titerRow, withStandard } from "../begin";
import type { MethodDraft, StageDraft } from "../draft-types";
import type { Row } from "../row";
import { weighedSolution } from "./preparation";
import type { EditedKind } from "./kind";

function agreeWord({ agree, result }: TitrationStage): string {
  if (agree.per !== undefined) return agree.per;
  return agree.on === result.symbol ? "results" : "titers";
}

/** What the titers, or what is made of them, must agree on. */
function agreementOf({ agree }: StageDraft, titer: string, result: string): TitrationStage["agree"] {
  if (agree === "titers") return { on: titer };
  return agree === "results" ? { on: result } : { on: `${titer} / ${agree}`, per: agree };
}

/** An aliquot, a known titrant, a titer. */
export const plainTitration: Partial<StageDraft> = {
  title: "Titrate the sample",
  inputs: [
    {
      is: "given",
      symbol: "c_b",
      label: "Concentration of the titrant",
      of: "NaOH",
      unit: "mol/L",
      value: "0.1000",
      plusMinus: "0.0002",
      per: "run",
    },
    { is: "pipette", symbol: "V_a", label: "Aliquot", of: "HCl", value: "25.00", per: "trial" },
    { is: "titer", symbol: "V", label: "Titer", of: "NaOH", per: "trial" },
  ],
  relations: [
    { relation: "n_a = c_b * V * ratio(HCl, NaOH)", title: "Amount in the aliquot", unit: "mmol" },
    { relation: "c_a = n_a / V_a", title: "Concentration of the sample", unit: "mol/L" },
  ],
  results: [{ symbol: "c_a", name: "Concentration of the sample", unit: "mol/L" }],
  agree: "V_a",
  presumed: "0.1",
  indicator: "phenolphthalein, 2 to 3 drops",
  persistence: "The faintest pink must stay for 30 s.",
  ribbon: [
    { color: "#eef1ee", looks: "colorless", do: "keep going", end: "" },
    { color: "#fbe4ee", looks: "pink that fades", do: "one drop at a time", end: "" },
    { color: "#f2aac9", looks: "faintest pink, 30 s", do: "stop, read", end: "yes" },
  ],
};

/** What is taken over of a titration: how its end is seen. */
const endOf = (like: StageDraft | undefined): Partial<StageDraft> => {
  const seen = { ...plainTitration, ...like };
  const { indicator, persistence, persistSeconds, meniscus, ribbon } = seen;
  return {
    indicator: indicator ?? "",
    flaskPh: seen.flaskPh ?? "",
    flaskAmmonia: seen.flaskAmmonia ?? "",
    flaskMagnesium: seen.flaskMagnesium ?? "",
    persistence: persistence ?? "",
    persistSeconds: persistSeconds ?? "",
    meniscus: meniscus ?? "bottom",
    ribbon: ribbon ?? [],
  };
};

const titerOf = (titrant: string) => ({
  is: "titer",
  symbol: "V",
  label: "Titer",
  of: titrant,
  per: "trial",
});

/** A further titration, by what the method titrates with or has found. */
function further(draft: MethodDraft, fresh: StageDraft): MethodDraft {
  const { titrant, titrantSpecies, sample, like, known } = nextTitration(draft);
  const name = nameOf(draft, sample);
  const stage: StageDraft = {
    ...{ ...fresh, ...endOf(like), title: `Titrate the ${name}`, agree: "V_a", presumed: "0.1" },
    inputs: [
      known,
      {
        is: "pipette",
        symbol: "V_a",
        label: `Aliquot of the ${name}`,
        of: sample,
        value: "25.00",
        per: "trial",
      },
      titerOf(titrant),
    ],
    relations: [
      {
        relation: `n_x = c_t * V * ratio(${sample}, ${titrantSpecies})`,
        title: `Amount of ${name} in the aliquot`,
        unit: "mmol",
      },
      { relation: "c_x = n_x / V_a", title: `Concentration of the ${name}`, unit: "mol/L" },
    ],
    results: [{ symbol: "c_x", name: `Concentration of the ${name}`, unit: "mol/L" }],
  };
  return { ...draft, stages: [...draft.stages, stage] };
}

/** What a standardization is about: the titrant of the first titration, and the standard for it. */
function standardizing(draft: MethodDraft, fresh: StageDraft) {
  const standard = standardFor(draft);
  const named = withStandard(draft, standard);
  const { titrantOf: titrant, solid } = standard;
  const first = draft.stages.find(titerRow);
  const stated = first?.inputs.find(({ is, of }) => is === "given" && of === titrant);
  const ratio = `ratio(${speciesOf(named, titrant)}, ${speciesOf(named, solid)})`;
  const titrantName = nameOf(named, titrant);
  const shared: Partial<StageDraft> = {
    ...endOf(first),
    title: `Standardize the ${titrantName}`,
    results: [{ symbol: "c_t", name: `Concentration of the ${titrantName}`, unit: "mol/L" }],
    assigns: titrant,
    presumed: stated?.value ?? "0.1",
  };
  const found = foundBy(named, fresh.key, titrant);
  return { standard, titrant, titrantName, ratio, shared, found, name: nameOf(named, solid) };
}

const concentration = (titrantName: string): Row => ({
  relation: "c_t = n_t / V",
  title: `Concentration of the ${titrantName}`,
  unit: "mol/L",
});

/** Before all others: the titrant against a solid that is weighed into each flask. */
function standardized(draft: MethodDraft, fresh: StageDraft): MethodDraft {
  const { standard, titrant, titrantName, ratio, shared, found, name } = standardizing(draft, fresh);
  const { solid, flask } = standard;
  const [low, high] = flask;
  const stage: StageDraft = {
    ...{ ...fresh, ...shared, agree: "m" },
    inputs: [
      { is: "mass", symbol: "m", label: `Mass of the ${name}`, of: solid, per: "trial", low, high },
      titerOf(titrant),
    ],
    relations: [
      {
        relation: `n_t = m / M(${solid}) * ${ratio}`,
        title: `Amount of ${titrantName} that it takes`,
        unit: "mmol",
      },
      concentration(titrantName),
    ],
  };
  return { ...found, stages: [stage, ...found.stages] };
}

/** Before all others: a solution of the standard, and the titrant against aliquots of it. */
function standardizedBySolution(draft: MethodDraft, fresh: StageDraft): MethodDraft {
  const { standard, titrant, titrantName, ratio, shared, found, name } = standardizing(draft, fresh);
  const { solid, solution } = standard;
  const made: StageDraft = {
    ...{ ...fresh, ...weighedSolution(solid, name, solution) },
    ...{ key: `${fresh.key}-standard`, kind: "preparation" },
  };
  const stage: StageDraft = {
    ...{ ...fresh, ...shared, agree: "V_a" },
    inputs: [
      {
        ...{ is: "result", symbol: "c_s", label: `Concentration of the ${name}`, of: solid, per: "run" },
        ...{ stage: made.key, result: "" },
      },
      {
        is: "pipette",
        symbol: "V_a",
        label: `Aliquot of the ${name}`,
        of: solid,
        value: "25.00",
        per: "trial",
      },
      titerOf(titrant),
    ],
    relations: [
      {
        relation: `n_t = c_s * V_a * ${ratio}`,
        title: `Amount of ${titrantName} that it takes`,
        unit: "mmol",
      },
      concentration(titrantName),
    ],
  };
  return { ...found, stages: [made, stage, ...found.stages] };
}

const numberOf = (typed: string) => Number(withPoint(typed));

/** What surrounds the reaction. */
function mediumOf({ flaskPh, flaskAmmonia, flaskMagnesium }: StageDraft): Pick<TitrationStage, "medium"> {
  if (![flaskPh, flaskAmmonia, flaskMagnesium].some(given)) return {};
  return {
    medium: {
      pH: given(flaskPh) ? numberOf(flaskPh) : NaN,
      ...(given(flaskAmmonia) ? { ammonia: numberOf(flaskAmmonia) } : {}),
      ...(given(flaskMagnesium) ? { magnesium: numberOf(flaskMagnesium) } : {}),
    },
  };
}

export const titration: EditedKind<TitrationStage> = {
  words: msg`titration`,
  starters: [
    { button: msg`Add a titration`, begin: further },
    { button: msg`Standardize the titrant first, by a weighed solid`, begin: standardized },
    { button: msg`Standardize the titrant first, by a solution`, begin: standardizedBySolution },
  ],
  switchable: true,
  draft: (stage) => ({
    agree: agreeWord(stage),
    presumed: text(stage.presumed),
    expectLow: text(stage.expectMl?.[0]),
    expectHigh: text(stage.expectMl?.[1]),
    indicator: stage.indicator,
    flaskPh: text(stage.medium?.pH),
    flaskAmmonia: text(stage.medium?.ammonia),
    flaskMagnesium: text(stage.medium?.magnesium),
    persistSeconds: text(stage.persistSeconds),
    persistence: stage.persistence,
    meniscus: stage.meniscus,
    ribbon: stage.ribbon.map(({ color, looks, do: act, end }) => ({
      ...{ color, looks, do: act },
      end: end ? "yes" : "",
    })),
    expectedFrom: stage.expectedFrom,
  }),
  stage: (draft, shared) => {
    const titer = shared.inputs.find((input) => input.is === "titer")?.symbol ?? "V";
    return {
      kind: "titration",
      ...shared,
      agree: agreementOf(draft, titer, shared.result.symbol),
      ...(draft.expectedFrom ? { expectedFrom: draft.expectedFrom } : {}),
      ...(given(draft.presumed) ? { presumed: numberOf(draft.presumed) } : {}),
      ...(given(draft.expectLow) && given(draft.expectHigh)
        ? { expectMl: [numberOf(draft.expectLow), numberOf(draft.expectHigh)] as [number, number] }
        : {}),
      indicator: draft.indicator.trim(),
      ...mediumOf(draft),
      persistence: draft.persistence.trim(),
      ...(given(draft.persistSeconds) ? { persistSeconds: numberOf(draft.persistSeconds) } : {}),
      meniscus: draft.meniscus === "top" ? "top" : "bottom",
      ribbon: draft.ribbon.map((row) => ({
        color: row.color ?? "#eef1ee",
        looks: trimmed(row, "looks"),
        do: trimmed(row, "do"),
        ...(row.end === "yes" ? { end: true } : {}),
      })),
    };
  },
  gaps: ({ indicator, persistence, medium }) => [
    ...(indicator === "" ? [msg`name the indicator, as "phenolphthalein, 2 drops"; or write "none"`] : []),
    ...(persistence === "" ? [msg`say how long the end must stay, as "30 s"`] : []),
    ...(medium && !(medium.pH >= -1 && medium.pH <= 15)
      ? [msg`give the pH in the flask, from -1 to 15`]
      : []),
    ...(medium && [medium.ammonia, medium.magnesium].some((one) => one !== undefined && !(one >= 0))
      ? [msg`give ammonia and magnesium as concentrations in mol/L, as 0.1`]
      : []),
  ],
  presumed: (stage) => stage.presumed,
};

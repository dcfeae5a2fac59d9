import type { TitrationStage } from "~/core/method";
import { withPoint, msg } from "~/core/text";
import { given, text, trimmed } from "../draft-text";
import type { StageDraft } from "../draft-types";
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
const begun: Partial<StageDraft> = {
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

export const titration: EditedKind<TitrationStage> = {
  words: msg`titration`,
  starter: { button: msg`Add a titration`, first: false, values: begun },
  draft: (stage) => ({
    agree: agreeWord(stage),
    presumed: text(stage.presumed),
    expectLow: text(stage.expectMl?.[0]),
    expectHigh: text(stage.expectMl?.[1]),
    indicator: stage.indicator,
    persistSeconds: text(stage.persistSeconds),
    persistence: stage.persistence,
    meniscus: stage.meniscus,
    ribbon: stage.ribbon.map(({ color, looks, do: act, end }) => ({
      ...{ color, looks, do: act },
      end: end ? "yes" : "",
    })),
    accept: stage.accept,
    expectedFrom: stage.expectedFrom,
  }),
  stage: (draft, shared) => {
    const titer = shared.inputs.find((input) => input.is === "titer")?.symbol ?? "V";
    const number = (typed: string) => Number(withPoint(typed));
    return {
      kind: "titration",
      ...shared,
      agree: agreementOf(draft, titer, shared.result.symbol),
      ...(draft.accept ? { accept: draft.accept } : {}),
      ...(draft.expectedFrom ? { expectedFrom: draft.expectedFrom } : {}),
      ...(given(draft.presumed) ? { presumed: number(draft.presumed) } : {}),
      ...(given(draft.expectLow) && given(draft.expectHigh)
        ? { expectMl: [number(draft.expectLow), number(draft.expectHigh)] as [number, number] }
        : {}),
      indicator: draft.indicator.trim(),
      persistence: draft.persistence.trim(),
      ...(given(draft.persistSeconds) ? { persistSeconds: number(draft.persistSeconds) } : {}),
      meniscus: draft.meniscus === "top" ? "top" : "bottom",
      ribbon: draft.ribbon.map((row) => ({
        color: row.color ?? "#eef1ee",
        looks: trimmed(row, "looks"),
        do: trimmed(row, "do"),
        ...(row.end === "yes" ? { end: true } : {}),
      })),
    };
  },
  gaps: ({ indicator, persistence }) => [
    ...(indicator === "" ? [msg`name the indicator`] : []),
    ...(persistence === "" ? [msg`say how long the end must stay`] : []),
  ],
  presumed: (stage) => stage.presumed,
};

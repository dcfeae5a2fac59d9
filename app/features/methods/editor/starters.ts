import type { MethodDraft, StageDraft } from "./draft-types";
import type { Starter } from "./kinds/kind";
import { plainTitration } from "./kinds/titration";

/** A stage that says nothing yet. */
export const blankStage: Omit<StageDraft, "key" | "kind"> = {
  title: "",
  inputs: [],
  relations: [],
  results: [],
  assigns: "",
  equivalents: "",
  persistSeconds: "",
  agree: "titers",
  presumed: "",
  expectLow: "",
  expectHigh: "",
  indicator: "",
  flaskPh: "",
  flaskAmmonia: "",
  flaskMagnesium: "",
  persistence: "",
  meniscus: "bottom",
  ribbon: [],
  reagents: [],
  conditions: [],
  steps: "",
  cautions: "",
  accept: undefined,
  expectedFrom: undefined,
  plausible: [],
  carried: null,
};

/** A stage of a kind that says nothing yet. */
export const freshStage = (key: string, kind: StageDraft["kind"]): StageDraft => ({
  ...{ ...blankStage, cautions: "Goggles on.", key, kind },
});

/** A method with a further stage, begun in one of the ways of its kind. */
export function withStage(draft: MethodDraft, kind: StageDraft["kind"], { begin }: Starter): MethodDraft {
  const taken = new Set(draft.stages.map((s) => s.key));
  let n = draft.stages.length + 1;
  while (taken.has(`stage-${n}`)) n++;
  return begin(draft, freshStage(`stage-${n}`, kind));
}

/** A new method that already computes: what it says is changed piece by piece. */
export const newMethod = (id: string): MethodDraft => ({
  id,
  title: "",
  purpose: "",
  family: "acid-base",
  variantOf: "",
  differs: "",
  equations: [{ name: "neutralization", equation: "HCl + NaOH -> NaCl + H2O" }],
  substances: [
    { formula: "HCl", name: "hydrochloric acid" },
    { formula: "NaOH", name: "sodium hydroxide" },
  ],
  stages: [{ ...freshStage("stage-1", "titration"), ...plainTitration }],
  protection: "Goggles\nClosed shoes and long trousers\nGloves as the lab's rule says",
  hazards:
    "Follow the safety data sheets, your institution's rules and local waste law, which come before this text.",
  waste: "As the safety data sheets and local law say.",
  glassware: "50 mL burette\n25 mL one-mark pipette and filler\n250 mL conical flasks",
});

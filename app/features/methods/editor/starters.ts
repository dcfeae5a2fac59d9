import { Bug } from "~/core/result";
import type { MethodDraft, StageDraft } from "./draft-types";
import { editedKind } from "./kinds/table";

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

/** A first draft of a stage of each kind: it already calculates and is edited from there. */
export function newStage(key: string, kind: StageDraft["kind"]): StageDraft {
  const { starter } = editedKind({ kind });
  if (starter === null) throw new Bug(`No ${kind} is begun in the editor`);
  return { ...blankStage, cautions: "Goggles on.", ...starter.values, key, kind };
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
  stages: [newStage("stage-1", "titration")],
  protection: "Goggles\nClosed shoes and long trousers\nGloves as the lab's rule says",
  hazards:
    "Follow the safety data sheets, your institution's rules and local waste law, which come before this text.",
  waste: "As the safety data sheets and local law say.",
  glassware: "50 mL burette\n25 mL one-mark pipette and filler\n250 mL conical flasks",
});

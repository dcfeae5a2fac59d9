import type { MethodDraft, StageDraft } from "./draft";

/** A titration to begin with: an aliquot, a known titrant, a titer. */
export const newStage = (key: string, kind: StageDraft["kind"]): StageDraft => ({
  key,
  kind,
  title: kind === "titration" ? "Titrate the sample" : "Make the solution",
  inputs:
    kind === "titration"
      ? [
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
        ]
      : [
          {
            is: "mass",
            symbol: "m",
            label: "Mass of the solid",
            of: "KHC8H4O4",
            per: "run",
            low: "4.8",
            high: "5.4",
          },
          { is: "flask", symbol: "V_f", label: "Flask", of: "KHC8H4O4", value: "250.0", per: "run" },
        ],
  relations:
    kind === "titration"
      ? [
          { relation: "n_a = c_b * V * ratio(HCl, NaOH)", title: "Amount in the aliquot", unit: "mmol" },
          { relation: "c_a = n_a / V_a", title: "Concentration of the sample", unit: "mol/L" },
        ]
      : [{ relation: "c = m / M(KHC8H4O4) / V_f", title: "Concentration made", unit: "mol/L" }],
  results: [
    kind === "titration"
      ? { symbol: "c_a", name: "Concentration of the sample", unit: "mol/L" }
      : { symbol: "c", name: "Concentration made", unit: "mol/L" },
  ],
  assigns: "",
  equivalents: "",
  persistSeconds: "",
  agree: kind === "titration" ? "V_a" : "titers",
  presumed: kind === "titration" ? "0.1" : "",
  expectLow: "",
  expectHigh: "",
  indicator: kind === "titration" ? "phenolphthalein, 2 to 3 drops" : "",
  persistence: kind === "titration" ? "The faintest pink must stay for 30 s." : "",
  meniscus: "bottom",
  ribbon:
    kind === "titration"
      ? [
          { color: "#eef1ee", looks: "colorless", do: "keep going", end: "" },
          { color: "#fbe4ee", looks: "pink that fades", do: "one drop at a time", end: "" },
          { color: "#f2aac9", looks: "faintest pink, 30 s", do: "stop, read", end: "yes" },
        ]
      : [],
  reagents: [],
  conditions: [],
  steps: "",
  cautions: "Goggles on.",
  accept: undefined,
  plausible: [],
  carried: null,
});

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

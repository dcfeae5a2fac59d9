import type { AssayStage, CalibrationStage, RateStage, UnknownStage } from "~/core/method";
import type { MethodDraft, StageDraft } from "../draft-types";
import type { EditedKind, Starter } from "./kind";
import { msg, type Phrase } from "~/core/text";

interface Photometric<S extends AssayStage> {
  readonly words: Phrase;
  readonly starters?: readonly Starter[];
  /** What belongs to the kind alone, where a stage is begun in the editor. */
  readonly begun: Omit<S, keyof MostShared>;
  readonly gaps?: (stage: S) => Phrase[];
}
type MostShared = Pick<
  AssayStage,
  | ("key" | "title" | "inputs" | "relations" | "result" | "also" | "accept" | "plausible")
  | ("reagents" | "conditions" | "steps" | "cautions")
>;

/** A stage that is read on a photometer: what belongs to its line or its course is carried through, and its texts are written here. */
function readOnAPhotometer<S extends AssayStage>(photometric: Photometric<S>): EditedKind<S> {
  const { words, starters = [], begun, gaps = () => [] } = photometric;
  return {
    words: msg`read on a photometer: ${words}`,
    starters,
    switchable: false,
    draft: (stage) => ({ carried: stage }),
    stage: ({ carried, kind }, shared) => {
      const { accept: _, ...own } = (carried?.kind === kind ? carried : begun) as S;
      return { ...own, ...shared } as unknown as S;
    },
    gaps,
    presumed: () => null,
  };
}

const path = {
  is: "constant",
  symbol: "l",
  label: "Path length of the cuvette",
  value: "1.000",
  unit: "cm",
  plusMinus: "0.005",
};
const cuvette =
  "Zero the instrument on the blank.\nRinse the cuvette with the next solution, fill it, wipe it, the same side to the light.";

const begunLine: Omit<CalibrationStage, keyof MostShared> = {
  kind: "calibration",
  axis: {
    symbol: "c",
    name: "Concentration in the flask",
    unit: "mg/L",
    relations: [{ relation: "c = c_0 * V_s / V_f", title: "Concentration of a standard", unit: "mg/L" }],
  },
  line: { intercept: "a", slope: "b", model: "line", weighting: "none" },
  series: { symbol: "V_s", values: ["0.00", "2.00", "4.00", "6.00", "8.00", "10.00"] },
  strongest: 0.8,
  color: "#c05a2a",
};

/** Standards from one stock, and an unknown that is treated alike and read off their line. */
function standardsAndUnknown(draft: MethodDraft, fresh: StageDraft): MethodDraft {
  const standards: StageDraft = {
    ...{ ...fresh, title: "Read the standards", steps: cuvette, carried: null },
    inputs: [
      {
        ...{ is: "given", symbol: "c_0", label: "Concentration of the stock", unit: "mg/L", per: "run" },
        ...{ value: "50.0", plusMinus: "0.2" },
      },
      { is: "flask", symbol: "V_f", label: "Made up to", of: "standard", value: "50.0", per: "run" },
      path,
      { is: "blank", symbol: "A_0", label: "Absorbance of the blank", readings: "zeroed", per: "run" },
      {
        ...{ is: "graduated", symbol: "V_s", label: "Stock taken", of: "stock", per: "trial" },
        ...{ glass: "graduated pipette", capacity: "10" },
      },
      { is: "absorbance", symbol: "A", label: "Absorbance", per: "trial" },
    ],
    relations: [{ relation: "s = b / l", title: "Absorbance per concentration", unit: "L/(g·cm)" }],
    results: [{ symbol: "s", name: "Absorbance per concentration", unit: "L/(g·cm)" }],
  };
  const unknown: StageDraft = {
    ...{ ...fresh, key: `${fresh.key}-unknown`, kind: "unknown", title: "Read the unknown" },
    ...{ steps: cuvette, carried: null },
    inputs: [
      { is: "flask", symbol: "V_f", label: "Made up to", of: "sample", value: "50.0", per: "run" },
      { is: "pipette", symbol: "V_u", label: "Sample taken", of: "sample", value: "10.00", per: "trial" },
      { is: "absorbance", symbol: "A", label: "Absorbance", per: "trial" },
      {
        ...{ is: "read-off", symbol: "c_u", label: "Concentration in the flask", of: "sample", per: "trial" },
        ...{ stage: standards.key, result: "A" },
      },
    ],
    relations: [{ relation: "c_x = c_u * V_f / V_u", title: "Concentration in the sample", unit: "mg/L" }],
    results: [{ symbol: "c_x", name: "Concentration in the sample", unit: "mg/L" }],
  };
  return { ...draft, stages: [...draft.stages, standards, unknown] };
}

/** Absorbance in time, with what is in large excess. */
function kineticRun(draft: MethodDraft, fresh: StageDraft): MethodDraft {
  const stage: StageDraft = {
    ...{ ...fresh, title: "Follow the absorbance", steps: cuvette, carried: null },
    inputs: [
      { is: "given", symbol: "c_B", label: "What is in excess, in the cuvette", unit: "mol/L", per: "trial" },
      { is: "temperature", symbol: "T", label: "Temperature", plusMinus: "0.5", per: "run" },
      { is: "trace", symbol: "A", label: "Absorbance in time", per: "trial" },
    ],
    relations: [{ relation: "k_2 = k_1 / c_B", title: "Second-order rate constant", unit: "L/(mol·s)" }],
    results: [{ symbol: "k_2", name: "Second-order rate constant", unit: "L/(mol·s)" }],
  };
  return { ...draft, stages: [...draft.stages, stage] };
}

export const calibration = readOnAPhotometer<CalibrationStage>({
  words: msg`standards and their line`,
  starters: [{ button: msg`Add standards and an unknown`, begin: standardsAndUnknown }],
  begun: begunLine,
  gaps: ({ strongest, series }) => [
    ...(strongest > 0 ? [] : [msg`say about what the strongest standard reads`]),
    ...(series.values.length < 2 ? [msg`a series needs two standards at least`] : []),
  ],
});

export const unknown = readOnAPhotometer<UnknownStage>({
  words: msg`an unknown read off a line`,
  begun: { kind: "unknown" },
});

export const rate = readOnAPhotometer<RateStage>({
  words: msg`absorbance in time`,
  starters: [{ button: msg`Add a kinetic run`, begin: kineticRun }],
  begun: { kind: "rate", presumed: 0.1, rate: { symbol: "k_1", excess: "c_B" } },
});

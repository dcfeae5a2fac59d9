import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import type { SolutionView } from "~/protocol/shelf";
import type { PreparationEvaluation } from "~/core/stages";
import { type Substance, substanceOf, substances } from "~/catalog/substances";
import { type HouseRules, massDecimals } from "~/core/rules";
import { withPoint } from "~/core/text";
import { parseFormula, prettyFormula } from "~/core/chemistry";
import { type Making, massForSolution } from "~/core/prepare";
import { concentrationText } from "~/protocol/concentration";
import type { FormProblems } from "../house-rules/form";
import { type FormField, useFormState } from "./use-form";
import { TextInput } from "../../ui/text-input";
import {
  daysFrom,
  evaluateMaking,
  fieldsGrid,
  KeepingFields,
  PutButton,
  Step,
  twoColumns,
  usePut,
  type NewBottleProps,
  markedProblem,
  filled,
  keptFrom,
} from "./parts";
import { numberIn } from "../../ui/number-in";
import { WeighPlan } from "./weigh-plan";

const weighings = [
  { value: "transfer", label: "by difference: boat with solid, boat after transfer" },
  { value: "addition", label: "by difference: vessel empty, vessel with the solid" },
  { value: "tared", label: "tared: the mass as shown" },
] as const;

type Weighing = (typeof weighings)[number]["value"];

const freshWeighing = {
  substance: "KHC8H4O4",
  solid: "KHC8H4O4",
  name: "potassium hydrogen phthalate, 0.1 mol/L",
  target: "0.1",
  volume: "250",
  purity: "100.00",
  purityPlusMinus: "0.05",
  weighing: "transfer",
  fromId: "",
  person: "",
  amount: "250",
  restandardizeBy: "",
  hazards: "",
  note: "",
};

/** A solution made from a weighed solid: the plan, the weighing, the concentration that came of it. */
export function WeighForm({ bottles, rules, today }: NewBottleProps) {
  const { put, problems, busy } = usePut();
  const form = useFormState(freshWeighing, problems);
  const { values, set, field } = form;
  const { known, formula, making, typed, solid, keys, weighing, evaluated, decimals, plan } = weighingOf(
    values,
    rules,
  );
  const solids = bottles.filter((b) => b.form === "solid" && b.current);

  const chooseSubstance = substanceChooser(set, values, today);
  const chooseJar = jarChooser({ solids, set, known, formula, values });
  const submit = () =>
    put({
      intent: "make",
      formula,
      name: (values.name ?? "").trim(),
      making,
      typed: filled(typed),
      fromId: values.fromId || null,
      ...keptFrom(values),
    });
  const formulaProblem = parsedProblem(solid);

  return (
    <Box sx={twoColumns}>
      <Box sx={{ display: "grid", gap: 2, minWidth: 0 }}>
        <Step number={1} title="What you want">
          <WantedFields
            formula={formula}
            chooseSubstance={chooseSubstance}
            set={set}
            problems={problems}
            field={field}
            formulaProblem={formulaProblem}
            chooseJar={chooseJar}
            solids={solids}
          />
        </Step>
        <Step number={2} title="What you weighed">
          <WeighedFields
            field={field}
            keys={keys}
            weighing={weighing}
            evaluated={evaluated}
            decimals={decimals}
          />
        </Step>
        <Step number={3} title="On the label">
          <KeepingFields form={form} unit="mL" />
        </Step>
        <PutButton busy={busy} problem={markedProblem(problems)} onClick={submit}>
          Put it on the shelf
        </PutButton>
      </Box>
      <Box sx={{ position: { md: "sticky" }, top: 16 }}>
        <WeighPlan plan={plan} formula={formula} evaluated={evaluated} target={numberIn(values.target)} />
      </Box>
    </Box>
  );
}

interface WantedFieldsProps {
  readonly formula: string;
  readonly chooseSubstance: (chosen: string) => void;
  readonly set: (changes: Readonly<Record<string, string>>) => void;
  readonly problems: FormProblems;
  readonly field: (name: string, problem?: string) => FormField;
  readonly formulaProblem: string | null;
  readonly chooseJar: (id: string) => void;
  readonly solids: SolutionView[];
}

function WantedFields({
  formula,
  chooseSubstance,
  set,
  problems,
  field,
  formulaProblem,
  chooseJar,
  solids,
}: WantedFieldsProps) {
  return (
    <Box sx={fieldsGrid}>
      <Autocomplete
        freeSolo
        options={substances.map((s) => s.formula)}
        getOptionLabel={(option) => {
          const s = substances.find((x) => x.formula === option);
          return s ? `${s.name} (${prettyFormula(s.formula)})` : option;
        }}
        value={formula}
        onChange={(_, chosen) => chosen && chooseSubstance(chosen)}
        onInputChange={(_, text, reason) => reason === "input" && set({ substance: text, solid: text })}
        renderInput={(params) => (
          <TextField
            {...params}
            label="Substance"
            error={problems.formula !== undefined}
            helperText={problems.formula ?? "choose, or type its formula"}
          />
        )}
      />
      <TextInput label="Name on the label" field={field("name")} />
      <TextInput label="Concentration wanted, mol/L" field={field("target")} number />
      <TextInput label="Flask, mL" field={field("volume")} number />
      <TextInput
        label="Weighed as, formula"
        field={field("solid", formulaProblem ?? undefined)}
        help="with its water: Na2S2O3·5H2O"
      />
      <TextInput
        label="From the jar"
        field={{ ...field("fromId"), change: chooseJar }}
        choices={[
          { value: "", label: "none of the shelf" },
          ...solids.map((b) => ({
            value: b.id,
            label: `${b.code} ${b.name}, ${b.current ? concentrationText(b.current) : ""}`,
          })),
        ]}
      />
      <TextInput label="Purity, %" field={field("purity")} number />
      <TextInput label="Purity ±, %" field={field("purityPlusMinus")} number />
    </Box>
  );
}

interface WeighedFieldsProps {
  readonly field: (name: string, problem?: string) => FormField;
  readonly keys: string[];
  readonly weighing: Weighing;
  readonly evaluated: { stage: PreparationEvaluation; problems: Readonly<Record<string, string>> } | null;
  readonly decimals: number;
}

function WeighedFields({ field, keys, weighing, evaluated, decimals }: WeighedFieldsProps) {
  return (
    <Box sx={fieldsGrid}>
      <Box sx={{ gridColumn: "1 / -1" }}>
        <TextInput label="Weighed" field={field("weighing")} choices={weighings} />
      </Box>
      {keys.map((key, i) => (
        <TextInput
          key={key}
          label={`${weighingLabel(weighing, i)}, g`}
          field={field(key, evaluated?.problems[key])}
          number
          help={`${decimals} decimals`}
        />
      ))}
    </Box>
  );
}

function substanceChooser(
  set: (changes: Readonly<Record<string, string>>) => void,
  values: Readonly<Record<string, string>>,
  today: string,
) {
  return (chosen: string) => {
    const substance = substances.find((s) => s.formula === chosen || s.name === chosen);
    const next = substance?.formula ?? chosen;
    set({
      substance: next,
      solid: substance?.madeFrom ?? next,
      ...(substance
        ? {
            name: `${substance.name}, ${values.target ?? ""} mol/L`,
            purity: substance.purity?.[0] ?? "100",
            purityPlusMinus: substance.purity?.[1] ?? "0.5",
            hazards: substance.hazards.startsWith("none") ? "" : substance.hazards,
            restandardizeBy: daysFrom(today, substance.restandardizeDays),
          }
        : {}),
      fromId: "",
    });
  };
}

function jarChooser({
  solids,
  set,
  known,
  formula,
  values,
}: {
  readonly solids: SolutionView[];
  readonly set: (changes: Readonly<Record<string, string>>) => void;
  readonly known: Substance | undefined;
  readonly formula: string;
  readonly values: Readonly<Record<string, string>>;
}) {
  return (id: string) => {
    const jar = solids.find((b) => b.id === id);
    set({
      fromId: id,
      ...(jar?.current
        ? {
            solid: jar.formula,
            purity: jar.current.value,
            purityPlusMinus: jar.current.plusMinus,
            ...(known?.madeFrom === jar.formula || formula === jar.formula
              ? {}
              : { substance: jar.formula, name: `${jar.name}, ${values.target ?? ""} mol/L` }),
          }
        : {}),
    });
  };
}

function weighingOf(values: Readonly<Record<string, string>>, rules: HouseRules) {
  const [formula, solid] = [(values.substance ?? "").trim(), (values.solid ?? "").trim()];
  const known = substanceOf(formula);
  const plan = massForSolution({
    formula: solid,
    molPerL: numberIn(values.target) ?? 0,
    volumeMl: numberIn(values.volume) ?? 0,
    purityPercent: numberIn(values.purity) ?? 0,
  });
  const decimals = massDecimals(rules);
  const weighing = (values.weighing ?? "transfer") as Weighing;
  const making: Making = {
    how: "weighed",
    solid,
    solidName: substanceOf(solid)?.name ?? prettyOr(solid),
    weighing,
    ...(plan.ok ? { window: rounded(plan.value.window) } : {}),
    purity: { percent: plain(values.purity, "100"), plusMinus: plain(values.purityPlusMinus, "0") },
    flaskMl: plain(values.volume, "0"),
  };
  const name = (values.name ?? "").trim() || "solution";
  const keys = weighing === "tared" ? ["m:mass.tared"] : ["m:mass.before", "m:mass.after"];
  const typed = Object.fromEntries([...keys, "V:volume.taken"].map((key) => [key, values[key] ?? ""]));
  const evaluated = evaluateMaking(formula, name, making, typed, rules);
  return { known, formula, making, typed, solid, keys, weighing, evaluated, decimals, plan };
}

const prettyOr = (formula: string) => (parseFormula(formula).ok ? prettyFormula(formula) : formula);

const rounded = ([low, high]: readonly [number, number]): [number, number] => [
  Number(low.toPrecision(3)),
  Number(high.toPrecision(3)),
];

const plain = (text: string | undefined, otherwise: string): string =>
  numberIn(text) === null ? otherwise : withPoint(text).replace(/^\./, "0.");

function weighingLabel(weighing: Weighing, i: number): string {
  if (weighing === "tared") return "Mass";
  const [first, second] =
    weighing === "addition"
      ? ["Vessel empty", "Vessel with the solid"]
      : ["Boat with solid", "Boat after transfer"];
  return (i === 0 ? first : second) ?? "";
}

function parsedProblem(formula: string): string | null {
  if (formula === "") return "Type the formula of what is weighed";
  const parsed = parseFormula(formula);
  return parsed.ok ? null : parsed.problem.message;
}

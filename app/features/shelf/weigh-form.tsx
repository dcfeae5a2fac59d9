import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import type { SolutionView } from "~/protocol/shelf";
import { substances } from "~/catalog/substances";
import { parseFormula, prettyFormula } from "~/core/chemistry";
import { concentrationText } from "~/protocol/concentration";
import type { FormProblems } from "../house-rules/form";
import { type FormField, useFormState } from "./use-form";
import { MolarInput } from "../../ui/molar-input";
import { TextInput } from "../../ui/text-input";
import {
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
import {
  changesByJar,
  changesBySubstance,
  freshWeighing,
  type Weighing,
  weighingOf,
  weighings,
} from "./weighing";
import { useSay } from "../../words/text";
import { msg, type Phrase } from "~/core/text";

/** A solution made from a weighed solid: the plan, the weighing, the concentration that came of it. */
export function WeighForm({ bottles, rules, today }: NewBottleProps) {
  const say = useSay();
  const { put, problems, busy } = usePut();
  const form = useFormState(freshWeighing, problems);
  const { values, set, field } = form;
  const weighed = weighingOf(values, rules);
  const { formula, making, typed, solid, evaluated, plan } = weighed;
  const solids = bottles.filter((b) => b.form === "solid" && b.current);

  const target = values.target ?? "";
  const chooseSubstance = (chosen: string) => set(changesBySubstance(chosen, target, today));
  const jarOf = (id: string) => solids.find((b) => b.id === id);
  const chooseJar = (id: string) => set(changesByJar(jarOf(id), formula, target));
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
        <Step number={1} title={say`What you want`}>
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
        <Step number={2} title={say`What you weighed`}>
          <WeighedFields field={field} weighed={weighed} />
        </Step>
        <Step number={3} title={say`On the label`}>
          <KeepingFields form={form} unit="mL" />
        </Step>
        <PutButton busy={busy} problem={markedProblem(problems)} onClick={submit}>
          {say`Put it on the shelf`}
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
  readonly field: (name: string, problem?: Phrase) => FormField;
  readonly formulaProblem: Phrase | null;
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
  const say = useSay();
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
            label={say`Substance`}
            error={problems.formula !== undefined}
            helperText={say(problems.formula ?? say`choose, or type its formula`)}
          />
        )}
      />
      <TextInput label={say`Name on the label`} field={field("name")} />
      <MolarInput label={say`Concentration wanted, mol/L`} field={field("target")} />
      <TextInput label={say`Flask, mL`} field={field("volume")} number />
      <TextInput
        label={say`Weighed as, formula`}
        field={field("solid", formulaProblem ?? undefined)}
        help={say`with its water: Na2S2O3·5H2O`}
      />
      <TextInput
        label={say`From the jar`}
        field={{ ...field("fromId"), change: chooseJar }}
        choices={[
          { value: "", label: say`none of the shelf` },
          ...solids.map((b) => ({
            value: b.id,
            label: say`${b.code} ${b.name}, ${b.current ? concentrationText(b.current) : ""}`,
          })),
        ]}
      />
      <TextInput label={say`Purity, %`} field={field("purity")} number />
      <TextInput label={say`Purity ±, %`} field={field("purityPlusMinus")} number />
    </Box>
  );
}

interface WeighedFieldsProps {
  readonly field: (name: string, problem?: Phrase) => FormField;
  readonly weighed: ReturnType<typeof weighingOf>;
}

function WeighedFields({ field, weighed }: WeighedFieldsProps) {
  const say = useSay();
  const { keys, weighing, evaluated, decimals } = weighed;
  return (
    <Box sx={fieldsGrid}>
      <Box sx={{ gridColumn: "1 / -1" }}>
        <TextInput label={say`Weighed`} field={field("weighing")} choices={weighings} />
      </Box>
      {keys.map((key, i) => (
        <TextInput
          key={key}
          label={say`${weighingLabel(weighing, i)}, g`}
          field={field(key, evaluated?.problems[key])}
          number
          help={say`${decimals} decimals`}
        />
      ))}
    </Box>
  );
}

function weighingLabel(weighing: Weighing, i: number): Phrase {
  if (weighing === "tared") return msg`Mass`;
  const [first, second] =
    weighing === "addition"
      ? [msg`Vessel empty`, msg`Vessel with the solid`]
      : [msg`Boat with solid`, msg`Boat after transfer`];
  return (i === 0 ? first : second) ?? "";
}

function parsedProblem(formula: string): Phrase | null {
  if (formula === "") return msg`Type the formula of what is weighed`;
  const parsed = parseFormula(formula);
  return parsed.ok ? null : parsed.problem.message;
}

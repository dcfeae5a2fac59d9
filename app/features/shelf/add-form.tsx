import Box from "@mui/material/Box";
import { substanceOf, substances } from "~/catalog/substances";
import { type FormField, useFormState } from "./use-form";
import { MolarInput } from "../../ui/molar-input";
import { TextInput } from "../../ui/text-input";
import {
  daysFrom,
  fieldsGrid,
  KeepingFields,
  Mind,
  mindOf,
  PutButton,
  Step,
  usePut,
  type NewBottleProps,
  markedProblem,
  keptFrom,
} from "./parts";
import { useSay } from "../../words/text";
import { type Phrase } from "~/core/text";

const emptyBottle = {
  form: "solid",
  formula: "",
  name: "",
  how: "certificate",
  value: "",
  plusMinus: "",
  person: "",
  amount: "",
  restandardizeBy: "",
  hazards: "",
  note: "",
};

/** A bottle that came from elsewhere: what its certificate says, or what is merely written on it. */
export function AddForm({ today }: NewBottleProps) {
  const say = useSay();
  const { put, problems, busy } = usePut();
  const form = useFormState(emptyBottle, problems);
  const { values, set, field } = form;
  const solid = values.form === "solid";
  const chooseFormula = (formula: string) => {
    const substance = substances.find((s) => s.formula === formula.trim());
    set({
      formula,
      ...(substance
        ? {
            form: substance.form,
            name: substance.name,
            hazards: substance.hazards.startsWith("none") ? "" : substance.hazards,
            restandardizeBy: daysFrom(today, substance.restandardizeDays),
            ...(substance.purity ? { value: substance.purity[0], plusMinus: substance.purity[1] } : {}),
          }
        : {}),
    });
  };
  const text = (name: string) => (values[name] ?? "").trim();
  const submit = () =>
    put({
      intent: "add",
      form: solid ? "solid" : "solution",
      formula: text("formula"),
      name: text("name"),
      how: values.how === "nominal" ? "nominal" : "certificate",
      value: text("value"),
      plusMinus: text("plusMinus"),
      ...keptFrom(values),
    });
  return (
    <Box sx={{ display: "grid", gap: 2, maxWidth: 820 }}>
      <Step number={1} title={say`What it is`}>
        <WhatItIs field={field} chooseFormula={chooseFormula} solid={solid} />
        {substanceOf(text("formula")) && <Mind lines={mindOf(text("formula"))} />}
      </Step>
      <Step number={2} title={say`On the label`}>
        <KeepingFields form={form} unit={solid ? "g" : "mL"} />
      </Step>
      <PutButton busy={busy} problem={markedProblem(problems)} onClick={submit}>
        {say`Put it on the shelf`}
      </PutButton>
    </Box>
  );
}

interface WhatItIsProps {
  readonly field: (name: string, problem?: Phrase) => FormField;
  readonly chooseFormula: (formula: string) => void;
  readonly solid: boolean;
}

function WhatItIs({ field, chooseFormula, solid }: WhatItIsProps) {
  const say = useSay();
  return (
    <Box sx={fieldsGrid}>
      <TextInput
        label={say`It is a`}
        field={field("form")}
        choices={[
          { value: "solid", label: "solid" },
          { value: "solution", label: "solution" },
        ]}
      />
      <TextInput
        label={say`Formula`}
        field={{ ...field("formula"), change: chooseFormula }}
        help={say`such as KHC8H4O4 or CuSO4·5H2O`}
      />
      <TextInput label={say`Name`} field={field("name")} />
      <TextInput
        label={say`Known`}
        field={field("how")}
        choices={[
          { value: "certificate", label: say`by its certificate` },
          { value: "nominal", label: say`nominally, not measured` },
        ]}
      />
      {solid ? (
        <TextInput label={say`Purity, %`} field={field("value")} number />
      ) : (
        <MolarInput label={say`Concentration, mol/L`} field={field("value")} />
      )}
      <TextInput
        label={solid ? "±, %" : say`±, mol/L`}
        field={field("plusMinus")}
        number
        help={say`half the width; empty for none`}
      />
    </Box>
  );
}

import Box from "@mui/material/Box";
import { substanceOf, substances } from "~/catalog/substances";
import { type FormField, useFormState } from "./use-form";
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
      <Step number={1} title="What it is">
        <WhatItIs field={field} chooseFormula={chooseFormula} solid={solid} />
        {substanceOf(text("formula")) && <Mind lines={mindOf(text("formula"))} />}
      </Step>
      <Step number={2} title="On the label">
        <KeepingFields form={form} unit={solid ? "g" : "mL"} />
      </Step>
      <PutButton busy={busy} problem={markedProblem(problems)} onClick={submit}>
        Put it on the shelf
      </PutButton>
    </Box>
  );
}

interface WhatItIsProps {
  readonly field: (name: string, problem?: string) => FormField;
  readonly chooseFormula: (formula: string) => void;
  readonly solid: boolean;
}

function WhatItIs({ field, chooseFormula, solid }: WhatItIsProps) {
  return (
    <Box sx={fieldsGrid}>
      <TextInput
        label="It is a"
        field={field("form")}
        choices={[
          { value: "solid", label: "solid" },
          { value: "solution", label: "solution" },
        ]}
      />
      <TextInput
        label="Formula"
        field={{ ...field("formula"), change: chooseFormula }}
        help="such as KHC8H4O4 or CuSO4·5H2O"
      />
      <TextInput label="Name" field={field("name")} />
      <TextInput
        label="Known"
        field={field("how")}
        choices={[
          { value: "certificate", label: "by its certificate" },
          { value: "nominal", label: "nominally, not measured" },
        ]}
      />
      <TextInput label={solid ? "Purity, %" : "Concentration, mol/L"} field={field("value")} number />
      <TextInput
        label={solid ? "±, %" : "±, mol/L"}
        field={field("plusMinus")}
        number
        help="half the width; empty for none"
      />
    </Box>
  );
}

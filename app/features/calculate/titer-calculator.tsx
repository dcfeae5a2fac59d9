import {
  type Equation,
  balance,
  equationText,
  parseEquation,
  parseFormula,
  speciesKey,
} from "~/core/chemistry";
import { calculate, type CalculatedStep } from "~/core/prepare";
import { failure, problemText, type Result } from "~/core/result";
import type { FormField } from "../shelf/use-form";
import { MolarInput } from "../../ui/molar-input";
import { TextInput } from "../../ui/text-input";
import { Board, Calculator, useTexts } from "./board";
import { numberIn } from "../../ui/number-in";
import { useSay } from "../../words/text";
import { type Phrase } from "~/core/text";

/** Titer that an amount takes, and whether a burette holds it. */
export function TiterCalculator() {
  const say = useSay();
  const { texts, words, number } = useTexts({
    equation: "H2SO4 + NaOH -> Na2SO4 + H2O",
    analyte: "H2SO4",
    titrant: say`NaOH`,
    ca: "0.05",
    Va: "20",
    ct: "0.1",
  });
  const read = parseEquation(texts.equation ?? "");
  const balanced = read.ok ? balance(read.value) : read;
  const [ca, Va, ct] = [numberIn(texts.ca), numberIn(texts.Va), numberIn(texts.ct)];
  const species = balanced.ok
    ? [...balanced.value.left, ...balanced.value.right].map((term) => speciesKey(term.formula))
    : [];
  const stands = (text: string) => {
    const formula = parseFormula(text.trim());
    return formula.ok && species.includes(speciesKey(formula.value));
  };
  const missing = [texts.analyte ?? "", texts.titrant ?? ""].find((text) => !stands(text));
  const result: Result<CalculatedStep[]> | null = !balanced.ok
    ? null
    : missing !== undefined
      ? failure(say`${missing.trim() || say`Something`} is not in the equation`)
      : ca === null || Va === null || ct === null
        ? null
        : calculate(
            [
              { symbol: "c_a", value: ca, unit: "mol/L" },
              { symbol: "V_a", value: Va, unit: "mL" },
              { symbol: "c_t", value: ct, unit: "mol/L" },
            ],
            [
              { relation: "n_a = c_a * V_a", title: say`What is in the flask`, unit: "mmol" },
              {
                relation: `n_t = n_a * ratio(${(texts.titrant ?? "").trim()}, ${(texts.analyte ?? "").trim()})`,
                title: say`Titrant needed`,
                unit: "mmol",
              },
              { relation: "V = n_t / c_t", title: say`Expected titer`, unit: "mL" },
            ],
            [equationText(balanced.value)],
          );
  const problem = balanced.ok ? undefined : problemText(balanced.problem);
  return (
    <Calculator
      fields={
        <TiterFields words={words} problem={problem && say(problem)} balanced={balanced} number={number} />
      }
    >
      <Board result={result} />
    </Calculator>
  );
}

interface TiterFieldsProps {
  readonly words: (name: string, problem?: Phrase) => FormField;
  readonly problem: Phrase | undefined;
  readonly balanced: Result<Equation>;
  readonly number: (name: string) => FormField;
}

function TiterFields({ words, problem, balanced, number }: TiterFieldsProps) {
  const say = useSay();
  return (
    <>
      <TextInput
        label={say`Equation`}
        field={words("equation", problem)}
        help={balanced.ok ? equationText(balanced.value) : undefined}
        multiline
      />
      <TextInput label={say`In the flask`} field={words("analyte")} help={say`as written in the equation`} />
      <MolarInput label={say`Its concentration, mol/L`} field={number("ca")} />
      <TextInput label={say`Aliquot, mL`} field={number(say`Va`)} number />
      <TextInput label={say`In the burette`} field={words("titrant")} />
      <MolarInput label={say`Concentration of the titrant, mol/L`} field={number("ct")} />
    </>
  );
}

import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import { type DeliveringGlass, calculate, massForSolution, planDilution } from "~/core/prepare";
import { parseFormula } from "~/core/chemistry";
import { problemText } from "~/core/result";
import type { FormField } from "../shelf/use-form";
import { MolarInput } from "../../ui/molar-input";
import { TextInput } from "../../ui/text-input";
import { glasses, glassOf } from "../shelf/glass";
import { Board, Calculator, useTexts } from "./board";
import { numberIn } from "../../ui/number-in";
import { useSay } from "../../words/text";
import { type Phrase } from "~/core/text";

/** m = c V M / P. */
export function MassCalculator() {
  const say = useSay();
  const { texts, words, number } = useTexts({ formula: say`Na2C2O4`, c: "0.05", V: "250", P: "99.95" });
  const formula = (texts.formula ?? "").trim();
  const parsed = parseFormula(formula);
  const [c, V, P] = [numberIn(texts.c), numberIn(texts.V), numberIn(texts.P)];
  const plan =
    parsed.ok && c !== null && V !== null && P !== null
      ? massForSolution({ formula, molPerL: c, volumeMl: V, purityPercent: P })
      : null;
  const result =
    plan?.ok && c !== null && V !== null && P !== null
      ? calculate(
          [
            { symbol: "c", value: c, unit: "mol/L" },
            { symbol: "V", value: V, unit: "mL" },
            { symbol: "P", value: P, unit: "%" },
          ],
          [
            { relation: "n = c * V", title: say`Amount wanted`, unit: "mmol" },
            { relation: `m = n * M(${formula}) / P`, title: say`Mass to weigh`, unit: "g" },
          ],
        )
      : plan && !plan.ok
        ? plan
        : null;
  return (
    <Calculator
      fields={
        <>
          <TextInput
            label={say`Formula as weighed`}
            field={words("formula", formula !== "" && !parsed.ok ? problemText(parsed.problem) : undefined)}
            help={say`with its water: H2C2O4·2H2O`}
          />
          <MolarInput label={say`Concentration, mol/L`} field={number("c")} />
          <TextInput label={say`Volume, mL`} field={number("V")} number />
          <TextInput label={say`Purity, %`} field={number("P")} number />
        </>
      }
    >
      <Board result={result} />
      <Typography color="textSecondary">
        {say`To keep what you make:`} <Link to="/shelf/new?as=weigh">{say`make it on the shelf`}</Link>.
      </Typography>
    </Calculator>
  );
}

/** c1 V1 = c2 V2, rounded to what the glass delivers. */
export function DilutionCalculator() {
  const say = useSay();
  const { texts, words, number } = useTexts({ c0: "0.538", c: "0.23", V: "25", glass: "burette", start: "" });
  const [c0, c, V] = [numberIn(texts.c0), numberIn(texts.c), numberIn(texts.V)];
  const glass = glassOf(texts.glass);
  const plan =
    c0 !== null && c !== null && V !== null
      ? planDilution({
          stock: c0,
          target: c,
          volumeMl: V,
          glass,
          burette: { capacityMl: 50, resolutionMl: 0.1 },
          startMl: numberIn(texts.start) ?? 0,
        })
      : null;
  const result =
    plan?.ok && c0 !== null && c !== null && V !== null
      ? calculate(
          [
            { symbol: "c_0", value: c0, unit: "mol/L" },
            { symbol: "c_w", value: c, unit: "mol/L" },
            { symbol: "V", value: V, unit: "mL" },
            { symbol: "V_d", value: plan.value.deliveredMl, unit: "mL" },
          ],
          [
            { relation: "V_0 = c_w * V / c_0", title: say`Stock volume, calculated`, unit: "mL" },
            {
              relation: "c_m = c_0 * V_d / V",
              title: say`Concentration with the delivered volume`,
              unit: "mol/L",
            },
          ],
        )
      : plan && !plan.ok
        ? plan
        : null;
  return (
    <Calculator fields={<DilutionFields number={number} words={words} glass={glass} />}>
      <Board result={result} answer={0} />
      {plan?.ok && (
        <Typography data-testid="delivered" sx={{ fontWeight: 650 }}>
          {say`Take ${plan.value.deliveredMl} mL`}
          {plan.value.stopMl !== null && say`, stop at ${plan.value.stopMl}`}
          {say`: ${plan.value.departurePercent >= 0 ? "+" : "−"}${Math.abs(plan.value.departurePercent).toFixed(2)} % off target.`}
        </Typography>
      )}
      {plan?.ok &&
        plan.value.cautions.map((caution) => <Typography key={say(caution)}>{say(caution)}.</Typography>)}
      <Typography color="textSecondary" sx={{ mt: 1 }}>
        {say`Acid into water, never water into acid.`}
      </Typography>
    </Calculator>
  );
}

interface DilutionFieldsProps {
  readonly number: (name: string) => FormField;
  readonly words: (name: string, problem?: Phrase) => FormField;
  readonly glass: DeliveringGlass;
}

function DilutionFields({ number, words, glass }: DilutionFieldsProps) {
  const say = useSay();
  return (
    <>
      <MolarInput label={say`Stock, mol/L`} field={number("c0")} />
      <MolarInput label={say`Wanted, mol/L`} field={number("c")} />
      <TextInput label={say`Made up to, mL`} field={number("V")} number />
      <TextInput label={say`Stock delivered by`} field={words("glass")} choices={glasses} />
      {glass.kind === "burette" && (
        <TextInput
          label={say`Burette stands at, mL`}
          field={words("start")}
          number
          help={say`50 mL, read to tenths`}
        />
      )}
    </>
  );
}

/** How much of a liquid a mixture holds that is labeled in % by volume: V φ ρ / M. */
export function LiquidCalculator() {
  const say = useSay();
  // Density of ethanol at 20 °C: handbook, from memory.
  const { texts, words, number } = useTexts({ formula: "C2H5OH", V: "100", share: "12.0", density: "0.789" });
  const formula = (texts.formula ?? "").trim();
  const parsed = parseFormula(formula);
  const [V, share, density] = [numberIn(texts.V), numberIn(texts.share), numberIn(texts.density)];
  const tooMuch = share !== null && share > 100;
  const result =
    parsed.ok && V !== null && share !== null && density !== null && !tooMuch
      ? calculate(
          [
            { symbol: "V", value: V, unit: "mL" },
            { symbol: "φ", value: share, unit: "%" },
            { symbol: "ρ", value: density, unit: "g/mL" },
          ],
          [
            { relation: "V_l = φ * V", title: say`Volume of the pure liquid`, unit: "mL" },
            { relation: "m = V_l * ρ", title: say`Its mass`, unit: "g" },
            { relation: `n = m / M(${formula})`, title: say`Its amount`, unit: "mol" },
            { relation: "c = n / V", title: say`Its concentration`, unit: "mol/L" },
            { relation: "γ = m / V", title: say`Its mass in a volume`, unit: "% w/v" },
          ],
        )
      : null;
  return (
    <Calculator
      fields={
        <>
          <TextInput
            label={say`Formula of the liquid`}
            field={words("formula", formula !== "" && !parsed.ok ? problemText(parsed.problem) : undefined)}
          />
          <TextInput label={say`Volume of the mixture, mL`} field={number("V")} number />
          <TextInput
            label={say`Share by volume, %`}
            field={tooMuch ? { ...number("share"), problem: say`Not above 100 %` } : number("share")}
            number
            help={say`as on a bottle: 12.0 % vol`}
          />
          <TextInput
            label={say`Density of the pure liquid, g/mL`}
            field={number("density")}
            number
            help={say`ethanol at 20 °C: 0.789`}
          />
        </>
      }
    >
      <Board result={result} answer={1} />
    </Calculator>
  );
}

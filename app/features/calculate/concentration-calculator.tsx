import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { type Result, problemText } from "~/core/result";
import { type Formula, parseFormula } from "~/core/chemistry";
import { calculate, type ConcentrationUnit, convertConcentration, fiveFigures } from "~/core/prepare";
import type { FormField } from "../shelf/use-form";
import { colors, fonts } from "../../theme/theme";
import { TextInput } from "../../ui/text-input";
import { Board, Calculator, useTexts } from "./board";
import { numberIn } from "../../ui/number-in";
import { useSay } from "../../words/text";
import { type Phrase, unitText } from "~/core/text";

const units: readonly ConcentrationUnit[] = ["mol/L", "N", "g/L", "% w/v", "mg/L", "% w/w", "ppm"];

type Converted = NonNullable<ReturnType<typeof convertConcentration>>;

/** The same concentration in each of its forms. */
function Forms({ forms }: { forms: Converted }) {
  const say = useSay();
  return (
    <Box
      component="table"
      data-testid="answer"
      sx={{
        borderCollapse: "collapse",
        mb: 2.5,
        fontFamily: fonts.reading,
        fontSize: "1.15rem",
        "& td": { py: 0.4, pr: 3 },
      }}
    >
      <tbody>
        {(
          [
            ["mol/L", forms.molPerL],
            ["N", forms.normality],
            ["g/L", forms.gPerL],
            ["% w/v", forms.percentWV],
            ["mg/L", forms.mgPerL],
            ["% w/w", forms.percentWW],
            [say`ppm (mg/kg)`, forms.ppm],
          ] as const
        ).map(([name, x]) => (
          <Box component="tr" key={name} sx={{ borderTop: `1px solid ${colors.line}` }}>
            <Box component="td" sx={{ textAlign: "right" }}>
              {x === null ? "–" : fiveFigures(x)}
            </Box>
            <td>{name}</td>
          </Box>
        ))}
      </tbody>
    </Box>
  );
}

/** One concentration in all its forms. */
export function ConcentrationCalculator() {
  const say = useSay();
  const { texts, words, number } = useTexts({
    formula: "H2SO4",
    value: "0.5",
    unit: "mol/L",
    z: "2",
    density: "1.03",
  });
  const formula = (texts.formula ?? "").trim();
  const parsed = parseFormula(formula);
  const [value, z, density] = [numberIn(texts.value), numberIn(texts.z), numberIn(texts.density)];
  const unit = units.find((u) => u === texts.unit) ?? "mol/L";
  const forms =
    parsed.ok && value !== null && z !== null && z > 0
      ? convertConcentration({ formula, value, unit, equivalents: z, densityGPerMl: density })
      : null;
  const needsDensity = parsed.ok && value !== null && z !== null && forms === null;
  const working =
    forms &&
    calculate(
      [
        { symbol: "c", value: Number(forms.molPerL.toPrecision(8)), unit: "mol/L" },
        { symbol: "z", value: z ?? 1, unit: "1" },
        ...(density === null ? [] : [{ symbol: "ρ", value: density, unit: "g/mL" }]),
      ],
      [
        { relation: "N = z * c", title: say`Normality: equivalents per liter`, unit: "N" },
        { relation: `γ = c * M(${formula})`, title: say`Mass per liter`, unit: "g/L" },
        { relation: "β = γ", title: say`Grams per 100 mL`, unit: "% w/v" },
        ...(density === null ? [] : [{ relation: "w = γ / ρ", title: say`Mass fraction`, unit: "% w/w" }]),
      ],
    );
  return (
    <Calculator
      fields={
        <ConcentrationFields
          words={words}
          formula={formula}
          parsed={parsed}
          number={number}
          needsDensity={needsDensity}
        />
      }
    >
      {forms && <Forms forms={forms} />}
      {forms?.ppm !== null && forms && (
        <Typography color="textSecondary" sx={{ mb: 1.5 }}>
          {say`ppm here means mg/kg; in dilute water that is about mg/L.`}
        </Typography>
      )}
      <Board result={working} answer={99} />
    </Calculator>
  );
}

interface ConcentrationFieldsProps {
  readonly words: (name: string, problem?: Phrase) => FormField;
  readonly formula: string;
  readonly parsed: Result<Formula>;
  readonly number: (name: string) => FormField;
  readonly needsDensity: boolean;
}

function ConcentrationFields({ words, formula, parsed, number, needsDensity }: ConcentrationFieldsProps) {
  const say = useSay();
  return (
    <>
      <TextInput
        label={say`Formula`}
        field={words("formula", formula !== "" && !parsed.ok ? problemText(parsed.problem) : undefined)}
      />
      <TextInput label={say`Value`} field={number("value")} number />
      <TextInput
        label={say`Unit`}
        field={words("unit")}
        choices={units.map((u) => ({ value: u, label: unitText(u) }))}
      />
      <TextInput
        label={say`Equivalents per mole`}
        field={number("z")}
        number
        help={say`protons or electrons, by its reaction`}
      />
      <TextInput
        label={say`Density of the solution, g/mL`}
        field={words("density", needsDensity ? say`A mass fraction needs the density` : undefined)}
        number
        help={say`for % w/w and ppm`}
      />
    </>
  );
}

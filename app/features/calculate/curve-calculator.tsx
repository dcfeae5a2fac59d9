import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { acidIndicators } from "~/catalog/constants/indicators";
import { dissolved, soluteNames } from "~/catalog/constants/solutes";
import { prettyFormula } from "~/core/chemistry";
import { mostIonicStrength, type Setting, solvedRange } from "~/core/equilibria";
import { acidEnd, beyondLastEnd, type TheoreticalCurve, theoreticalCurve } from "~/core/plan";
import { msg } from "~/core/text";
import { colors, fonts } from "../../theme/theme";
import { MolarInput } from "../../ui/molar-input";
import { numberIn } from "../../ui/number-in";
import { Sheet } from "../../ui/sheet";
import { TextInput } from "../../ui/text-input";
import { useSay } from "../../words/text";
import { WhichIndicator } from "../methods/which-indicator";
import type { FormField } from "../shelf/use-form";
import { useTexts } from "./board";

/** What stands in the burette: a strong base or a strong acid. */
const titrants = ["NaOH", "HCl"] as const;

/** A drop, mL. Common practice, no source. */
const dropMl = 0.05;

/** The temperatures that the constants hold for, °C. */
const [coldest, warmest] = [0, 60];

/** The curve of an acid or a base by theory: its equivalence points, and which indicator shows them. */
export function CurveCalculator() {
  const say = useSay();
  const { texts, words, number } = useTexts({
    ...{ flask: "H3PO4", c: "0.05", V: "25", burette: "NaOH", ct: "0.1", celsius: "25", activity: "none" },
  });
  const celsius = numberIn(texts.celsius);
  const tooHot = celsius !== null && (celsius < coldest || celsius > warmest);
  const theory = theoryOf(texts, tooHot ? null : celsius);
  return (
    <Box
      sx={{
        display: "grid",
        gap: 2,
        alignItems: "start",
        gridTemplateColumns: { xs: "minmax(0,1fr)", md: "300px minmax(0,1fr)" },
      }}
    >
      <CurveFields {...{ words, number, noTemperature: tooHot || celsius === null }} />
      <Sheet
        component="section"
        aria-label={say`Titration curve`}
        aria-live="polite"
        sx={{ p: 2.5, minHeight: 160, minWidth: 0 }}
      >
        {theory === null ? (
          <Typography color="textSecondary">{say`Fill in the fields to see the curve.`}</Typography>
        ) : (
          <Theory key={texts.flask} {...theory} />
        )}
      </Sheet>
    </Box>
  );
}

const beyondRange = (molPerL: number): boolean => molPerL < solvedRange[0] || molPerL > solvedRange[1];

/** A field of a concentration that says so where no curve is computed for it. */
function ranged(field: FormField): FormField {
  const typed = numberIn(field.value);
  const problem =
    typed !== null && typed > 0 && beyondRange(typed)
      ? msg`Type one between ${solvedRange[0]} and ${solvedRange[1]} mol/L`
      : field.problem;
  return { ...field, problem };
}

interface CurveFieldsProps extends Pick<ReturnType<typeof useTexts>, "words" | "number"> {
  readonly noTemperature: boolean;
}

function CurveFields({ words, number, noTemperature }: CurveFieldsProps) {
  const say = useSay();
  return (
    <Sheet sx={{ p: 2.25, display: "grid", gap: 2 }}>
      <TextInput
        label={say`In the flask`}
        field={words("flask")}
        choices={soluteNames.map(({ formula, name }) => ({
          value: formula,
          label: msg`${name}, ${prettyFormula(formula)}`,
        }))}
      />
      <MolarInput label={say`Its concentration, mol/L`} field={ranged(number("c"))} />
      <TextInput label={say`In the flask at the start, mL`} field={number("V")} number />
      <TextInput
        label={say`In the burette`}
        field={words("burette")}
        choices={titrants.map((formula) => ({ value: formula, label: formula }))}
      />
      <MolarInput label={say`Concentration of the titrant, mol/L`} field={ranged(number("ct"))} />
      <TextInput
        label={say`Temperature, °C`}
        field={words(
          "celsius",
          noTemperature ? msg`Type one between ${coldest} and ${warmest} °C` : undefined,
        )}
        number
      />
      <TextInput
        label={say`Activity coefficients`}
        field={words("activity")}
        choices={[
          { value: "none", label: msg`none: concentrations` },
          { value: "davies", label: msg`by Davies` },
        ]}
      />
    </Sheet>
  );
}

interface TheoryProps {
  readonly theory: TheoreticalCurve;
  readonly analyte: string;
  readonly titrant: string;
  readonly setting: Setting;
}

/** What the fields come to; null while one of them says nothing. */
function theoryOf(texts: Readonly<Record<string, string>>, celsius: number | null): TheoryProps | null {
  const [c, V, ct] = [numberIn(texts.c), numberIn(texts.V), numberIn(texts.ct)];
  const { flask: analyte = "", burette: titrant = "" } = texts;
  if (!c || !V || !ct || celsius === null || beyondRange(c) || beyondRange(ct)) return null;
  const [mixture, added] = [dissolved(analyte, c), dissolved(titrant, ct)];
  if (!mixture || !added) return null;
  const setting: Setting = { celsius, activity: texts.activity === "davies" ? "davies" : "none" };
  const theory = theoreticalCurve({ mixture, molPerL: c, ml: V }, { mixture: added, molPerL: ct }, setting);
  return { theory, analyte, titrant, setting };
}

function Theory({ theory, analyte, titrant, setting }: TheoryProps) {
  const say = useSay();
  const { ends, startPH, titrated, ionicStrength } = theory;
  // The last one that can be seen is titrated to, unless somebody looks at another one.
  const usual = ends.findLast(({ jumps }) => jumps) ?? ends.at(-1);
  const [chosen, setChosen] = useState<number | null>(null);
  const end = ends.find(({ protons }) => protons === chosen) ?? usual;
  if (!end)
    return (
      <Typography>
        {say`${prettyFormula(analyte)} starts at pH ${startPH.toFixed(2)} and takes nothing from ${titrant}: choose the other titrant.`}
      </Typography>
    );
  const curve = acidEnd(
    {
      ...{ titrated, titrant, analyte, setting },
      equivalenceMl: end.ml,
      endMl: beyondLastEnd * (ends.at(-1)?.ml ?? end.ml),
    },
    acidIndicators,
  );
  return (
    <>
      <Ends {...{ ends, startPH, chosen: end.protons, onChoose: setChosen }} />
      {setting.activity === "davies" && ionicStrength > mostIonicStrength && (
        <Typography sx={{ color: colors.brick, mt: 1 }}>
          {say`The ionic strength reaches ${ionicStrength.toFixed(2)} mol/L: beyond ${mostIonicStrength} mol/L the activity coefficients are not to be trusted, and no pH to 0.01.`}
        </Typography>
      )}
      <WhichIndicator curve={curve} used="" dropMl={dropMl} />
    </>
  );
}

interface EndsProps extends Pick<TheoreticalCurve, "ends" | "startPH"> {
  readonly chosen: number;
  readonly onChoose: (protons: number) => void;
}

/** The equivalence points, of which one is looked at. */
function Ends({ ends, startPH, chosen, onChoose }: EndsProps) {
  const say = useSay();
  return (
    <Box
      component="table"
      sx={{
        borderCollapse: "collapse",
        "& th, & td": { textAlign: "left", py: 0.5, pr: 2.5 },
        "& th": { color: colors.inkSoft, fontWeight: 500, fontSize: "0.9rem" },
      }}
    >
      <thead>
        <tr>
          <th>{say`Protons`}</th>
          <th>{say`Titrant`}</th>
          <th>pH</th>
          <th>{say`On the curve`}</th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <td>{say`start`}</td>
          <Figure>{say`0 mL`}</Figure>
          <Figure>{startPH.toFixed(2)}</Figure>
          <td />
        </tr>
        {ends.map(({ protons, ml, pH, jumps }) => (
          <Box
            component="tr"
            key={protons}
            sx={{ bgcolor: protons === chosen ? colors.tealPale : undefined }}
          >
            <td>
              <Box
                component="button"
                type="button"
                aria-pressed={protons === chosen}
                onClick={() => onChoose(protons)}
                sx={{
                  font: "inherit",
                  color: colors.teal,
                  fontWeight: 650,
                  bgcolor: "transparent",
                  border: 0,
                  p: 0,
                  cursor: "pointer",
                  textDecoration: "underline",
                }}
              >
                {say`${protons} of ${ends.length}`}
              </Box>
            </td>
            <Figure>{say`${ml.toFixed(2)} mL`}</Figure>
            <Figure>{pH.toFixed(2)}</Figure>
            <td>{jumps ? say`a jump` : say`no jump to be seen`}</td>
          </Box>
        ))}
      </tbody>
    </Box>
  );
}

function Figure({ children }: { readonly children: string }) {
  return (
    <Box component="td" sx={{ fontFamily: fonts.reading, whiteSpace: "nowrap" }}>
      {children}
    </Box>
  );
}

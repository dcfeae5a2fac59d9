import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useDeferredValue, useMemo } from "react";
import { acids } from "~/catalog/constants/acids";
import { molarMass, prettyFormula } from "~/core/chemistry";
import {
  candidatesFor,
  type CurvePoint,
  type CurveReading,
  describes,
  type EndByWay,
  protonsAt,
  protonWeights,
  readCurve,
  type ReadEnd,
  type ReadFit,
  type Way,
  waysTo,
} from "~/core/curves";
import { pKwAt } from "~/core/equilibria";
import { inUnit } from "~/core/quantity";
import { joined, msg, type Phrase } from "~/core/text";
import { readCurveTable } from "~/formats/curve-table";
import { colors, fonts } from "../../theme/theme";
import { Chart } from "../../ui/chart/chart";
import { MolarInput } from "../../ui/molar-input";
import { numberIn } from "../../ui/number-in";
import { Sheet } from "../../ui/sheet";
import { TextInput } from "../../ui/text-input";
import { useSay } from "../../words/text";
import { useTexts } from "./board";
import { readingOption } from "./curve-reader-option";
import { sampleCurve } from "./sample-curve";

/** Ways to an end, with what each rests on and where it is weak. */
const wayWords: Readonly<Record<Way, { readonly name: Phrase; readonly weak: Phrase }>> = {
  fit: { name: msg`whole curve fitted`, weak: msg`rests on the constants being those of one acid` },
  "gran before": {
    name: msg`Gran, before the jump`,
    weak: msg`rests on the meter’s slope; weak where two protons overlap`,
  },
  "gran beyond": { name: msg`Gran, beyond the jump`, weak: msg`carbonate in the base shifts it` },
  "second derivative": {
    name: msg`second derivative, zero`,
    weak: msg`noise shifts it where points are close`,
  },
  steepest: { name: msg`steepest place`, weak: msg`no better than the points are close` },
};

/** A value with its ±, to two figures of that. */
function withHalf(value: number, half: number): string {
  const digits = half > 0 ? Math.min(8, Math.max(0, 1 - Math.floor(Math.log10(half)))) : 3;
  return half > 0 ? `${value.toFixed(digits)} ± ${half.toFixed(digits)}` : value.toFixed(digits);
}

interface Typed {
  readonly points: readonly CurvePoint[];
  readonly flaskMl: number;
  readonly titrant: number;
  readonly massG: number | null;
  readonly reading: CurveReading;
}

/** What the fields come to; null while one of them says nothing, or a line is wrong. */
function readTexts(texts: Readonly<Record<string, string>>): Typed | null {
  const [flaskMl, titrant, uPH, uMl] = [texts.V, texts.ct, texts.uPH, texts.uMl].map(numberIn);
  const { points, problems } = readCurveTable(texts.pairs ?? "", numberIn(texts.start) ?? 0);
  if (!flaskMl || !titrant || !uPH || !uMl || problems.length > 0 || points.length === 0) return null;
  // Typed as half a width: rectangular for the burette, two standard uncertainties for the meter.
  const setting = { flaskMl, titrant, pKw: pKwAt(25), uPH: uPH / 2, uMl: uMl / Math.sqrt(3) };
  return { points, flaskMl, titrant, massG: numberIn(texts.mass), reading: readCurve(points, setting) };
}

/** A recorded pH curve: pasted, and read in every way that there is. */
export function CurveReader() {
  const say = useSay();
  const form = useTexts({
    ...{ pairs: "", V: "50", ct: "0.1", start: "0", mass: "", uPH: "0.02", uMl: "0.03" },
  });
  const { texts, words } = form;
  const settled = useDeferredValue(texts);
  const typed = useMemo(() => readTexts(settled), [settled]);
  const { problems } = useMemo(
    () => readCurveTable(settled.pairs ?? "", numberIn(settled.start) ?? 0),
    [settled],
  );
  return (
    <Box
      sx={{
        display: "grid",
        gap: 2,
        alignItems: "start",
        gridTemplateColumns: { xs: "minmax(0,1fr)", md: "320px minmax(0,1fr)" },
      }}
    >
      <ReaderFields {...form} problems={problems} onSample={() => words("pairs").change(sampleCurve)} />
      <Sheet
        component="section"
        aria-label={say`What the curve tells`}
        aria-live="polite"
        sx={{ p: 2.5, minHeight: 160, minWidth: 0 }}
      >
        {typed === null ? (
          <Typography color="textSecondary">{say`Paste volumes and pH values to read the curve.`}</Typography>
        ) : (
          <Told {...typed} />
        )}
      </Sheet>
    </Box>
  );
}

interface ReaderFieldsProps extends ReturnType<typeof useTexts> {
  readonly problems: readonly Phrase[];
  readonly onSample: () => void;
}

function ReaderFields({ texts, words, number, problems, onSample }: ReaderFieldsProps) {
  const say = useSay();
  return (
    <Sheet sx={{ p: 2.25, display: "grid", gap: 2 }}>
      <TextInput
        label={say`Volume and pH, a pair a line`}
        field={words("pairs", problems.length > 0 ? joined(problems, "; ") : undefined)}
        help={say`pasted from a table or a logger’s file: the last two columns count`}
        multiline
        mostRows={14}
        number
      />
      {(texts.pairs ?? "").trim() === "" && (
        <Button variant="outlined" onClick={onSample}>
          {say`Use an example`}
        </Button>
      )}
      <TextInput label={say`In the flask at the start, mL`} field={number("V")} number />
      <MolarInput label={say`Concentration of the titrant, mol/L`} field={number("ct")} />
      <TextInput label={say`Burette at the start, mL`} field={words("start")} number />
      <TextInput
        label={say`Mass in the flask, g`}
        field={number("mass")}
        number
        help={say`for the equivalent mass; may stay empty`}
      />
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: "1fr 1fr" }}>
        <TextInput label={say`± of the meter`} field={number("uPH")} number />
        <TextInput label={say`± of a volume, mL`} field={number("uMl")} number />
      </Box>
    </Sheet>
  );
}

function Told({ points, flaskMl, titrant, massG, reading }: Typed) {
  const say = useSay();
  const option = useMemo(() => readingOption(points, reading, reading.fits[0], say), [points, reading, say]);
  return (
    <>
      {reading.ends.length === 0 ? (
        <Typography sx={{ fontWeight: 650, color: colors.brick }}>
          {say`No jump is in these points: go on adding titrant, in drops where the pH changes fast.`}
        </Typography>
      ) : (
        <Found {...{ points, flaskMl, titrant, massG, reading }} />
      )}
      <Chart
        label={say`${points.length} points; ${reading.ends.length} jumps${joined(
          reading.ends.map(({ jump }) => msg`, at ${jump.volume.toFixed(2)} mL`),
          "",
        )}`}
        option={option}
        height={400}
        fileName="curve"
      />
    </>
  );
}

const cells = {
  borderCollapse: "collapse",
  mb: 1.5,
  "& th, & td": { textAlign: "left", py: 0.4, pr: 2.5, verticalAlign: "top" },
  "& th": { color: colors.inkSoft, fontWeight: 500, fontSize: "0.9rem" },
} as const;

/** What follows from the ends: volumes, concentration, constants, how many protons, and which acid it may be. */
function Found({ flaskMl, titrant, massG, reading }: Typed) {
  const say = useSay();
  const { ends, fits, byBase, strong } = reading;
  const weights = protonWeights(reading);
  const best = fits[0] && describes(fits[0]) ? fits[0] : null;
  const last = ends.at(-1);
  const [taken] = last ? waysTo(reading, last, { flaskMl, titrant }) : [];
  const moles = taken ? (taken.volume * titrant) / 1000 : NaN;
  const equivalentMass = massG && taken ? massG / moles : null;
  return (
    <>
      {ends.map((end) => (
        <EndTable
          key={end.jump.volume}
          {...{ end, ways: waysTo(reading, end, { flaskMl, titrant }) }}
          protons={best ? protonsAt(reading, end, best.protons) : null}
        />
      ))}
      {strong && (
        <Line>{say`A strong ${byBase ? say`acid` : say`base`}: all of it is free at the start.`}</Line>
      )}
      {weights && best && (
        <Line>
          {say`Fits with ${joined(
            weights.map(
              ({ protons, weight }) =>
                msg`${protons}: ${weight > 0.999 ? ">99.9" : weight < 0.001 ? "<0.1" : (100 * weight).toFixed(1)} %`,
            ),
            ", ",
          )} protons, by relative likelihood (Akaike weights); χ² ${best.fit.chiSquare.toFixed(0)} with ${best.fit.degreesOfFreedom} degrees of freedom.`}
        </Line>
      )}
      {!strong && !best && (
        <Line>{say`No fit describes these points within the ± of meter and burette: Gran’s lines and the shape are taken.`}</Line>
      )}
      {equivalentMass !== null && taken && (
        <Line>
          <b>{say`Equivalent mass ${withHalf(equivalentMass, (equivalentMass * taken.half) / taken.volume)} g/mol`}</b>
          {say`, by the last equivalence point`}
        </Line>
      )}
      {best && <FitLines {...{ best, reading, flaskMl, massG }} />}
      <Typography variant="body2" color="textSecondary" sx={{ mb: 1 }}>
        {say`± is twice the standard uncertainty; for the shape of the curve, half of the distance between points. At 25 °C, without activity coefficients: constants hold for the ionic strength of the flask.`}
      </Typography>
    </>
  );
}

interface FitLinesProps {
  readonly best: ReadFit;
  readonly reading: CurveReading;
  readonly flaskMl: number;
  readonly massG: number | null;
}

/** The constant half way to a jump; several protons in one jump have none of their own there. */
const halfWayWords = ({ halfWay }: ReadEnd, protons: number): Phrase =>
  halfWay === null ? "–" : protons > 1 ? msg`none, ${protons} protons share the jump` : halfWay.toFixed(2);

/** What the fit of the whole curve finds. */
function FitLines({ best, reading, flaskMl, massG }: FitLinesProps) {
  const say = useSay();
  const { ends, byBase } = reading;
  const { concentration, pKas } = best.fit;
  const protonsOf = (i: number) => (ends[i] ? protonsAt(reading, ends[i], best.protons) : 0);
  const mass = massG && (1000 * massG) / (concentration.value * flaskMl);
  return (
    <>
      <Line>
        <b>{say`pKa ${joined(
          pKas.map(({ value, u }) => withHalf(value, 2 * u)),
          "; ",
        )}`}</b>
        {say`, by the fit; half way ${joined(
          ends.map((end, i) => halfWayWords(end, protonsOf(i) - (i === 0 ? 0 : protonsOf(i - 1)))),
          "; ",
        )}`}
      </Line>
      <Line>
        <b>{say`${withHalf(concentration.value, 2 * concentration.u)} mol/L`}</b>
        {say` in the flask at the start`}
      </Line>
      {mass && (
        <Line>
          <b>{say`Molar mass ${withHalf(mass, (2 * mass * concentration.u) / concentration.value)} g/mol`}</b>
          {say`, by the ± of the fit alone`}
        </Line>
      )}
      {mass && byBase && <Candidates mass={mass} pKas={pKas.map(({ value }) => value)} />}
    </>
  );
}

function Line({ children }: { readonly children: React.ReactNode }) {
  return <Typography sx={{ mb: 0.75 }}>{children}</Typography>;
}

interface EndTableProps {
  readonly end: ReadEnd;
  readonly ways: readonly EndByWay[];
  readonly protons: number | null;
}

function EndTable({ end, ways, protons }: EndTableProps) {
  const say = useSay();
  const heading =
    protons === null
      ? msg`Equivalence point`
      : protons === 1
        ? msg`Equivalence point, one proton`
        : msg`Equivalence point, ${protons} protons`;
  return (
    <Box
      component="table"
      aria-label={say`Equivalence point near ${end.jump.volume.toFixed(1)} mL`}
      sx={cells}
    >
      <thead>
        <tr>
          <th>{say(heading)}</th>
          <th>mL</th>
          <th>{say`Weak where`}</th>
        </tr>
      </thead>
      <tbody>
        {ways.map(({ way, volume, half }, i) => (
          <Box
            component="tr"
            key={way}
            sx={{ bgcolor: i === 0 ? colors.tealPale : undefined, fontWeight: i === 0 ? 650 : 400 }}
          >
            <td>
              {say(wayWords[way].name)}
              {i === 0 && say`, taken`}
            </td>
            <Box component="td" sx={{ fontFamily: fonts.reading, whiteSpace: "nowrap" }}>
              {withHalf(volume, half)}
            </Box>
            <Box component="td" sx={{ color: colors.inkSoft, fontWeight: 400 }}>
              {say(wayWords[way].weak)}
            </Box>
          </Box>
        ))}
      </tbody>
    </Box>
  );
}

const known = acids
  .filter(({ charge }) => charge === 0)
  .map((acid) => ({
    ...acid,
    molarMass: inUnit(molarMass(acid.formula), "g/mol"),
    pKas: acid.steps.map(({ pKa }) => pKa),
  }));

function Candidates({ mass, pKas }: { readonly mass: number; readonly pKas: readonly number[] }) {
  const say = useSay();
  const found = candidatesFor(known, mass, pKas);
  return (
    <Line>
      {found.length === 0
        ? say`No acid of the table agrees in mass and constants.`
        : say`It may be ${joined(
            found.map(
              ({ name, formula, molarMass: m, pKas: own }) =>
                msg`${name}, ${prettyFormula(formula)} (${m.toFixed(2)} g/mol; pKa ${own.join(", ")})`,
            ),
            "; ",
          )}.`}
    </Line>
  );
}

import Typography from "@mui/material/Typography";
import { type ReactNode, useMemo } from "react";
import { acids } from "~/catalog/constants/acids";
import { molarMass, prettyFormula } from "~/core/chemistry";
import {
  bestFit,
  candidatesFor,
  type CurvePoint,
  type CurveReading,
  equivalentMass,
  molarMassByFit,
  protonsAt,
  protonsOfEnds,
  protonWeights,
  type ReadEnd,
  type ReadFit,
  waysTo,
} from "~/core/curves";
import { inUnit } from "~/core/quantity";
import { joined, msg, type Phrase } from "~/core/text";
import { colors } from "../../theme/theme";
import { Chart } from "../../ui/chart/chart";
import { useSay } from "../../words/text";
import { readingOption } from "./curve-reader-option";
import { withHalf } from "../curves/end-words";
import { EndTable } from "./end-table";

/** A curve that was typed, and what was read out of it. */
export interface ReadTexts {
  readonly points: readonly CurvePoint[];
  readonly flaskMl: number;
  readonly titrant: number;
  readonly massG: number | null;
  readonly reading: CurveReading;
}

/** What a curve tells: its ends in every way, constants, mass, and the picture of it. */
export function CurveResults({ points, flaskMl, titrant, massG, reading }: ReadTexts) {
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

/** What follows from the ends: volumes, concentration, constants, how many protons, and which acid it may be. */
function Found({ flaskMl, titrant, massG, reading }: ReadTexts) {
  const say = useSay();
  const { ends, byBase, strong } = reading;
  const weights = protonWeights(reading);
  const best = bestFit(reading);
  const last = ends.at(-1);
  const [taken] = last ? waysTo(reading, last, { flaskMl, titrant }) : [];
  const mass = massG && taken ? equivalentMass(taken, titrant, massG) : null;
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
      {weights?.some(({ weight }) => weight > (weights[0]?.weight ?? 0)) && (
        <Line>{say`More protons describe the points a little better, by no more than chance may: the fewer are taken.`}</Line>
      )}
      {!strong && !best && (
        <Line>{say`No fit describes these points within the ± of meter and burette: Gran’s lines and the shape are taken.`}</Line>
      )}
      {mass && (
        <Line>
          <b>{say`Equivalent mass ${withHalf(mass.value, mass.half)} g/mol`}</b>
          {say`, by the last equivalence point`}
        </Line>
      )}
      {best && <FitLines {...{ best, reading, flaskMl, massG }} />}
      <Typography variant="body2" color="textSecondary" sx={{ mb: 1 }}>
        {say`± is twice the standard uncertainty; for the shape of the curve, half of the distance between points. It holds what the points scatter; the tolerance of the burette and the ± of titrant, flask and mass are not in it. At 25 °C, without activity coefficients: constants hold for the ionic strength of the flask.`}
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
  const protons = protonsOfEnds(reading);
  const mass = massG ? molarMassByFit(best, flaskMl, massG) : null;
  return (
    <>
      <Line>
        <b>{say`pKa ${joined(
          pKas.map(({ value, u }) => withHalf(value, 2 * u)),
          "; ",
        )}`}</b>
        {say`, by the fit; half way ${joined(
          ends.map((end, i) => halfWayWords(end, protons?.[i] ?? 1)),
          "; ",
        )}`}
      </Line>
      <Line>
        <b>{say`${withHalf(concentration.value, 2 * concentration.u)} mol/L`}</b>
        {say` in the flask at the start`}
      </Line>
      {mass && (
        <Line>
          <b>{say`Molar mass ${withHalf(mass.value, mass.half)} g/mol`}</b>
          {say`, by the fit`}
        </Line>
      )}
      {mass && byBase && <Candidates mass={mass.value} pKas={pKas.map(({ value }) => value)} />}
    </>
  );
}

function Line({ children }: { readonly children: ReactNode }) {
  return <Typography sx={{ mb: 0.75 }}>{children}</Typography>;
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

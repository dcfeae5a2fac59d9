import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { acids } from "~/catalog/constants/acids";
import { molarMass, prettyFormula } from "~/core/chemistry";
import { candidatesFor } from "~/core/curves";
import { inUnit, toSignificant } from "~/core/quantity";
import { type CurveStageEvaluation, plusMinusWords, type RunEvaluation } from "~/core/stages";
import { joined, msg } from "~/core/text";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { sentence, together } from "../../../ui/number-text";
import { Sheet } from "../../../ui/sheet";
import { useSay } from "../../../words/text";
import { WayOn } from "../photometer/way-on";
import { Accepted, Footing, Implausible } from "../shared/footing";
import { ShelveButton } from "../shared/shelve";

interface CurveResultProps {
  readonly stage: CurveStageEvaluation;
  readonly evaluation: RunEvaluation;
}

/** What the curves come to, the uncertainty budget, which acid it may be, and the way on. */
export function CurveResult({ stage, evaluation }: CurveResultProps) {
  const say = useSay();
  const { record } = useRunInHand();
  const { shown, combined, also, shares, definition, problem } = stage;
  const causes = shares
    .filter((s) => s.part >= 0.01)
    .slice(0, 3)
    .map((s) => say`${s.label} ${Math.round(100 * s.part)} %`);
  return (
    <Sheet
      component="section"
      aria-label={say`Result`}
      sx={stage.done ? { borderColor: colors.teal, borderWidth: 2 } : {}}
    >
      {/* What to do with the curve in hand stands beside its fields. */}
      {!stage.current && (
        <Typography sx={{ fontWeight: 700, color: colors.tealDeep, mb: 0.5 }}>
          {together(sentence(say(stage.next)))}
        </Typography>
      )}
      <Typography color="textSecondary">{definition.result.name}</Typography>
      <Box data-testid="result" sx={{ fontFamily: fonts.reading, fontSize: "1.7rem", lineHeight: 1.25 }}>
        {say(shown?.text ?? "–")}
      </Box>
      {shown && combined && (
        <Typography variant="body2" color="textSecondary">
          {say`${combined.count === 1 ? say`from one curve` : say`mean of ${combined.count} curves`}, ± is ${plusMinusWords[record.houseRules.plusMinus]}`}
          {combined.count > 1 &&
            say`; s = ${toSignificant(100 * combined.relativeStandardDeviation, 2)} % of the mean`}
          . {causes.length > 0 && say`${causes.join(", ")} of it.`}
        </Typography>
      )}
      {also.map(({ definition: { symbol, name }, shown: other }) => (
        <Typography key={symbol}>
          {say(name)}: <span style={{ fontFamily: fonts.reading }}>{say(other.text)}</span>
        </Typography>
      ))}
      <Candidates stage={stage} />
      <Footing stage={stage} />
      <Accepted stage={stage} />
      <Implausible stage={stage} />
      {problem && <Typography sx={{ color: colors.brick }}>{together(sentence(say(problem)))}</Typography>}
      {shown && (
        <WayOn stage={stage} evaluation={evaluation}>
          <ShelveButton stage={stage} record={record} />
        </WayOn>
      )}
    </Sheet>
  );
}

/** Acids of the table that agree in mass and constants, where the stage finds both. */
function Candidates({ stage }: { readonly stage: CurveStageEvaluation }) {
  const say = useSay();
  const { curve } = stage.definition;
  const quantityOf = (symbol: string) => stage.also.find((a) => a.definition.symbol === symbol)?.quantity;
  const molar = stage.also.find((a) => a.definition.unit === "g/mol")?.quantity;
  const protons = curve.protons === undefined ? undefined : quantityOf(curve.protons);
  if (!molar || !protons) return null;
  const known = (curve.constants ?? []).flatMap((symbol) => quantityOf(symbol)?.value ?? []);
  const pKas = known.slice(0, Math.round(protons.value));
  if (pKas.length !== Math.round(protons.value)) return null;
  const table = acids
    .filter(({ charge }) => charge === 0)
    .map((acid) => ({
      ...acid,
      molarMass: inUnit(molarMass(acid.formula), "g/mol"),
      pKas: acid.steps.map(({ pKa }) => pKa),
    }));
  const found = candidatesFor(table, inUnit(molar, "g/mol"), pKas);
  return (
    <Typography data-testid="candidates" sx={{ fontWeight: 600, my: 0.5 }}>
      {found.length === 0
        ? say`No acid of the table agrees in mass and in pKa.`
        : say`Agrees in mass and in pKa: ${joined(
            found.map((acid) => msg`${acid.name} (${prettyFormula(acid.formula)})`),
            ", ",
          )}.`}
    </Typography>
  );
}

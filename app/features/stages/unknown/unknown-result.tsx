import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { UnknownStage } from "~/core/method";
import { toSignificant, unitOf, unitsLike, withUnit } from "~/core/quantity";
import { plusMinusWords, type RunEvaluation, type UnknownEvaluation } from "~/core/stages";
import { sentence, together } from "../../../ui/number-text";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { Sheet } from "../../../ui/sheet";
import { Footing, Implausible } from "../shared/footing";
import { ShelveButton } from "../shared/shelve";
import { WayOn } from "../photometer/way-on";
import { useSay } from "../../../words/text";
import { unitText } from "~/core/text";

interface UnknownResultProps {
  stage: UnknownEvaluation;
  evaluation: RunEvaluation;
}

/** What the unknown comes to, what its ± is made of, the verdict against a limit, and the way on. */
export function UnknownResult({ stage, evaluation }: UnknownResultProps) {
  const say = useSay();
  const { record } = useRunInHand();
  const { shown, combined, also, shares, acceptance, definition } = stage;
  const units = unitsLike(definition.result.unit);
  const causes = shares
    .filter((s) => s.part >= 0.01)
    .slice(0, 3)
    .map((s) => say`${s.label} ${Math.round(100 * s.part)} %`);
  return (
    <Sheet
      component="section"
      aria-label={say`Result`}
      sx={{ order: { xs: 3, md: 0 }, ...(stage.done ? { borderColor: colors.teal, borderWidth: 2 } : {}) }}
    >
      <Typography data-testid="next-reading" sx={{ fontWeight: 700, color: colors.tealDeep, mb: 0.5 }}>
        {together(sentence(say(stage.next)))}
      </Typography>
      <Typography color="textSecondary">{definition.result.name}</Typography>
      <Box data-testid="result" sx={{ fontFamily: fonts.reading, fontSize: "1.9rem", lineHeight: 1.2 }}>
        {say(shown?.text ?? "–")}
      </Box>
      {shown && combined && (
        <Typography variant="body2" color="textSecondary">
          {say`${combined.count === 1 ? say`from one flask` : say`mean of ${combined.count} flasks`}, ± is ${plusMinusWords[record.houseRules.plusMinus]}`}
          {combined.count > 1 &&
            say`; s = ${withUnit(toSignificant(combined.standardDeviation / unitOf(definition.result.unit).factor, 2), definition.result.unit)}, ${toSignificant(100 * combined.relativeStandardDeviation, 2)} % of it`}
          . {causes.length > 0 && say`${causes.join(", ")} of it.`}
        </Typography>
      )}
      {shown && record.status === "open" && units.length > 1 && (
        <ShownIn definition={definition} stage={stage} units={units} />
      )}
      {also.map(({ definition: { symbol, name }, shown: other }) => (
        <Typography key={symbol}>
          {say(name)}: <span style={{ fontFamily: fonts.reading }}>{say(other.text)}</span>
        </Typography>
      ))}
      <Footing stage={stage} />
      <Implausible stage={stage} />
      {acceptance && (
        <Typography data-testid="acceptance" sx={{ mt: 0.5, fontWeight: 600 }}>
          {together(say(acceptance.text))}
        </Typography>
      )}
      {shown && (
        <WayOn stage={stage} evaluation={evaluation}>
          <ShelveButton stage={stage} record={record} />
        </WayOn>
      )}
    </Sheet>
  );
}

interface ShownInProps {
  readonly definition: UnknownStage;
  readonly stage: UnknownEvaluation;
  readonly units: string[];
}

function ShownIn({ definition, stage, units }: ShownInProps) {
  const say = useSay();
  const { send } = useRunInHand();
  return (
    <TextField
      select
      size="small"
      label={say`Shown in`}
      value={definition.result.unit}
      onChange={(event) =>
        void send({ intent: "choose", stageKey: stage.key, name: "unit", value: event.target.value })
      }
      sx={{ width: 130, my: 1 }}
    >
      {units.map((unit) => (
        <MenuItem key={unit} value={unit}>
          {say(unitText(unit))}
        </MenuItem>
      ))}
    </TextField>
  );
}

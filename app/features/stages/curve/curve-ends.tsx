import Box from "@mui/material/Box";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { bestFit, protonsOfEnds, protonWeights } from "~/core/curves";
import type { CurveEnd, CurveEvaluation, CurveStageEvaluation } from "~/core/stages";
import { joined, msg, type Phrase, unitText } from "~/core/text";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { Sheet } from "../../../ui/sheet";
import { useSay } from "../../../words/text";
import { waysOfEnds, withHalf } from "../../curves/end-words";

interface CurveEndsProps {
  readonly stage: CurveStageEvaluation;
  readonly curve: CurveEvaluation;
}

/** The equivalence points in every way that there is, with which is taken and why, and how many protons each stands for. */
export function CurveEnds({ stage, curve }: CurveEndsProps) {
  const say = useSay();
  const { locked, send } = useRunInHand();
  const { ends, reading } = curve;
  if (ends.every(({ ways }) => ways.length === 0)) return null;
  const ways = [...new Set(ends.flatMap((end) => end.ways.map(({ way }) => way)))];
  const hasProtons = stage.definition.curve.protons !== undefined;
  const choose = (name: "way" | "protons", value: string) =>
    void send({ intent: "choose", stageKey: stage.key, name, value });
  return (
    <Sheet component="section" aria-label={say`Equivalence points`} sx={{ display: "grid", gap: 1 }}>
      <Typography variant="h2">{say`Equivalence points`}</Typography>
      {ends.map((end) => (
        <EndWays key={end.symbol} end={end} />
      ))}
      {reading && <Protons curve={curve} />}
      {!locked && <Besides stage={stage} curve={curve} />}
      {!locked && (ways.length > 1 || hasProtons) && (
        <Box sx={{ display: "flex", gap: 1.25, flexWrap: "wrap" }}>
          {ways.length > 1 && (
            <Choice
              label={say`Way that is taken`}
              value={stage.way ?? ""}
              free={say`the best`}
              options={ways.map((way) => [way, waysOfEnds[way].name])}
              onChoose={(value) => choose("way", value)}
            />
          )}
          {hasProtons && (
            <Choice
              label={say`Protons`}
              value={stage.protons === null ? "" : String(stage.protons)}
              free={say`as the curve tells`}
              options={["1", "2", "3"].map((count) => [count, count])}
              onChoose={(value) => choose("protons", value)}
            />
          )}
        </Box>
      )}
    </Sheet>
  );
}

/** What the fit of the whole curve may ask for besides, with what it finds. */
function Besides({ stage, curve }: CurveEndsProps) {
  const say = useSay();
  const { send } = useRunInHand();
  const best = curve.reading && bestFit(curve.reading);
  if (!curve.reading || curve.reading.strong || curve.next.do === "add") return null;
  const found = { offset: best?.fit.offset, carbonate: best?.fit.carbonate };
  const names = {
    offset: say`electrode off by a constant`,
    carbonate: say`carbonate in the titrant`,
  };
  const units = { offset: "pH", carbonate: "mol/L" };
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 1 }}>
      {(curve.reading.byBase ? (["offset", "carbonate"] as const) : (["offset"] as const)).map((name) => (
        <FormControlLabel
          key={name}
          label={
            found[name]
              ? say`${names[name]}: ${withHalf(found[name].value, 2 * found[name].u)} ${units[name]}`
              : names[name]
          }
          control={
            <Switch
              size="small"
              checked={stage.fitted[name]}
              onChange={(_event, on) =>
                void send({ intent: "choose", stageKey: stage.key, name, value: on ? "fitted" : "" })
              }
            />
          }
        />
      ))}
    </Box>
  );
}

interface ChoiceProps {
  readonly label: string;
  readonly value: string;
  readonly free: string;
  readonly options: readonly (readonly [value: string, words: Phrase])[];
  readonly onChoose: (value: string) => void;
}

function Choice({ label, value, free, options, onChoose }: ChoiceProps) {
  const say = useSay();
  return (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      onChange={(event) => onChoose(event.target.value)}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      sx={{ flex: "1 1 140px" }}
    >
      <MenuItem value="">{free}</MenuItem>
      {options.map(([key, words]) => (
        <MenuItem key={key} value={key}>
          {say(words)}
        </MenuItem>
      ))}
    </TextField>
  );
}

function EndWays({ end }: { readonly end: CurveEnd }) {
  const say = useSay();
  const { name, ways, taken } = end;
  return (
    <Box component="table" sx={table}>
      <thead>
        <tr>
          <th>{say(name)}</th>
          <th>{say(unitText("mL"))}</th>
          <th>{say`where it is weak`}</th>
        </tr>
      </thead>
      <tbody>
        {ways.map(({ way, volume, half }) => (
          <Box component="tr" key={way} sx={{ fontWeight: way === taken?.way ? 650 : 400 }}>
            <td>
              {say(waysOfEnds[way].name)}
              {way === taken?.way && say`, taken`}
            </td>
            <Box component="td" sx={{ fontFamily: fonts.reading, whiteSpace: "nowrap" }}>
              {withHalf(volume, half)}
            </Box>
            <Box component="td" sx={{ color: colors.inkSoft, fontWeight: 400, fontSize: "0.9rem" }}>
              {say(waysOfEnds[way].weak)}
            </Box>
          </Box>
        ))}
      </tbody>
    </Box>
  );
}

const table = {
  borderCollapse: "collapse",
  "& th, & td": { textAlign: "left", py: 0.3, pr: 1.5, verticalAlign: "top" },
  "& th": { color: colors.inkSoft, fontWeight: 500, fontSize: "0.9rem" },
} as const;

/** How many protons the ends stand for, by fits with one, two and three, and what those leave over. */
function Protons({ curve: { reading } }: { readonly curve: CurveEvaluation }) {
  const say = useSay();
  if (!reading) return null;
  const best = bestFit(reading);
  const weights = protonWeights(reading);
  const each = protonsOfEnds(reading);
  if (reading.fits.length > 0 && !best)
    return (
      <Typography color="textSecondary">
        {say`No fit describes these points within the ± of meter and burette: lines and shape are taken.`}
      </Typography>
    );
  if (!best || !weights) return null;
  const { chiSquare, degreesOfFreedom } = best.fit;
  return (
    <Box sx={{ color: colors.inkSoft }}>
      {each && (
        <Box data-testid="protons">
          {each.length === 1
            ? say`The jump stands for ${each[0] ?? 1} ${each[0] === 1 ? say`proton` : say`protons`}.`
            : say`The jumps stand for ${each.join(" + ")} protons.`}
        </Box>
      )}
      {weights.length > 1 && (
        <Box>
          {say`Fits with ${joined(
            weights.map(({ protons, weight }) => msg`${protons}: ${percent(weight)} %`),
            ", ",
          )} protons, by relative likelihood (Akaike weights); χ² ${chiSquare.toFixed(0)} with ${degreesOfFreedom} degrees of freedom.`}
        </Box>
      )}
      {best.fit.pKas.length > 1 && (
        <Box>{say`Correlation of the constants ${correlationOf(best.fit.correlation).toFixed(2)}.`}</Box>
      )}
    </Box>
  );
}

const percent = (weight: number) =>
  weight > 0.999 ? ">99.9" : weight < 0.001 ? "<0.1" : (100 * weight).toFixed(1);

/** Of the first two constants. */
const correlationOf = (correlation: readonly (readonly number[])[]) => correlation[1]?.[2] ?? 0;

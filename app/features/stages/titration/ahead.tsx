import Box from "@mui/material/Box";
import { type Input, typedIn, usualOf } from "~/core/inputs";
import { unitOf } from "~/core/quantity";
import type { Reagent } from "~/core/method";
import { msg, withPoint } from "~/core/text";
import { colors } from "../../../theme/theme";
import { together } from "../../../ui/number-text";
import { useSay } from "../../../words/text";

/** What is typed of a volume as milliliters: what is weighed over its density, drops by their size. */
const inMl = (input: Input, typed: number): number => {
  const unit = typedIn(input);
  return unit === null ? typed : (typed * unit.size) / unitOf("mL").factor;
};

/** The volume that is really taken of a reagent, where a field for it says another one than the method; null where none does. */
function takenMl({ exact, quantity }: Reagent, inputs: readonly Input[], typed: TypedVolumes): string | null {
  if (!exact || quantity?.unit !== "mL" || quantity.of !== undefined) return null;
  const isIt = (one: Input) => Math.abs(inMl(one, usualOf(one) ?? NaN) - quantity.most) < 1e-6;
  const input = inputs.find((one) => typed.has(one.symbol) && isIt(one));
  const text = input && typed.get(input.symbol);
  if (!input || text === undefined) return null;
  const ml = inMl(input, Number(withPoint(text.trim() || "NaN")));
  if (!(ml > 0) || ml === quantity.most) return null;
  return typedIn(input) === null ? text : ml.toFixed(2);
}

/** What stands in the fields for volumes of the flask in hand, typed or offered, by symbol. */
export type TypedVolumes = ReadonlyMap<string, string>;

interface ReagentsAheadProps {
  readonly reagents: readonly Reagent[];
  readonly inputs?: readonly Input[];
  readonly typed?: TypedVolumes;
  /** True where the sample is taken as it is, without the dilution of the method. */
  readonly undiluted?: boolean;
}

/** What goes into the flask before the titration: what now, and what only at the last moment. */
export function ReagentsAhead(props: ReagentsAheadProps) {
  const { reagents, inputs = [], typed = new Map<string, string>(), undiluted } = props;
  const say = useSay();
  const amount = (reagent: Reagent) => {
    const { name, amount: much, when } = reagent;
    const taken = takenMl(reagent, inputs, typed);
    // Amounts that follow a choice of the run stand in the units of the core.
    return taken === null
      ? `${name}, ${say({ message: much })} (${when})`
      : say(msg`${name}, ${taken} mL (${when})`);
  };
  if (reagents.length === 0) return null;
  const rows = [
    { head: say`Add now`, of: reagents.filter((r) => !r.last) },
    { head: say`At the last moment`, of: reagents.filter((r) => r.last) },
  ].filter(({ of }) => of.length > 0);
  return (
    <Box
      component="dl"
      aria-label={say`Reagents`}
      sx={{
        m: 0,
        display: "grid",
        gridTemplateColumns: { xs: "1fr", sm: "auto 1fr" },
        columnGap: 1.5,
        rowGap: 0.25,
        fontSize: "0.95rem",
      }}
    >
      {rows.map(({ head, of }) => (
        <Box key={head} sx={{ display: "contents" }}>
          <Box component="dt" sx={{ fontWeight: 700, color: colors.inkSoft, whiteSpace: "nowrap" }}>
            {head}
          </Box>
          <Box component="dd" sx={{ m: 0 }}>
            {undiluted && !reagents.some(({ measured }) => measured) && say`not diluted: `}
            {together(of.map(amount).join("; "))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

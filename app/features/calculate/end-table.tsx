import Box from "@mui/material/Box";
import type { EndByWay, ReadEnd, Way } from "~/core/curves";
import { msg, type Phrase } from "~/core/text";
import { colors, fonts } from "../../theme/theme";
import { useSay } from "../../words/text";

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
export function withHalf(value: number, half: number): string {
  const digits = half > 0 ? Math.min(8, Math.max(0, 1 - Math.floor(Math.log10(half)))) : 3;
  return half > 0 ? `${value.toFixed(digits)} ± ${half.toFixed(digits)}` : value.toFixed(digits);
}

const cells = {
  borderCollapse: "collapse",
  mb: 1.5,
  "& th, & td": { textAlign: "left", py: 0.4, pr: 2.5, verticalAlign: "top" },
  "& th": { color: colors.inkSoft, fontWeight: 500, fontSize: "0.9rem" },
} as const;

interface EndTableProps {
  readonly end: ReadEnd;
  readonly ways: readonly EndByWay[];
  readonly protons: number | null;
}

/** One equivalence point in every way, the one that is taken first. */
export function EndTable({ end, ways, protons }: EndTableProps) {
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

import Box from "@mui/material/Box";
import type { EndByWay, ReadEnd } from "~/core/curves";
import { msg } from "~/core/text";
import { colors, fonts } from "../../theme/theme";
import { useSay } from "../../words/text";
import { waysOfEnds, withHalf } from "../curves/end-words";

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
              {say(waysOfEnds[way].name)}
              {i === 0 && say`, taken`}
            </td>
            <Box component="td" sx={{ fontFamily: fonts.reading, whiteSpace: "nowrap" }}>
              {withHalf(volume, half)}
            </Box>
            <Box component="td" sx={{ color: colors.inkSoft, fontWeight: 400 }}>
              {say(waysOfEnds[way].weak)}
            </Box>
          </Box>
        ))}
      </tbody>
    </Box>
  );
}

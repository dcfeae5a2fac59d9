import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import type { TrailLine } from "~/formats/trail";
import { colors, fonts } from "../../theme/theme";
import { linedTable } from "../../ui/lined-table";
import { Sheet } from "../../ui/sheet";
import { When } from "../../ui/when";
import { useSay } from "../../words/text";

/** Told apart from what the sender said where they lie further apart than this, s. */
const notable = 60;

interface TrailTableProps<L extends TrailLine> {
  lines: readonly L[];
  /** What it was done to or where, as a column of its own. */
  place: { readonly head: string; readonly of: (line: L) => ReactNode };
}

/** Lines of a trail, the newest first: who, when, what, from what to what, and why. */
export function TrailTable<L extends TrailLine>({ lines, place }: TrailTableProps<L>) {
  const say = useSay();
  return (
    <Sheet sx={{ p: 0, overflowX: "auto" }} tabIndex={0} role="region" aria-label={say`Trail`}>
      <Box component="table" sx={linedTable}>
        <thead>
          <tr>
            {[say`When`, say`Who`, place.head, say`What`, say`From`, say`To`, say`Why`].map((head) => (
              <th key={head} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <Line key={line.id} line={line} place={place.of(line)} />
          ))}
        </tbody>
      </Box>
    </Sheet>
  );
}

function Line({ line, place }: { line: TrailLine; place: ReactNode }) {
  const say = useSay();
  const { at, received, person, what, from, to, why, undone } = line;
  const late = (Date.parse(received) - Date.parse(at)) / 1000 > notable;
  // A reading stays on its line; a list of changes may be long.
  const value = (text: string | null) =>
    ({
      fontFamily: fonts.reading,
      ...((text ?? "").length > 24 ? { minWidth: 160, fontSize: "0.92rem" } : { whiteSpace: "nowrap" }),
    }) as const;
  return (
    <tr>
      <Box component="td" sx={{ whiteSpace: "nowrap", color: colors.inkSoft }}>
        <When at={at} as="exact" />
        {late && (
          <Box sx={{ fontSize: "0.85rem" }}>
            {say`received`} <When at={received} as="exact" />
          </Box>
        )}
      </Box>
      <td>{person || "–"}</td>
      <td>{place}</td>
      <td>
        <Box component="span" sx={undone ? { textDecoration: "line-through", color: colors.inkSoft } : {}}>
          {say(what)}
        </Box>
        {undone && (
          <Box sx={{ color: colors.amberDeep, fontSize: "0.92rem" }}>
            {say`undone${undone.person && say` by ${undone.person}`}`}
            {undone.at && (
              <>
                , <When at={undone.at} as="exact" />
              </>
            )}
          </Box>
        )}
      </td>
      <Box
        component="td"
        sx={{
          ...value(from && say(from)),
          color: colors.inkSoft,
          textDecoration: from ? "line-through" : "none",
        }}
      >
        {say(from ?? "")}
      </Box>
      <Box component="td" sx={value(to && say(to))}>
        {say(to ?? "")}
      </Box>
      <td>{say(why ?? "")}</td>
    </tr>
  );
}

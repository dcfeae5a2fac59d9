import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import { counted } from "~/core/run";
import type { TrailLine } from "~/formats/answers";
import { colors, fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { When } from "../../ui/when";

interface TrailPageProps {
  id: string;
  title: string;
  sample: string;
  bench: string;
  lines: readonly TrailLine[];
}

const heads = ["When", "Who", "Where", "What", "From", "To", "Why"];

const words = ({ person, where, what, from, to, why }: TrailLine) =>
  [person, where, what, from, to, why].join(" ").toLowerCase();

/** All that was ever done in a run, the newest first. It is only read: nothing here can be changed or left out. */
export function TrailPage({ id, title, sample, bench, lines }: TrailPageProps) {
  const [query, setQuery] = useState("");
  const asked = query.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = lines.filter((line) => asked.every((word) => words(line).includes(word)));
  return (
    <Box component="main" sx={{ maxWidth: 1280, mx: "auto", px: { xs: 1.5, sm: 3 }, py: 2.5 }}>
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "baseline", columnGap: 2, rowGap: 0.5 }}>
        <Typography variant="h1">Trail of {title}</Typography>
        <Typography color="textSecondary" sx={{ flexGrow: 1 }}>
          {[sample, bench].filter(Boolean).join(", ")}
        </Typography>
        <Link to={`/runs/${id}`}>Back to the run</Link>
      </Box>
      <Typography color="textSecondary" sx={{ mb: 1.5 }}>
        Everything that was done, the newest first. It cannot be changed; what was undone stays, and says so.
      </Typography>
      {lines.length === 0 ? (
        <Sheet>Nothing has been done in this run yet. Its first reading will stand here.</Sheet>
      ) : (
        <>
          <Box sx={{ maxWidth: 380, mb: 1.5 }}>
            <TextField
              label="Find in the trail"
              value={query}
              onChange={(event) => setQuery(event.target.value)}
            />
          </Box>
          <Typography role="status" variant="body2" color="textSecondary" sx={{ mb: 0.5 }}>
            {shown.length === lines.length
              ? counted(lines.length, "line")
              : `${shown.length} of ${lines.length} lines`}
          </Typography>
          <Sheet sx={{ p: 0, overflowX: "auto" }} tabIndex={0} role="region" aria-label="Trail">
            <Box
              component="table"
              sx={{
                width: 1,
                borderCollapse: "collapse",
                "& th, & td": { textAlign: "left", px: 1.5, py: 0.9, verticalAlign: "top" },
                "& th": { color: colors.inkSoft, fontWeight: 600, borderBottom: `2px solid ${colors.line}` },
                "& tbody tr + tr td": { borderTop: `1px solid ${colors.line}` },
              }}
            >
              <thead>
                <tr>
                  {heads.map((head) => (
                    <th key={head} scope="col">
                      {head}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {shown.map((line) => (
                  <Line key={line.id} line={line} />
                ))}
              </tbody>
            </Box>
          </Sheet>
        </>
      )}
    </Box>
  );
}

function Line({ line: { at, person, where, what, from, to, why, undone } }: { line: TrailLine }) {
  const value = { fontFamily: fonts.reading, whiteSpace: "nowrap" } as const;
  return (
    <tr>
      <Box component="td" sx={{ whiteSpace: "nowrap", color: colors.inkSoft }}>
        <When at={at} as="exact" />
      </Box>
      <td>{person || "–"}</td>
      <td>{where ?? ""}</td>
      <td>
        <Box component="span" sx={undone ? { textDecoration: "line-through", color: colors.inkSoft } : {}}>
          {what}
        </Box>
        {undone && (
          <Box sx={{ color: colors.amberDeep, fontSize: "0.92rem" }}>
            undone{undone.person && ` by ${undone.person}`}
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
        sx={{ ...value, color: colors.inkSoft, textDecoration: from ? "line-through" : "none" }}
      >
        {from ?? ""}
      </Box>
      <Box component="td" sx={value}>
        {to ?? ""}
      </Box>
      <td>{why ?? ""}</td>
    </tr>
  );
}

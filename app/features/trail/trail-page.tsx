import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import { counted } from "~/core/text";
import type { TrailLine } from "~/formats/trail";
import { pageMargins } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { TrailTable } from "./trail-table";
import { type Localized, useSay } from "../../words/text";

interface TrailPageProps {
  id: string;
  title: string;
  sample: string;
  bench: string;
  lines: readonly TrailLine[];
}

const words = ({ person, where, what, from, to, why }: TrailLine, say: Localized) =>
  [person, where, what, from, to, why]
    .map((text) => say(text ?? ""))
    .join(" ")
    .toLowerCase();

/** All that was ever done in a run, the newest first. It is only read: nothing here can be changed or left out. */
export function TrailPage({ id, title, sample, bench, lines }: TrailPageProps) {
  const say = useSay();
  const [query, setQuery] = useState("");
  const asked = query.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = lines.filter((line) => asked.every((word) => words(line, say).includes(word)));
  return (
    <Box component="main" sx={pageMargins}>
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "baseline", columnGap: 2, rowGap: 0.5 }}>
        <Typography variant="h1">{say`Trail of ${title}`}</Typography>
        <Typography color="textSecondary" sx={{ flexGrow: 1 }}>
          {[sample, bench].filter(Boolean).join(", ")}
        </Typography>
        <Link to={`/runs/${id}`}>{say`Back to the run`}</Link>
      </Box>
      <Typography color="textSecondary" sx={{ mb: 1.5 }}>
        {say`Everything that was done, newest first. Nothing here can be changed; undone entries stay and are marked.`}
      </Typography>
      {lines.length === 0 ? (
        <Sheet>{say`Nothing yet. The first reading will appear here.`}</Sheet>
      ) : (
        <>
          <Box sx={{ maxWidth: 380, mb: 1.5 }}>
            <TextField
              label={say`Search the trail`}
              value={query}
              onChange={(event) => setQuery(event.target.value)}
            />
          </Box>
          <Typography role="status" variant="body2" color="textSecondary" sx={{ mb: 0.5 }}>
            {say(
              shown.length === lines.length
                ? counted(lines.length, "line")
                : say`${shown.length} of ${lines.length} lines`,
            )}
          </Typography>
          <TrailTable lines={shown} place={{ head: say`Where`, of: ({ where }) => say(where ?? "") }} />
        </>
      )}
    </Box>
  );
}

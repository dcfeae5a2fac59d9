import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import dayjs from "dayjs";
import { useState } from "react";
import { Link } from "react-router";
import type { RunListItem } from "~/protocol/answers";
import { useStoredText } from "../../live/stored-text";
import { colors } from "../../theme/theme";
import { unbroken } from "../../ui/number-text";
import { Sheet } from "../../ui/sheet";
import { RunCard } from "./run-card";
import { type Localized, useSay } from "../../words/text";
import { msg, type Phrase } from "~/core/text";

/** From so many runs on there is a search, and rows instead of cards. */
const many = 8;

const groupings = [
  { value: "none", label: msg`last worked on` },
  { value: "method", label: msg`by method` },
  { value: "person", label: msg`by bench or person` },
  { value: "day", label: msg`by day` },
] as const;
type Grouping = (typeof groupings)[number]["value"];

const groupOf: Record<Exclude<Grouping, "none">, (run: RunListItem, say: Localized) => string> = {
  method: (run) => run.methodTitle,
  person: (run, say) => run.bench || say`no bench`,
  day: (run, say) => dayjs(run.startedAt).format(say`dddd, MMMM D`),
};

/** Runs whose title, sample, bench or method holds all the words that were typed. */
export function runsFound(runs: readonly RunListItem[], query: string): RunListItem[] {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  return runs.filter(({ title, sample, bench, methodTitle }) => {
    const all = [title, sample, bench, methodTitle].join(" ").toLowerCase();
    return words.every((word) => all.includes(word));
  });
}

/** The runs in groups, each in the order in which it comes; one group without a name where they are not grouped. */
export function runsGrouped(
  runs: readonly RunListItem[],
  by: Grouping,
  say: Localized,
): [string, RunListItem[]][] {
  if (by === "none") return [["", [...runs]]];
  const groups = new Map<string, RunListItem[]>();
  for (const run of runs) {
    const name = groupOf[by](run, say);
    groups.set(name, [...(groups.get(name) ?? []), run]);
  }
  return [...groups];
}

/** The runs in progress: cards while there are few, rows with search and groups where there are many. */
export function OpenRuns({ runs }: { runs: readonly RunListItem[] }) {
  const say = useSay();
  const [query, setQuery] = useState("");
  const [storedView, setView] = useStoredText("steady-bead.bench.view");
  const [storedGrouping, setGrouping] = useStoredText("steady-bead.bench.grouping");
  const crowded = runs.length >= many;
  const view = storedView === "rows" || storedView === "cards" ? storedView : crowded ? "rows" : "cards";
  const by = groupings.find(({ value }) => crowded && value === storedGrouping)?.value ?? "none";
  const found = crowded ? runsFound(runs, query) : [...runs];
  return (
    <>
      {crowded && <ListTools {...{ query, setQuery, by, setGrouping, view, setView }} />}
      {found.length === 0 && (
        <Typography color="textSecondary">{say`No run in progress matches “${query}”.`}</Typography>
      )}
      {runsGrouped(found, by, say).map(([name, group]) => (
        <Box
          key={name}
          component="section"
          aria-label={name || undefined}
          sx={{ display: "grid", gap: 1.25 }}
        >
          {name !== "" && <Typography variant="h2">{name}</Typography>}
          {view === "rows" ? (
            <RunRows runs={group} />
          ) : (
            group.map((run) => <RunCard key={run.id} run={run} />)
          )}
        </Box>
      ))}
    </>
  );
}

interface ListToolsProps {
  readonly query: string;
  readonly setQuery: (query: string) => void;
  readonly by: Grouping;
  readonly setGrouping: (by: string) => void;
  readonly view: string;
  readonly setView: (view: string) => void;
}

/** Search, order and form of a long list. */
function ListTools({ query, setQuery, by, setGrouping, view, setView }: ListToolsProps) {
  const say = useSay();
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, alignItems: "center" }}>
      <TextField
        label={say`Search runs in progress`}
        type="search"
        size="small"
        autoComplete="off"
        value={query}
        onChange={(event) => setQuery(event.target.value)}
        sx={{ flex: "1 1 220px" }}
      />
      <TextField
        select
        label={say`Order`}
        size="small"
        value={by}
        onChange={(event) => setGrouping(event.target.value)}
        sx={{ flex: "0 1 200px" }}
      >
        {groupings.map(({ value, label }) => (
          <MenuItem key={value} value={value}>
            {say(label)}
          </MenuItem>
        ))}
      </TextField>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={view}
        aria-label={say`How runs are shown`}
        onChange={(_event, next: string | null) => next && setView(next)}
      >
        <ToggleButton value="cards">{say`cards`}</ToggleButton>
        <ToggleButton value="rows">{say`rows`}</ToggleButton>
      </ToggleButtonGroup>
    </Box>
  );
}

/** One line a run: what it is, and what to do next. */
function RunRows({ runs }: { runs: readonly RunListItem[] }) {
  const say = useSay();
  return (
    <Sheet sx={{ p: 0 }}>
      {runs.map(({ id, title, sample, bench, summary }) => (
        <Box
          key={id}
          component="article"
          aria-label={title}
          sx={{
            display: "grid",
            gridTemplateColumns: { xs: "minmax(0,1fr)", md: "minmax(0,5fr) minmax(0,6fr) 96px" },
            columnGap: 2,
            alignItems: "center",
            px: 2,
            py: 0.75,
            borderTop: `1px solid ${colors.line}`,
            "&:first-of-type": { borderTop: 0 },
          }}
        >
          <Box sx={{ minWidth: 0 }}>
            <Box component={Link} to={`/runs/${id}`} sx={linkStyle}>
              {title}
            </Box>
            <Typography variant="body2" color="textSecondary">
              {[sample, bench].filter(Boolean).join(", ")}
            </Typography>
          </Box>
          <Typography sx={{ lineHeight: 1.3 }}>{unbroken(say(summary.next))}</Typography>
          <Typography
            variant="body2"
            color="textSecondary"
            sx={{ whiteSpace: "nowrap", textAlign: { md: "right" } }}
          >
            {say(stepOf(summary.chain))}
          </Typography>
        </Box>
      ))}
    </Sheet>
  );
}

const linkStyle = {
  color: colors.ink,
  fontWeight: 700,
  textDecoration: "none",
  "&:hover": { textDecoration: "underline" },
} as const;

/** How far a run has come: "stage 2 of 3". */
function stepOf(chain: RunListItem["summary"]["chain"]): Phrase {
  const at = chain.findIndex(({ state }) => state === "current");
  return at < 0 ? "" : msg`stage ${at + 1} of ${chain.length}`;
}

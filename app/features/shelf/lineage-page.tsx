import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import dayjs from "dayjs";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { ancestorsOf, dependentsOf } from "~/core/prepare";
import { concentrationText, howWords } from "~/protocol/concentration";
import { type LineageGraph } from "~/protocol/shelf";
import { height, type LineageNode as Node, NodeCard, width } from "./node-card";
import { colors, fonts } from "../../theme/theme";
import { layOut, type Point } from "../../ui/layered-layout";
import { Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { type Localized, useSay } from "../../words/text";
import { msg, type Phrase } from "~/core/text";

const ageWords = (at: Date | string, now: string): Phrase => {
  const days = dayjs(now).startOf("day").diff(dayjs(at).startOf("day"), "day");
  return days <= 0 ? msg`today` : days === 1 ? msg`1 day old` : msg`${days} days old`;
};

function nodesOf({ bottles, runs }: LineageGraph, now: string, say: Localized): Node[] {
  return [
    ...bottles.map(({ bottle }): Node => ({
      id: bottle.id,
      title: `${bottle.code} ${bottle.name}`,
      fact: bottle.current ? concentrationText(bottle.current) : msg`not known yet`,
      small: bottle.current ? msg`${howWords[bottle.current.how]}, ${ageWords(bottle.current.at, now)}` : "",
      kind: bottle.form,
      past: bottle.state === "past its date",
      to: `/shelf/${bottle.id}`,
    })),
    ...runs.map((run): Node => ({
      id: run.id,
      title: run.sample || run.title,
      fact: run.result ?? msg`no result yet`,
      small: run.sample ? run.title : dayjs(run.at).format(say`MMM D`),
      kind: "run",
      past: false,
      to: `/runs/${run.id}`,
    })),
  ];
}

interface LineagePageProps {
  graph: LineageGraph;
  of: string | null;
  now: string;
}

/** A chart of what rests on what. Select a bottle, and all that depends on it stays bright. */
export function LineagePage({ graph, of, now }: LineagePageProps) {
  const say = useSay();
  const [selected, setSelected] = useState(of);
  const { nodes, standsOn, drawn } = useDrawnLineage(graph, now);
  const chosen = nodes.find((n) => n.id === selected) ?? null;
  const depends = chosen ? dependentsOf(chosen.id, standsOn) : new Set<string>();
  const grounds = chosen ? ancestorsOf(chosen.id, standsOn) : new Set<string>();
  const bright = (id: string) => !chosen || id === chosen.id || depends.has(id) || grounds.has(id);
  const { width: w, height: h } = drawn;
  return (
    <Page
      title={say`Lineage`}
      note={say`Traceability: each solution rests on those to its left. Select one to see everything that depends on it.`}
      width={1480}
      actions={
        <Button component={Link} to="/shelf" variant="outlined">
          {say`Back to the shelf`}
        </Button>
      }
    >
      {nodes.length === 0 ? (
        <NothingYet />
      ) : (
        <Box
          sx={{
            display: "grid",
            gap: 2,
            alignItems: "start",
            gridTemplateColumns: { xs: "minmax(0,1fr)", lg: "minmax(0,1fr) 300px" },
          }}
        >
          <Picture
            w={w}
            h={h}
            drawn={drawn}
            chosen={chosen}
            bright={bright}
            nodes={nodes}
            selected={selected}
            setSelected={setSelected}
          />
          <Selected chosen={chosen} nodes={nodes} depends={depends} grounds={grounds} />
        </Box>
      )}
    </Page>
  );
}

function NothingYet() {
  const say = useSay();
  return (
    <Sheet sx={{ p: 4, textAlign: "center" }}>
      <Typography variant="h2">{say`No lineage yet`}</Typography>
      <Typography color="textSecondary">
        {say`Put a bottle on the shelf, or finish a standardization.`}
      </Typography>
    </Sheet>
  );
}

interface PictureProps {
  readonly w: number;
  readonly h: number;
  readonly drawn: ReturnType<typeof layOut>;
  readonly chosen: Node | null;
  readonly bright: (id: string) => boolean;
  readonly nodes: Node[];
  readonly selected: string | null;
  readonly setSelected: (to: string | null) => void;
}

function Picture({ w, h, drawn, chosen, bright, nodes, selected, setSelected }: PictureProps) {
  const say = useSay();
  return (
    <Sheet
      component="section"
      aria-label={say`The picture`}
      tabIndex={0}
      sx={{ p: 1, overflow: "auto", maxHeight: "76vh" }}
    >
      <Box sx={{ position: "relative", width: w, height: h }}>
        <svg width={w} height={h} style={{ position: "absolute", inset: 0 }} aria-hidden="true">
          {drawn.edges.map(({ from, to }) => {
            const on = chosen !== null && bright(from) && bright(to);
            return (
              <path
                key={`${from} ${to}`}
                d={curve(drawn.places.get(from), drawn.places.get(to))}
                fill="none"
                stroke={on ? colors.teal : colors.lineStrong}
                strokeWidth={on ? 3 : 1.75}
                opacity={chosen && !on ? 0.35 : 1}
              />
            );
          })}
        </svg>
        {nodes.map((node) => {
          const place = drawn.places.get(node.id);
          return (
            <NodeCard
              key={node.id}
              node={node}
              left={(place?.x ?? 0) - width / 2}
              top={(place?.y ?? 0) - height / 2}
              selected={node.id === selected}
              bright={bright(node.id)}
              onSelect={() => setSelected(node.id === selected ? null : node.id)}
            />
          );
        })}
      </Box>
    </Sheet>
  );
}

interface SelectedProps {
  readonly chosen: Node | null;
  readonly nodes: Node[];
  readonly depends: Set<string>;
  readonly grounds: Set<string>;
}

function Selected({ chosen, nodes, depends, grounds }: SelectedProps) {
  const say = useSay();
  return (
    <Sheet component="section" aria-label={say`Selected`} aria-live="polite">
      {chosen ? (
        <>
          <Typography variant="h2">{chosen.title}</Typography>
          <Typography sx={{ fontFamily: fonts.reading }}>{say(chosen.fact)}</Typography>
          <Link to={chosen.to}>{chosen.kind === "run" ? say`Open the run` : say`Open the bottle`}</Link>
          <Typography variant="h3" sx={{ mt: 1.5 }}>
            {say`Depends on it`}
          </Typography>
          <Names nodes={nodes.filter((n) => depends.has(n.id))} />
          <Typography variant="h3" sx={{ mt: 1.5 }}>
            {say`Rests on`}
          </Typography>
          <Names nodes={nodes.filter((n) => grounds.has(n.id))} />
        </>
      ) : (
        <Typography color="textSecondary">
          {say`${nodes.length} in the diagram. An error in one affects everything to its right.`}
        </Typography>
      )}
    </Sheet>
  );
}

function useDrawnLineage(graph: LineageGraph, now: string) {
  const say = useSay();
  const nodes = useMemo(() => nodesOf(graph, now, say), [graph, now, say]);
  const standsOn = useMemo(
    () =>
      new Map([
        ...graph.bottles.map(({ bottle, standsOn: grounds }) => [bottle.id, grounds] as const),
        ...graph.runs.map((run) => [run.id, run.standsOn] as const),
      ]),
    [graph],
  );
  const drawn = useMemo(
    () =>
      layOut(
        nodes.map((n) => n.id),
        standsOn,
        { width, height },
      ),
    [nodes, standsOn],
  );
  return { nodes, standsOn, drawn };
}

function Names({ nodes }: { nodes: readonly Node[] }) {
  const say = useSay();
  if (nodes.length === 0) return <Typography color="textSecondary">{say`nothing`}</Typography>;
  return (
    <Box component="ul" sx={{ pl: 2.25, my: 0.5 }}>
      {nodes.map((n) => (
        <li key={n.id}>
          <Link to={n.to}>{n.title}</Link>
        </li>
      ))}
    </Box>
  );
}

/** From the right side of one to the left side of the other. */
function curve(from: Point | undefined, to: Point | undefined): string {
  if (!from || !to) return "";
  const [x1, x2] = [from.x + width / 2, to.x - width / 2];
  const middle = (x1 + x2) / 2;
  return `M${x1} ${from.y}C${middle} ${from.y} ${middle} ${to.y} ${x2} ${to.y}`;
}

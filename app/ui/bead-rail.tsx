import { colors, fonts } from "../theme/theme";
import { useSay } from "../words/text";

export interface RailBead {
  readonly id: string;
  readonly name: string;
  readonly value: number;
  /** In the concordant set, counted but outside it, rough, or struck out. */
  readonly role: "member" | "other" | "rough" | "struck";
}

export interface BeadRailProps {
  beads: readonly RailBead[];
  /** Where a value joins or makes a set: one window, or several while trials disagree. */
  collars: readonly (readonly [number, number])[];
  label: string;
  /** Decimals that the values are read with. */
  decimals?: number;
}

const width = 360;
const line = { left: 18, right: width - 18, y: 52 };
const radius = 10;

/** A step of 1, 2 or 5 times a power of ten that gives about `count` steps. */
function niceStep(span: number, count: number): number {
  const raw = span / count;
  const power = 10 ** Math.floor(Math.log10(raw));
  return (raw / power > 5 ? 10 : raw / power > 2 ? 5 : raw / power > 1 ? 2 : 1) * power;
}

/** What is written at a bead that does not count, and how wide that is. */
const captions: Partial<Record<RailBead["role"], string>> = { rough: "rough", struck: "struck" };
const captionWidth = 42;

interface PlacedBead extends RailBead {
  readonly row: number;
  /** True where the caption stands under its bead: above it would run into the one before. */
  readonly captionBelow: boolean;
}

/** Lifts beads that would cover each other onto a second and third row; captions give way to each other as well. */
function rows(beads: readonly RailBead[], x: (value: number) => number): PlacedBead[] {
  const lastX: number[] = [];
  let lastAbove = -Infinity;
  return [...beads]
    .sort((a, b) => a.value - b.value)
    .map((bead) => {
      const at = x(bead.value);
      let row = lastX.findIndex((last) => at - last >= 2 * radius - 2);
      if (row < 0) row = lastX.length;
      lastX[row] = at;
      const captionBelow = bead.role in captions && row === 0 && at - lastAbove < captionWidth;
      if (bead.role in captions && !captionBelow) lastAbove = at;
      return { ...bead, row, captionBelow };
    });
}

/** The replicates as beads on a number line, with the agreement window as a collar around those that agree, or a collar for each place where one more would. */
export function BeadRail({ beads, collars, label, decimals: read = 2 }: BeadRailProps) {
  const say = useSay();
  if (beads.length === 0) return null;
  const values = [...beads.map((b) => b.value), ...collars.flat()];
  const [least, most] = [Math.min(...values), Math.max(...values)];
  // Beads that all but coincide are not blown up to fill the rail: twenty steps of the scale is the least it shows.
  const span = Math.max(most - least, 20 / 10 ** read);
  const from = (least + most) / 2 - span * 0.58;
  const to = (least + most) / 2 + span * 0.58;
  const x = (value: number) => line.left + ((value - from) / (to - from)) * (line.right - line.left);
  const step = niceStep(to - from, 5);
  const decimals = Math.max(0, -Math.floor(Math.log10(step) + 1e-9));
  const ticks: number[] = [];
  for (let tick = Math.ceil(from / step) * step; tick <= to + 1e-9; tick += step) ticks.push(tick);
  const placed = rows(beads, x);
  const inSet = beads.filter((b) => b.role === "member").map((b) => b.name);
  const description = say`${label}. ${beads.map((b) => `${b.name}: ${b.value.toFixed(read)}`).join(", ")}. In agreement: ${inSet.join(", ") || say`none`}.`;
  const lift = Math.max(0, ...placed.map((b) => b.row)) * (2 * radius - 1);
  const y = (row: number) => line.y + lift - row * (2 * radius - 1);
  const base = line.y + lift;
  return (
    <svg
      viewBox={`0 0 ${width} ${base + 54}`}
      role="img"
      aria-label={description}
      style={{ width: "100%", display: "block" }}
    >
      {collars.map((collar) => (
        <rect
          key={collar[0]}
          x={x(collar[0])}
          y={base - radius - 12 - lift}
          width={Math.max(2, x(collar[1]) - x(collar[0]))}
          height={2 * radius + 24 + lift}
          rx={9}
          fill={colors.tealPale}
          stroke={colors.teal}
          strokeWidth={1.3}
          strokeDasharray="4 3"
        />
      ))}
      <line
        x1={line.left - 8}
        x2={line.right + 8}
        y1={base}
        y2={base}
        stroke={colors.ink}
        strokeWidth={1.6}
      />
      {ticks.map((tick) => (
        <Tick key={tick} x={x} tick={tick} base={base} decimals={decimals} />
      ))}
      {placed.map((bead) => (
        <BeadMark key={bead.id} bead={bead} x={x} y={y} />
      ))}
    </svg>
  );
}

interface TickProps {
  readonly x: (value: number) => number;
  readonly tick: number;
  readonly base: number;
  readonly decimals: number;
}

function Tick({ x, tick, base, decimals }: TickProps) {
  return (
    <g>
      <line x1={x(tick)} x2={x(tick)} y1={base + 24} y2={base + 29} stroke={colors.lineStrong} />
      <text
        x={x(tick)}
        y={base + 44}
        textAnchor="middle"
        fontFamily={fonts.reading}
        fontSize="13"
        fill={colors.inkSoft}
      >
        {tick.toFixed(decimals)}
      </text>
    </g>
  );
}

interface BeadMarkProps {
  readonly bead: ReturnType<typeof rows>[number];
  readonly x: (value: number) => number;
  readonly y: (row: number) => number;
}

function BeadMark({ bead, x, y }: BeadMarkProps) {
  const { name, value, role, row, captionBelow } = bead;
  return (
    <g>
      <circle
        cx={x(value)}
        cy={y(row)}
        r={radius}
        fill={role === "member" ? colors.teal : colors.sheet}
        stroke={role === "member" ? "#fff" : role === "other" ? colors.teal : colors.lineStrong}
        strokeWidth={role === "other" ? 2 : 1.6}
        strokeDasharray={role === "rough" ? "3 2.4" : undefined}
      />
      {role === "struck" && (
        <path
          d={`M${x(value) - 6} ${y(row) - 6} l12 12 m0 -12 l-12 12`}
          stroke={colors.brick}
          strokeWidth={2}
          strokeLinecap="round"
        />
      )}
      {captions[role] === undefined ? (
        <text
          x={x(value)}
          y={y(row) + 4.5}
          textAnchor="middle"
          fontFamily={fonts.text}
          fontSize={name.length > 2 ? 8 : 13}
          fontWeight={700}
          fill={role === "member" ? "#fff" : colors.tealDeep}
        >
          {name.slice(0, 4)}
        </text>
      ) : (
        <text
          x={Math.min(Math.max(x(value), 26), width - 26)}
          y={captionBelow ? y(row) + radius + 12 : y(row) - radius - 6}
          textAnchor="middle"
          fontFamily={fonts.text}
          fontSize="13"
          fill={colors.inkSoft}
        >
          {captions[role]}
        </text>
      )}
    </g>
  );
}

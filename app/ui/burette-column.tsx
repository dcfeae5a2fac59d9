import { colors, fonts } from "../theme/theme";

export interface BuretteMarks {
  readonly capacityMl: number;
  readonly decimals: number;
  /** Initial reading of the trial in hand. */
  readonly start: number | null;
  readonly slowAt: number | null;
  readonly endNear: number | null;
  /** The reading as it is being typed, where it is a possible one. */
  readonly now: number | null;
}

const width = 236;
const top = 22;
const scaleHeight = 520;
const tube = { left: 98, right: 132 };
const labelX = tube.right + 16;

interface Label {
  readonly at: number;
  readonly title: string;
  readonly value: string;
  readonly color: string;
}

/** Spreads labels downward so that none stands on another, in order of their places on the scale. */
function spread(labels: readonly Label[], gap: number): (Label & { y: number; target: number })[] {
  let least = -Infinity;
  return [...labels]
    .sort((a, b) => a.at - b.at)
    .map((label) => {
      const y = Math.max(label.at, least);
      least = y + gap;
      return { ...label, y, target: label.at };
    });
}

/**
 * The burette drawn to scale: what has run out above the meniscus, the stretch to run freely, the stretch to go drop by
 * drop, and where the end should come. Said in words too, for those who do not see it.
 */
export function BuretteColumn({ capacityMl, decimals, start, slowAt, endNear, now }: BuretteMarks) {
  const y = (ml: number) => top + (Math.min(Math.max(ml, 0), capacityMl) / capacityMl) * scaleHeight;
  const bottom = top + scaleHeight;
  const step = capacityMl / 10;
  const marks = Array.from({ length: 51 }, (_, i) => (i * capacityMl) / 50);
  const level = now ?? start;
  const inReach = endNear !== null && endNear <= capacityMl;
  const labels: Label[] = [];
  if (start !== null)
    labels.push({ at: y(start), title: "start", value: start.toFixed(decimals), color: colors.teal });
  if (slowAt !== null && inReach) {
    labels.push({ at: y(slowAt), title: "slow at", value: slowAt.toFixed(1), color: colors.pinkDeep });
  }
  if (inReach)
    labels.push({ at: y(endNear), title: "end near", value: endNear.toFixed(2), color: colors.pinkDeep });
  if (now !== null)
    labels.push({ at: y(now), title: "now", value: now.toFixed(decimals), color: colors.ink });
  const said = [
    `Burette of ${capacityMl} mL.`,
    ...labels.map(({ title, value }) => `${title} ${value} mL.`),
    endNear !== null && !inReach ? "The end lies past the last mark." : "",
  ].join(" ");

  return (
    <svg
      viewBox={`0 0 ${width} ${bottom + 62}`}
      role="img"
      aria-label={said}
      style={{ width: "100%", height: "auto", maxHeight: 640, display: "block", margin: "0 auto" }}
    >
      <defs>
        <pattern
          id="run-freely"
          width="7"
          height="7"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="7" height="7" fill={colors.tealPale} />
          <line x1="0" y1="0" x2="0" y2="7" stroke="#a9c6c3" strokeWidth="1.6" />
        </pattern>
      </defs>
      {level !== null && (
        <rect
          x={tube.left + 1.5}
          y={y(level)}
          width={tube.right - tube.left - 3}
          height={bottom + 6 - y(level)}
          fill={colors.tealPale}
        />
      )}
      {start !== null && inReach && (
        <>
          <rect
            x={tube.left + 1.5}
            y={y(start)}
            width={tube.right - tube.left - 3}
            height={Math.max(0, y(slowAt ?? endNear) - y(start))}
            fill="url(#run-freely)"
          />
          {slowAt !== null && (
            <rect
              x={tube.left + 1.5}
              y={y(slowAt)}
              width={tube.right - tube.left - 3}
              height={Math.max(3, y(endNear) - y(slowAt))}
              fill={colors.pinkBand}
            />
          )}
        </>
      )}
      {now !== null && start !== null && (
        <rect
          x={tube.left + 1.5}
          y={y(start)}
          width={tube.right - tube.left - 3}
          height={Math.max(0, y(now) - y(start))}
          fill="#ffffff"
          opacity={0.82}
        />
      )}
      {level !== null && (
        <path
          d={`M${tube.left + 1} ${y(level) - 2.5} Q${(tube.left + tube.right) / 2} ${y(level) + 3.5} ${tube.right - 1} ${y(level) - 2.5}`}
          fill="none"
          stroke={colors.tealDeep}
          strokeWidth={2}
        />
      )}
      <path
        d={`M${tube.left} ${top - 14} V${bottom + 6} L${tube.left + 11} ${bottom + 18} V${bottom + 30} L${tube.left + 14} ${bottom + 52} H${tube.right - 14} L${tube.right - 11} ${bottom + 30} V${bottom + 18} L${tube.right} ${bottom + 6} V${top - 14}`}
        fill="none"
        stroke="#6d7b79"
        strokeWidth={1.6}
        strokeLinejoin="round"
      />
      <rect
        x={tube.left - 6}
        y={bottom + 21}
        width={tube.right - tube.left + 12}
        height={7}
        rx={3.5}
        fill={colors.ink}
      />
      {marks.map((ml, i) => {
        const long = i % 5 === 0;
        return (
          <line
            key={ml}
            x1={tube.left - (long ? 16 : 8)}
            x2={tube.left}
            y1={y(ml)}
            y2={y(ml)}
            stroke={long ? "#56625f" : "#9aa4a1"}
            strokeWidth={long ? 1.4 : 1}
          />
        );
      })}
      {Array.from({ length: 11 }, (_, i) => i * step).map((ml) => (
        <text
          key={ml}
          x={tube.left - 24}
          y={y(ml) + 5}
          textAnchor="end"
          fontFamily={fonts.reading}
          fontSize="15"
          fill={colors.ink}
        >
          {step < 1 ? ml.toFixed(1) : ml}
        </text>
      ))}
      {start === null && (
        <text x={labelX - 6} y={top + 20} fontFamily={fonts.text} fontSize="14.5" fill={colors.inkSoft}>
          <tspan x={labelX - 6}>read the</tspan>
          <tspan x={labelX - 6} dy="18">
            start first
          </tspan>
        </text>
      )}
      {spread(labels, 40).map(({ y: at, target, title, value, color }) => (
        <g key={title}>
          <path
            d={`M${tube.right} ${target} L${labelX - 4} ${at}`}
            stroke={color}
            strokeWidth={1.5}
            fill="none"
          />
          <text x={labelX} y={at - 1} fontFamily={fonts.text} fontSize="14.5" fontWeight={700} fill={color}>
            {title}
          </text>
          <text x={labelX} y={at + 16} fontFamily={fonts.reading} fontSize="16.5" fill={color}>
            {value}
          </text>
        </g>
      ))}
    </svg>
  );
}

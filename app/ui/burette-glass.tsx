import { colors, fonts } from "../theme/theme";

export interface BuretteMarks {
  readonly capacityMl: number;
  readonly decimals: number;
  /** Initial reading of the trial in hand. */
  readonly start: number | null;
  readonly slowAt: number | null;
  readonly endNear: number | null;
  /** The end as it is told elsewhere. */
  readonly endTexts: readonly string[];
  /** True where the end comes before that. */
  readonly before?: boolean;
  /** True where nothing but the method speaks for it: nobody runs freely to it. */
  readonly presumed?: boolean;
  /** All places where the end may come, where trials that disagree name several. */
  readonly ends?: readonly number[];
  /** The reading as it is being typed, where it is a possible one. */
  readonly now: number | null;
  /** Places where the end may have been. */
  readonly marks?: readonly number[];
  /** Where the meniscus can be moved by hand: the place that it was drawn to, mL, or by how many drops. */
  readonly onMove?: ((to: { ml: number } | { drops: number }) => void) | undefined;
}

/** Sizes of the drawing, in its own units. */
export const width = 236;
export const top = 22;
export const scaleHeight = 520;
export const tube = { left: 98, right: 132 };

/** Places a volume on the drawing. */
type HeightOf = (ml: number) => number;

interface LiquidProps {
  marks: BuretteMarks;
  level: number | null;
  y: HeightOf;
}

/** What is in the tube: the titrant, the stretch to run freely, the stretch to go drop by drop, the meniscus. */
export function Liquid({
  marks: { capacityMl, start, slowAt, endNear, presumed = false, now },
  level,
  y,
}: LiquidProps) {
  const bottom = top + scaleHeight;
  const inReach = endNear !== null && endNear <= capacityMl;
  return (
    <>
      {level !== null && (
        <rect
          x={tube.left + 1.5}
          y={y(level)}
          width={tube.right - tube.left - 3}
          height={bottom + 6 - y(level)}
          fill={colors.tealPale}
        />
      )}
      {start !== null && inReach && !presumed && (
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
    </>
  );
}

/** The glass itself with its tap, its divisions and their numbers. */
export function Glass({ capacityMl, y }: { capacityMl: number; y: HeightOf }) {
  const bottom = top + scaleHeight;
  const step = capacityMl / 10;
  const divisions = Array.from({ length: 51 }, (_, i) => (i * capacityMl) / 50);
  return (
    <>
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
      {divisions.map((ml, i) => {
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
    </>
  );
}

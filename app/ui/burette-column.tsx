import { colors, fonts } from "../theme/theme";
import { type BuretteMarks, Glass, Liquid, scaleHeight, top, tube, width } from "./burette-glass";
import { useSlider } from "./burette-slider";
import { useSay } from "../words/text";
import { msg, type Phrase, sentences } from "~/core/text";

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
 * drop, and the expected end point. In words too, for screen readers.
 */
export function BuretteColumn(props: BuretteMarks) {
  const say = useSay();
  const { capacityMl, decimals, start, slowAt, endNear, endTexts, now, marks: maybe = [], onMove } = props;
  const { before = false, presumed = false, ends = [] } = props;
  const y = (ml: number) => top + (Math.min(Math.max(ml, 0), capacityMl) / capacityMl) * scaleHeight;
  const bottom = top + scaleHeight;
  const level = now ?? start;
  const inReach = endNear !== null && endNear <= capacityMl;
  const labels: Label[] = [];
  if (start !== null)
    labels.push({ at: y(start), title: say`start`, value: start.toFixed(decimals), color: colors.teal });
  if (slowAt !== null && inReach) {
    labels.push({ at: y(slowAt), title: say`slow at`, value: slowAt.toFixed(1), color: colors.pinkDeep });
  }
  const title = presumed ? say`presumed` : before ? say`end before` : say`end near`;
  const color = presumed ? colors.inkSoft : colors.pinkDeep;
  if (inReach) {
    // Several places stand each at its own height, by the text that names them in turn.
    endTexts.forEach((value, i) => labels.push({ at: y(ends[i] ?? endNear), title, value, color }));
  }
  if (now !== null)
    labels.push({ at: y(now), title: say`now`, value: now.toFixed(decimals), color: colors.ink });
  const description = wordsOf({ capacityMl, labels, endNear, inReach, maybe, decimals });

  const slider = useSlider(props, level);
  return (
    <svg
      viewBox={`0 0 ${width} ${bottom + 62}`}
      role="img"
      aria-label={say(description)}
      {...slider}
      style={{
        width: "100%",
        height: "auto",
        maxHeight: 640,
        display: "block",
        margin: "0 auto",
        ...(onMove ? { cursor: "ns-resize", touchAction: "none" } : {}),
      }}
    >
      <HatchPattern />
      <Liquid marks={props} level={level} y={y} />
      <Glass capacityMl={capacityMl} y={y} />
      {start === null && (
        <text x={labelX - 6} y={top + 20} fontFamily={fonts.text} fontSize="14.5" fill={colors.inkSoft}>
          <tspan x={labelX - 6}>{say`read the`}</tspan>
          <tspan x={labelX - 6} dy="18">
            {say`start first`}
          </tspan>
        </text>
      )}
      <MaybeMarks maybe={maybe} y={y} />
      <Pointers labels={labels} />
    </svg>
  );
}

function HatchPattern() {
  return (
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
  );
}

function Pointers({ labels }: { readonly labels: Label[] }) {
  return spread(labels, 40).map(({ y: at, target, title, value, color }) => (
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
  ));
}

/** What the drawing shows, for those who do not see it. */
function wordsOf({
  capacityMl,
  labels,
  endNear,
  inReach,
  maybe,
  decimals,
}: {
  readonly capacityMl: number;
  readonly labels: Label[];
  readonly endNear: number | null;
  readonly inReach: boolean;
  readonly maybe: readonly number[];
  readonly decimals: number;
}): Phrase {
  return sentences([
    msg`Burette of ${capacityMl} mL.`,
    ...labels.map(({ title, value }) => msg`${title} ${value} mL.`),
    endNear !== null && !inReach ? msg`The end lies past the last mark.` : "",
    maybe.length > 0 ? msg`Possible end point: ${maybe.map((ml) => ml.toFixed(decimals)).join(", ")}.` : "",
  ]);
}

function MaybeMarks({ maybe, y }: { readonly maybe: readonly number[]; readonly y: (ml: number) => number }) {
  return maybe.map((ml, i) => (
    <path
      key={`${ml} ${i}`}
      d={`M${tube.left - 2} ${y(ml)} H${tube.right + 2}`}
      stroke={colors.pink}
      strokeWidth={2}
      strokeDasharray="4 3"
    />
  ));
}

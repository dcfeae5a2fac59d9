import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { decimalsFor, toDecimals, withUnit } from "~/core/quantity";
import { compareResult } from "~/core/evaluate";
import type { ComputedEvaluation } from "~/core/stages";
import type { RunRecord } from "~/core/run";
import type { DrawFound, DrawRequest } from "~/workers/monte-carlo";
import { colors, fonts } from "../../theme/theme";
import { SecondWay } from "../../ui/second-way";
import { useWorker } from "../../ui/use-worker";
import { useSay } from "../../words/text";

const draws = 1_000_000;

/** The ± checked a second way: a million draws of every cause, through the same relations. */
export function DrawsPanel({ record, stage }: { record: RunRecord; stage: ComputedEvaluation }) {
  const say = useSay();
  const { now, start, cancel } = useWorker<DrawRequest, DrawFound>();
  const found = now.state === "done" ? compareResult(stage, now.found.drawn) : null;
  const begin = () => {
    // The same run draws the same numbers, so that two people see one picture.
    const request: DrawRequest = { record, stageKey: stage.key, draws, seed: 20_261_125 };
    start(
      () => new Worker(new URL("../../../workers/monte-carlo.ts", import.meta.url), { type: "module" }),
      request,
    );
  };
  return (
    <SecondWay
      what={say`Each source of uncertainty is drawn at random a million times and carried through the same equations.`}
      state={now}
      counts={say`Draws done`}
      begin={say`Run 1,000,000 Monte Carlo trials`}
      again={say`Draw again`}
      onStart={begin}
      onCancel={cancel}
    >
      {found && <Found found={found} unit={stage.definition.result.unit} />}
    </SecondWay>
  );
}

function Found({ found, unit }: { found: NonNullable<ReturnType<typeof compareResult>>; unit: string }) {
  const say = useSay();
  const { drawn, linear, comparison, text } = found;
  const decimals = decimalsFor(linear.standardUncertainty, 2);
  const show = (x: number) => toDecimals(x, decimals);
  const shownUnit = withUnit("", unit);
  const rows = [
    [say`u, propagated`, say`${show(linear.standardUncertainty)}${shownUnit}`],
    [
      say`u, drawn`,
      found.spreadIsFinite
        ? say`${show(drawn.standardUncertainty)}${shownUnit}`
        : say`too few trials for one`,
    ],
    [
      say`95 %, propagated`,
      say`${show(linear.value - linear.half95)} to ${show(linear.value + linear.half95)}`,
    ],
    [say`95 %, drawn`, say`${show(drawn.interval[0])} to ${show(drawn.interval[1])}`],
  ] as const;
  return (
    <>
      <Histogram drawn={drawn} linear={[linear.value - linear.half95, linear.value + linear.half95]} />
      <Typography variant="caption" color="textSecondary" sx={{ display: "block" }}>
        {say`Filled: the middle 95 % of the draws. Bracket: the 95 % interval as propagated.`}
      </Typography>
      <Box
        component="dl"
        sx={{
          display: "grid",
          gridTemplateColumns: "auto 1fr",
          columnGap: 1.5,
          rowGap: 0.25,
          my: 1,
          alignItems: "baseline",
        }}
      >
        {rows.map(([name, value]) => (
          <Box key={name} sx={{ display: "contents" }}>
            <Box component="dt" sx={{ color: colors.inkSoft }}>
              {name}
            </Box>
            <Box
              component="dd"
              sx={{
                m: 0,
                whiteSpace: "nowrap",
                fontFamily: /^\d/.test(value) ? fonts.reading : fonts.text,
                fontSize: "0.92rem",
              }}
            >
              {value}
            </Box>
          </Box>
        ))}
      </Box>
      <Typography
        sx={{ mb: 1, fontWeight: 600, color: comparison.agree ? colors.tealDeep : colors.amberDeep }}
      >
        {say(text)}
      </Typography>
    </>
  );
}

const size = { width: 320, height: 96 };

/** How the draws lie, with the drawn 95 % filled and the propagated 95 % as a bracket above. */
function Histogram({
  drawn,
  linear,
}: {
  drawn: NonNullable<ReturnType<typeof compareResult>>["drawn"];
  linear: readonly [number, number];
}) {
  const say = useSay();
  const { from, to, counts } = drawn.histogram;
  const most = Math.max(...counts, 1);
  const x = (value: number) => ((value - from) / (to - from)) * size.width;
  const step = (to - from) / counts.length;
  return (
    <svg
      viewBox={`0 -14 ${size.width} ${size.height + 16}`}
      role="img"
      aria-label={say`How the draws lie around the result, the middle 95 % filled`}
      style={{ width: "100%", display: "block", marginTop: 4 }}
    >
      {counts.map((count, i) => {
        const middle = from + (i + 0.5) * step;
        const inside = middle >= drawn.interval[0] && middle <= drawn.interval[1];
        const height = (count / most) * size.height;
        return (
          <rect
            key={i}
            x={x(from + i * step)}
            y={size.height - height}
            width={size.width / counts.length - 0.8}
            height={height}
            fill={inside ? colors.teal : colors.lineStrong}
          />
        );
      })}
      <path
        d={`M${x(linear[0])} -2 v-8 H${x(linear[1])} v8`}
        fill="none"
        stroke={colors.ink}
        strokeWidth={1.6}
      />
    </svg>
  );
}

import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Switch from "@mui/material/Switch";
import Typography from "@mui/material/Typography";
import { useMemo } from "react";
import { plusMinusOf } from "~/core/judgement";
import { type OrderComparison, type OrderFit, orderWord, rateUnits } from "~/core/kinetics";
import { toDecimals, toSignificant } from "~/core/quantity";
import { type CourseEvaluation, plusMinusWords, type RateEvaluation } from "~/core/stages";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { Chart } from "../../../ui/chart/chart";
import { Sheet } from "../../../ui/sheet";
import { withHalf } from "./rate-facts";
import { transformedOption } from "./rate-option";
import { useSay } from "../../../words/text";
import { msg, inEnglish, capitalized } from "~/core/text";

interface OrderTableProps {
  stage: RateEvaluation;
  comparison: OrderComparison;
}

const plots = ["A against t", "ln A against t", "1/A against t"] as const;

/** Zero, first and second order side by side: the plot of each, how straight it is, and what a better judge says. */
export function OrderTable({ stage, comparison }: OrderTableProps) {
  const say = useSay();
  const { rules, locked, send } = useRunInHand();
  const course = stage.trials.find((t) => t.comparison === comparison);
  const choose = (order: string) =>
    void send({ intent: "choose", stageKey: stage.key, name: "order", value: order });
  const fitEnd = (fitted: boolean) =>
    void send({ intent: "choose", stageKey: stage.key, name: "end", value: fitted ? "fitted" : "" });
  return (
    <Sheet component="section" aria-labelledby="orders-title" sx={{ minWidth: 0 }}>
      <Typography id="orders-title" variant="h2">
        {say`Which order?`}
      </Typography>
      <Typography data-testid="order-verdict" sx={{ mb: 1, fontWeight: 600 }}>
        {say(comparison.text)}
      </Typography>
      <FormControlLabel
        control={
          <Switch
            checked={stage.endFitted}
            disabled={locked}
            onChange={(event) => fitEnd(event.target.checked)}
          />
        }
        label={say`Fit the end absorbance: the color levels off, but not at zero`}
        sx={{ mb: 1 }}
      />
      <Box
        sx={{
          display: "grid",
          gap: 1.5,
          gridTemplateColumns: { xs: "minmax(0,1fr)", sm: "repeat(3, minmax(0, 1fr))" },
        }}
      >
        {comparison.fits.map((fit) => (
          <OrderColumn
            key={fit.order}
            fit={fit}
            course={course}
            best={comparison.best === fit.order}
            ended={stage.endFitted && fit.order !== 0}
            taken={stage.order === fit.order}
            chosen={stage.chosen}
            onTake={() => choose(String(fit.order))}
            onRelease={() => choose("")}
          />
        ))}
      </Box>
      <Typography variant="body2" color="textSecondary" sx={{ mt: 1 }}>
        {say`± is ${plusMinusWords[rules.plusMinus]}. r is the correlation coefficient of the straight plot. The relative likelihood is the Akaike weight of the untransformed readings; the residuals are on that scale too.`}
        {comparison.each > 1 &&
          say` With this many readings, the fit uses the means of ${comparison.each} neighboring readings.`}
      </Typography>
    </Sheet>
  );
}

function evidenceWords(part: number): string {
  if (part > 0.999) return "> 99.9 %";
  return part < 0.001 ? "< 0.1 %" : `${(100 * part).toPrecision(2)} %`;
}

interface OrderColumnProps {
  fit: OrderFit;
  course: CourseEvaluation | undefined;
  best: boolean;
  /** True where the absorbance that it levels off at was fitted too. */
  ended: boolean;
  taken: boolean;
  chosen: boolean;
  onTake: () => void;
  onRelease: () => void;
}

function OrderColumn(props: OrderColumnProps) {
  const say = useSay();
  const { fit, course, best, ended, taken, chosen, onTake, onRelease } = props;
  const { rules, locked } = useRunInHand();
  const option = useMemo(
    () => (course ? transformedOption(course, fit.order, say) : {}),
    [course, fit.order, say],
  );
  const word = orderWord(fit.order);
  const half = (u: number) => plusMinusOf(u, fit.degreesOfFreedom, rules.plusMinus);
  const rows: [string, string][] = [
    ["r", toDecimals(fit.line.r, 5)],
    [say`relative likelihood`, evidenceWords(fit.evidence)],
    [say`residuals`, toSignificant(fit.residualSd, 2)],
    ["k", say(withHalf(fit.k, half(fit.u), rateUnits[fit.order]))],
    [say`half-life`, say(withHalf(fit.halfLife, half(fit.halfLifeU), "s"))],
    ...(ended ? [[say`end`, say(withHalf(fit.end, half(fit.endU), "1"))] as [string, string]] : []),
  ];
  return (
    <Box
      data-testid={`order-${fit.order}`}
      sx={{
        border: `${taken ? 2 : 1}px solid ${taken ? colors.teal : colors.line}`,
        borderRadius: "10px",
        p: 1,
        minWidth: 0,
      }}
    >
      <Box sx={{ fontWeight: 700 }}>
        {say`${capitalized(word)} order${taken ? msg`, taken` : best ? msg`, fits best` : ""}`}
      </Box>
      <Chart
        label={say`${plots[fit.order]}, with its straight line, and the residuals below`}
        option={option}
        height={240}
        fileName={`${inEnglish(word)} order`}
        many={(course?.trace?.x.length ?? 0) > 1000}
      />
      <Facts rows={rows} />
      {fit.line.leftOut > 0 && (
        <Typography variant="caption" sx={{ color: colors.amberDeep }}>
          {say`${fit.line.leftOut} at or below zero are not in the plot`}
        </Typography>
      )}
      {!locked &&
        (taken && chosen ? (
          <Button size="small" onClick={onRelease}>
            {say`Let the data decide`}
          </Button>
        ) : (
          !taken && (
            <Button size="small" onClick={onTake}>
              {say`Use ${word} order`}
            </Button>
          )
        ))}
    </Box>
  );
}

function Facts({ rows }: { readonly rows: [string, string][] }) {
  return (
    <Box
      component="dl"
      sx={{ display: "grid", gridTemplateColumns: "auto 1fr", columnGap: 1, m: 0, alignItems: "baseline" }}
    >
      {rows.map(([name, value]) => (
        <Box key={name} sx={{ display: "contents" }}>
          <Box component="dt" sx={{ color: colors.inkSoft, fontSize: "0.88rem" }}>
            {name}
          </Box>
          <Box component="dd" sx={{ m: 0, fontFamily: fonts.reading, fontSize: "0.86rem" }}>
            {value}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

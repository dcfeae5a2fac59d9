import Box from "@mui/material/Box";
import { plusMinusOf } from "~/core/judgement";
import { orderWord } from "~/core/kinetics";
import { decimalsFor, toDecimals, withUnit } from "~/core/quantity";
import { capitalized, msg, type Phrase } from "~/core/text";
import type { RateEvaluation } from "~/core/stages";
import type { RunRecord } from "~/core/run";
import { fonts } from "../../../theme/theme";
import { useSay } from "../../../words/text";

/** A value with the house's ± of a standard uncertainty. */
export function withHalf(value: number, half: number, unit: string): Phrase {
  if (!Number.isFinite(half) || half <= 0) return withUnit(String(Number(value.toPrecision(4))), unit);
  const decimals = decimalsFor(half, 2);
  return withUnit(`${toDecimals(value, decimals)} ± ${toDecimals(half, decimals)}`, unit);
}

/** Of each kinetic run that counts: its order, rate constant, half-life and correlation coefficient. */
export function RateFacts({ stage, record }: { stage: RateEvaluation; record: RunRecord }) {
  const say = useSay();
  const style = record.houseRules.plusMinus;
  const rows = rowsOf(stage, style);
  if (rows.length === 0) return null;
  return (
    <Box sx={{ overflowX: "auto" }} role="region" aria-label={say`Kinetic runs`} tabIndex={0}>
      <Box
        component="table"
        data-testid="rate-facts"
        sx={{
          borderCollapse: "collapse",
          my: 0.5,
          "& th, & td": { pr: 2.5, py: 0.25, textAlign: "left" },
          "& td": { fontFamily: fonts.reading, fontSize: "0.95rem" },
        }}
      >
        <caption style={{ textAlign: "left" }}>
          {say`${capitalized(orderWord(stage.order))} order${stage.endFitted && stage.order !== 0 ? say`, end absorbance fitted` : ""}`}
        </caption>
        <thead>
          <tr>
            <th scope="col">{say`Run`}</th>
            <th scope="col">k</th>
            <th scope="col">{say`half-life`}</th>
            <th scope="col">r</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ id, name, k, half, r }) => (
            <tr key={id}>
              <th scope="row" style={{ fontWeight: 500 }}>
                {say(name)}
              </th>
              <td>{say(k)}</td>
              <td>{say(half)}</td>
              <td>{r}</td>
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

/** A row for each course that has a fit of the order that is claimed. */
function rowsOf(stage: RateEvaluation, style: "k2" | "u" | "i95") {
  return stage.trials.flatMap((t) => {
    const fit = t.record.struck ? undefined : t.comparison?.fits[stage.order];
    const k = t.symbols.get(stage.definition.rate.symbol);
    if (!fit || !k || !t.shownResult) return [];
    const half = plusMinusOf(fit.halfLifeU, fit.degreesOfFreedom, style);
    const constant =
      stage.order === 1
        ? withHalf(fit.k, plusMinusOf(fit.u, fit.degreesOfFreedom, style), "1/s")
        : t.shownResult.text;
    return [
      {
        id: t.id,
        name: msg`Run ${t.name}`,
        k: constant,
        half: withHalf(fit.halfLife, half, "s"),
        r: toDecimals(fit.line.r, 5),
      },
    ];
  });
}

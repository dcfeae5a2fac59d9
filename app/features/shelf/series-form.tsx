import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { type DeliveringGlass, evenLevels, planSeries } from "~/core/prepare";
import type { SolutionView } from "~/protocol/shelf";
import { type HouseRules, buretteDecimals } from "~/core/rules";
import { concentrationText } from "~/protocol/concentration";
import { type FormField, useFormState } from "./use-form";
import { MolarInput } from "../../ui/molar-input";
import { TextInput } from "../../ui/text-input";
import { glasses, glassOf } from "./glass";
import { PipettingSheet } from "./pipetting-sheet";
import { fieldsGrid, Mind, mindOf, PutButton, Step, usePut, type NewBottleProps } from "./parts";
import { numberIn } from "../../ui/number-in";
import { useSay } from "../../words/text";
import { type Phrase } from "~/core/text";

/** Standards from one stock, from dilute to strong, each in a flask of the same size. */
export function SeriesForm({ bottles, rules }: NewBottleProps) {
  const say = useSay();
  const { put, problems, busy } = usePut();
  const stocks = bottles.filter((b) => b.form === "solution" && b.current);
  const form = useFormState(
    { fromId: "", lowest: "", highest: "", count: "5", volume: "50", glass: "burette", person: "" },
    problems,
  );
  const { values, field } = form;
  const { glass, decimals, stock, usable, levels } = plannedSeries(stocks, values, rules);
  const textsOf = readingsBy(glass, decimals);
  const submit = () =>
    stock &&
    put(
      usable.map((plan, i) => ({
        intent: "make" as const,
        formula: stock.formula,
        name: say`${stock.name}: standard ${i + 1}`,
        making: { how: "diluted" as const, glass, flaskMl: String(numberIn(values.volume) ?? 0) },
        typed: textsOf(plan.deliveredMl),
        fromId: stock.id,
        person: values.person?.trim() ?? "",
        amount: values.volume ?? "",
        restandardizeBy: "",
        hazards: stock.hazards,
        note: say`made as planned: ${plan.deliveredMl} mL of ${stock.code}`,
      })),
    );
  return (
    <Box sx={{ display: "grid", gap: 2, minWidth: 0 }}>
      <Step number={1} title={say`What you want`}>
        <WantedSeries field={field} stocks={stocks} />
        <Mind lines={mindOf(stock?.formula ?? "")} />
      </Step>
      {levels.length === 0 ? (
        <Typography color="textSecondary">
          {say`Choose the stock and the range to see the series.`}
        </Typography>
      ) : (
        <PipettingSheet
          stock={stock ? `${stock.code} ${stock.name}` : ""}
          volumeMl={numberIn(values.volume) ?? 0}
          levels={levels}
          burette={glass.kind === "burette" ? rules.burette : null}
        />
      )}
      {usable.length > 0 && (
        <Step number={2} title={say`Made as planned`}>
          <Box sx={{ ...fieldsGrid, mb: 2 }}>
            <TextInput label={say`Made by`} field={field("person")} help={say`initials, or a bench`} />
          </Box>
          <PutButton busy={busy} problem={Object.values(problems)[0]} onClick={submit}>
            {say`Put ${usable.length} ${usable.length === 1 ? say`standard` : say`standards`} on the shelf`}
          </PutButton>
        </Step>
      )}
    </Box>
  );
}

function readingsBy(glass: DeliveringGlass, decimals: number) {
  return (ml: number): Record<string, string> =>
    glass.kind === "burette"
      ? { "V_0:burette.initial": (0).toFixed(decimals), "V_0:burette.final": ml.toFixed(decimals) }
      : { "V_0:volume.taken": String(ml) };
}

function WantedSeries({
  field,
  stocks,
}: {
  readonly field: (name: string, problem?: Phrase) => FormField;
  readonly stocks: SolutionView[];
}) {
  const say = useSay();
  return (
    <Box sx={{ ...fieldsGrid, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr", md: "1fr 1fr 1fr" } }}>
      <TextInput
        label={say`Stock`}
        field={field("fromId")}
        choices={[
          { value: "", label: say`choose a bottle` },
          ...stocks.map((b) => ({
            value: b.id,
            label: say`${b.code} ${b.name}, ${b.current ? concentrationText(b.current) : ""}`,
          })),
        ]}
      />
      <MolarInput label={say`Lowest, mol/L`} field={field("lowest")} />
      <MolarInput label={say`Highest, mol/L`} field={field("highest")} />
      <TextInput label={say`How many`} field={field("count")} number help={say`2 to 12`} />
      <TextInput label={say`Flasks of, mL`} field={field("volume")} number />
      <TextInput label={say`Stock delivered by`} field={field("glass")} choices={glasses} />
    </Box>
  );
}

function plannedSeries(stocks: SolutionView[], values: Readonly<Record<string, string>>, rules: HouseRules) {
  const stock = stocks.find((b) => b.id === values.fromId);
  const count = Math.min(12, Math.max(2, Math.floor(numberIn(values.count) ?? 5)));
  const [lowest, highest] = [numberIn(values.lowest), numberIn(values.highest)];
  const glass = glassOf(values.glass);
  const levels =
    stock?.current && lowest !== null && highest !== null
      ? planSeries(evenLevels(lowest, highest, count), {
          stock: Number(stock.current.value),
          volumeMl: numberIn(values.volume) ?? 0,
          glass,
          burette: rules.burette,
        })
      : [];
  const usable = levels.flatMap(({ plan }) => (plan.ok ? [plan.value] : []));
  const decimals = buretteDecimals(rules);
  return { glass, decimals, stock, usable, levels };
}

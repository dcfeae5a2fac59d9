import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { substanceOf } from "~/catalog/substances";
import { type Making, planDilution } from "~/core/prepare";
import { concentrationText } from "~/protocol/concentration";
import { fonts } from "../../theme/theme";
import { MolarInput } from "../../ui/molar-input";
import { TextInput } from "../../ui/text-input";
import { glasses, glassOf } from "./glass";
import {
  daysFrom,
  evaluateMaking,
  fieldsGrid,
  KeepingFields,
  Made,
  Mind,
  mindOf,
  PutButton,
  Step,
  twoColumns,
  usePut,
  type NewBottleProps,
  markedProblem,
  filled,
  keptFrom,
} from "./parts";
import { numberIn } from "../../ui/number-in";
import { useFormState } from "./use-form";
import { useSay } from "../../words/text";

/** A solution diluted from a stock on the shelf: c1 V1 = c2 V2, rounded to what the glass delivers. */
export function DiluteForm({ bottles, rules, today }: NewBottleProps) {
  const say = useSay();
  const { put, problems, busy } = usePut();
  const stocks = bottles.filter((b) => b.form === "solution" && b.current);
  const form = useFormState(
    {
      fromId: "",
      name: "",
      target: "",
      volume: "250",
      glass: "burette",
      start: "0",
      person: "",
      amount: "250",
      restandardizeBy: "",
      hazards: "",
      note: "",
    },
    problems,
  );
  const { values, set, field } = form;
  const stock = stocks.find((b) => b.id === values.fromId);
  const glass = glassOf(values.glass);
  const plan = stock?.current
    ? planDilution({
        stock: Number(stock.current.value),
        target: numberIn(values.target) ?? 0,
        volumeMl: numberIn(values.volume) ?? 0,
        glass,
        burette: rules.burette,
        startMl: numberIn(values.start) ?? 0,
      })
    : null;
  const flaskMl = numberIn(values.volume);
  const making: Making = { how: "diluted", glass, flaskMl: flaskMl === null ? "0" : String(flaskMl) };
  const keys = glass.kind === "burette" ? ["V_0:burette.initial", "V_0:burette.final"] : ["V_0:volume.taken"];
  const typed = Object.fromEntries(keys.map((key) => [key, values[key] ?? ""]));
  const current = stock?.current;
  const evaluated =
    stock && current
      ? evaluateMaking(
          stock.formula,
          values.name || "solution",
          making,
          {
            ...typed,
            "c_0:given": current.value,
            [current.shape === "normal" ? "c_0:given.standard-uncertainty" : "c_0:given.plus-minus"]:
              current.plusMinus,
          },
          rules,
        )
      : null;
  const chooseStock = (id: string) => {
    const chosen = stocks.find((b) => b.id === id);
    const substance = chosen && substanceOf(chosen.formula);
    set({
      fromId: id,
      ...(chosen
        ? {
            name: `${substance?.name ?? chosen.name}, diluted`,
            hazards: chosen.hazards,
            restandardizeBy: daysFrom(today, substance?.restandardizeDays),
          }
        : {}),
    });
  };
  const submit = () =>
    put({
      intent: "make",
      formula: stock?.formula ?? "",
      name: (values.name ?? "").trim(),
      making,
      typed: filled(typed),
      fromId: values.fromId || null,
      ...keptFrom(values),
    });
  return (
    <Box sx={twoColumns}>
      <Box sx={{ display: "grid", gap: 2, minWidth: 0 }}>
        <Step number={1} title={say`What you want`}>
          <Box sx={fieldsGrid}>
            <Box sx={{ gridColumn: "1 / -1" }}>
              <TextInput
                label={say`Stock`}
                field={{ ...field("fromId"), change: chooseStock }}
                help={stocks.length === 0 ? say`There is no solution on the shelf yet` : undefined}
                choices={[
                  { value: "", label: say`choose a bottle` },
                  ...stocks.map((b) => ({
                    value: b.id,
                    label: say`${b.code} ${b.name}, ${b.current ? concentrationText(b.current) : ""}`,
                  })),
                ]}
              />
            </Box>
            <MolarInput label={say`Concentration wanted, mol/L`} field={field("target")} />
            <TextInput label={say`Made up to, mL`} field={field("volume")} number />
            <TextInput label={say`Stock delivered by`} field={field("glass")} choices={glasses} />
            {glass.kind === "burette" && (
              <TextInput label={say`Burette stands at, mL`} field={field("start")} number />
            )}
            <TextInput label={say`Name on the label`} field={field("name")} />
          </Box>
        </Step>
        <Step number={2} title={say`What you did`}>
          <Box sx={fieldsGrid}>
            {keys.map((key) => (
              <TextInput
                key={key}
                label={
                  key.endsWith("initial")
                    ? say`Start reading, mL`
                    : key.endsWith("final")
                      ? say`Stop reading, mL`
                      : say`Volume taken, mL`
                }
                field={field(key, evaluated?.problems[key])}
                number
              />
            ))}
          </Box>
        </Step>
        <Step number={3} title={say`On the label`}>
          <KeepingFields form={form} unit="mL" />
        </Step>
        <PutButton busy={busy} problem={markedProblem(problems)} onClick={submit}>
          {say`Put it on the shelf`}
        </PutButton>
      </Box>
      <Box sx={{ position: { md: "sticky" }, top: 16 }}>
        <Step title={say`Plan`}>
          {!plan && <Typography>{say`Choose the stock, then what you want of it.`}</Typography>}
          {plan && !plan.ok && (
            <Typography data-testid="plan-problem">{say(plan.problem.message)}.</Typography>
          )}
          {plan?.ok && (
            <>
              <Typography variant="h3">{say`Take of the stock`}</Typography>
              <Box
                data-testid="plan-volume"
                sx={{ fontFamily: fonts.reading, fontSize: "1.9rem", lineHeight: 1.2 }}
              >
                {say`${plan.value.deliveredMl} mL`}
              </Box>
              <Typography color="textSecondary">
                {say`${plan.value.exactMl.toFixed(3)} mL calculated, rounded to what the glass delivers`}
                {plan.value.stopMl !== null && say`; stop at ${plan.value.stopMl}`}
                {say`. That makes ${plan.value.made.toPrecision(4)} mol/L.`}
              </Typography>
              {plan.value.cautions.map((caution) => (
                <Typography key={say(caution)} sx={{ mt: 0.5 }}>
                  {say(caution)}.
                </Typography>
              ))}
            </>
          )}
          <Mind lines={mindOf(stock?.formula ?? "")} />
          <Box sx={{ mt: 2 }}>
            <Made evaluated={evaluated} target={numberIn(values.target)} />
          </Box>
        </Step>
      </Box>
    </Box>
  );
}

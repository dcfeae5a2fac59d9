import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import type { PlannedAmount, StagePlan } from "~/core/stages";
import { printedUnit, withUnit } from "~/core/quantity";
import { together } from "../../ui/number-text";
import { colors, fonts } from "../../theme/theme";
import { NormalityHelp } from "../../ui/normality-help";
import { noPrint } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";
import { msg, type Phrase, uncapitalized, unitText } from "~/core/text";

export interface PlanField {
  readonly text: string;
  readonly problem: Phrase | undefined;
  readonly change: (value: string) => void;
}

interface PlannedStageProps {
  plan: StagePlan;
  number: number;
  field: (name: string) => PlanField;
  /** Equivalents in a mole of what is typed: of an amount by its symbol, of the stage's result or of the titrant's stock. */
  equivalentsOf: (typed: string) => number | null;
  /** What else is told of it. */
  children?: ReactNode;
}

/** A number for the bench: four figures, no exponent. */
export const figures = (x: number): string => {
  if (!Number.isFinite(x)) return "–";
  if (x >= 1000) return x.toFixed(0);
  return String(Number(x.toPrecision(4)));
};

/** One stage of a plan: what is typed on the left, what follows on the right. */
export function PlannedStage({ plan, number, field, equivalentsOf, children }: PlannedStageProps) {
  const say = useSay();
  const { title, amounts, result, message, suffices, titerMl } = plan;
  const titration = plan.kind === "titration";
  return (
    <Sheet component="section" aria-label={title} sx={{ p: 2.25, breakInside: "avoid" }}>
      <Typography variant="h2" sx={{ mb: 1.25 }}>
        {number}. {title}
      </Typography>
      <Box
        sx={{
          display: "grid",
          gap: 2,
          gridTemplateColumns: { xs: "1fr", sm: "minmax(0,1fr) minmax(0,1fr)" },
          "@media print": { gridTemplateColumns: "minmax(0,1fr)", gap: 0.5 },
        }}
      >
        <AskedAmounts {...{ amounts, field, equivalentsOf, titration, result, plan }} />
        <Box>
          {titerMl !== null && (
            <Box
              data-testid={`titer-${plan.key}`}
              sx={{ fontFamily: fonts.reading, fontSize: "1.9rem", lineHeight: 1.2 }}
            >
              {say`${titerMl.toFixed(1)} mL`}
            </Box>
          )}
          <Typography
            aria-live="polite"
            sx={{
              fontWeight: suffices === false ? 700 : 400,
              color: suffices === false ? colors.brick : colors.ink,
            }}
          >
            {together(say(message))}
          </Typography>
          {plan.forTarget && (
            <Typography data-testid={`target-${plan.key}`} sx={{ mt: 1 }}>
              {say`For that titer, take`}{" "}
              <b style={{ fontFamily: fonts.reading }}>
                {figures(plan.forTarget.value)} {say(unitText(plan.forTarget.unit))}
              </b>
              : {say(uncapitalized(plan.forTarget.label))}.
            </Typography>
          )}
          <Needs plan={plan} amounts={amounts} />
        </Box>
      </Box>
      {children}
    </Sheet>
  );
}

interface AskedAmountsProps {
  readonly amounts: readonly PlannedAmount[];
  readonly field: (name: string) => PlanField;
  readonly equivalentsOf: PlannedStageProps["equivalentsOf"];
  readonly titration: boolean;
  readonly result: { readonly name: string; readonly unit: string; readonly value: number | null };
  readonly plan: StagePlan;
}

function AskedAmounts({ amounts, field, equivalentsOf, titration, result, plan }: AskedAmountsProps) {
  const say = useSay();
  return (
    <Box sx={{ display: "grid", gap: 1.5, alignContent: "start", ...noPrint }}>
      {amounts.map(({ symbol, label, unit, value }) => (
        <NumberField
          key={symbol}
          label={say(unit === "1" ? label : say`${label}, ${unitText(printedUnit(unit))}`)}
          placeholder={figures(value)}
          field={field(`amount.${symbol}`)}
          {...(unit === "mol/L" ? { molarOf: equivalentsOf(symbol) } : {})}
        />
      ))}
      {titration && (
        <>
          <NumberField
            label={
              result.unit === "1"
                ? say`Expected: ${result.name}`
                : say`Expected: ${result.name}, ${unitText(printedUnit(result.unit))}`
            }
            placeholder={result.value === null ? say`type it` : figures(result.value)}
            field={field("result")}
            {...(result.unit === "mol/L" ? { molarOf: equivalentsOf("result") } : {})}
          />
          <NumberField
            label={say`Titer you want, mL`}
            placeholder={say`as it comes`}
            field={field("target")}
          />
          <NumberField
            label={say`Stock of ${plan.titrant ?? say`titrant`}, mol/L`}
            placeholder={say`where you dilute it`}
            field={field("stock")}
            molarOf={equivalentsOf("stock")}
          />
        </>
      )}
    </Box>
  );
}

function Needs({ plan, amounts }: { readonly plan: StagePlan; readonly amounts: readonly PlannedAmount[] }) {
  const say = useSay();
  return (
    <Box
      component="table"
      sx={{ mt: 1.5, borderCollapse: "collapse", width: 1, "& td": { py: 0.4, verticalAlign: "top" } }}
    >
      <tbody>
        {plan.titrantMl !== null && (
          <Row
            name={say`${plan.titrant ?? msg`Titrant`} for all benches, including rinsing`}
            value={say`${figures(Math.ceil(plan.titrantMl / 10) * 10)} mL`}
          />
        )}
        {plan.stock && (
          <Row
            name={say`Made by diluting stock`}
            value={say`${figures(plan.stock.ml)} mL to ${figures(plan.stock.toMl)} mL`}
          />
        )}
        {amounts
          .filter(({ consumed }) => consumed)
          .map(({ symbol, label, unit, value, total, per }) => (
            <Row
              key={symbol}
              name={
                per === "trial"
                  ? say`${label}, ${figures(value)} ${unitText(unit)} a flask`
                  : say`${label}, ${figures(value)} ${unitText(unit)}`
              }
              value={say(withUnit(figures(total), unit))}
            />
          ))}
      </tbody>
    </Box>
  );
}

function Row({ name, value }: { name: string; value: string }) {
  return (
    <Box component="tr" sx={{ borderTop: `1px solid ${colors.line}` }}>
      <td>{name}</td>
      <Box component="td" sx={{ textAlign: "right", fontFamily: fonts.reading, whiteSpace: "nowrap", pl: 1 }}>
        {value}
      </Box>
    </Box>
  );
}

interface NumberFieldProps {
  label: string;
  placeholder: string;
  field: PlanField;
  /** For a concentration in mol/L: equivalents in a mole of what it is of; null where they are not told. */
  molarOf?: number | null;
}

export function NumberField({ label, placeholder, field, molarOf }: NumberFieldProps) {
  const say = useSay();
  return (
    <Box>
      <TextField
        label={label}
        placeholder={placeholder}
        value={field.text}
        size="small"
        fullWidth
        onChange={(event) => field.change(event.target.value)}
        error={field.problem !== undefined}
        helperText={field.problem && say(field.problem)}
        slotProps={{
          inputLabel: { shrink: true },
          htmlInput: { inputMode: "decimal", style: { fontFamily: fonts.reading } },
        }}
      />
      {molarOf !== undefined && (
        <NormalityHelp text={field.text} equivalents={molarOf} onTake={field.change} />
      )}
    </Box>
  );
}

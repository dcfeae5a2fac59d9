import "~/core/stages/engines";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import dayjs from "dayjs";
import type { ReactNode } from "react";
import { useFetcher } from "react-router";
import { substanceOf } from "~/catalog/substances";
import { makingKey, type Making, makingMethod, type TypedFields, typedRecord } from "~/core/prepare";
import { evaluateRun } from "~/core/evaluate";
import type { HouseRules } from "~/core/rules";
import type { PreparationEvaluation } from "~/core/stages";
import type { AddSolution, FormProblems, MakeSolution, SolutionView } from "~/protocol/shelf";
import { colors, fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { TextInput } from "../../ui/text-input";
import type { FormState } from "./use-form";
import { useSay } from "../../words/text";
import { msg, type Phrase, capitalized, unitText } from "~/core/text";

export interface NewBottleProps {
  bottles: readonly SolutionView[];
  rules: HouseRules;
  /** Today, as 2026-11-25. */
  today: string;
}

export const twoColumns = {
  display: "grid",
  gap: 2,
  alignItems: "start",
  gridTemplateColumns: { xs: "minmax(0,1fr)", md: "minmax(0,1fr) 380px" },
} as const;

export const fieldsGrid = {
  display: "grid",
  gap: 2,
  gridTemplateColumns: { xs: "minmax(0,1fr)", sm: "1fr 1fr" },
} as const;

/** A day from today on, as its field takes it. */
export const daysFrom = (today: string, days: number | undefined): string =>
  days === undefined ? "" : dayjs(today).add(days, "day").format("YYYY-MM-DD");

interface Posted {
  readonly problems: FormProblems;
}

/** Sends a new bottle; the answer is the shelf, or what is wrong by field. */
export function usePut() {
  const fetcher = useFetcher<Posted>();
  return {
    problems: fetcher.data?.problems ?? none,
    busy: fetcher.state !== "idle",
    put: (request: AddSolution | MakeSolution | readonly MakeSolution[]) =>
      void fetcher.submit(JSON.stringify(request), {
        method: "post",
        action: "/shelf/new",
        encType: "application/json",
      }),
  };
}

const none: FormProblems = {};

export function Step({ number, title, children }: { number?: number; title: string; children: ReactNode }) {
  return (
    <Sheet component="section" aria-label={title} sx={{ p: 2.25 }}>
      <Typography variant="h2" sx={{ mb: 1.75 }}>
        {number === undefined ? title : `${number}. ${title}`}
      </Typography>
      {children}
    </Sheet>
  );
}

/** What every bottle is kept with. */
export function KeepingFields({ form, unit }: { form: FormState; unit: "mL" | "g" }) {
  const say = useSay();
  return (
    <Box sx={fieldsGrid}>
      <TextInput label={say`Made by`} field={form.field("person")} help={say`initials, or a bench`} />
      <TextInput
        label={say`Amount, ${unitText(unit)}`}
        field={form.field("amount")}
        number
        help={say`may stay empty`}
      />
      <TextInput label={say`Restandardize by`} field={form.field("restandardizeBy")} type="date" />
      <TextInput
        label={say`Hazard words`}
        field={form.field("hazards")}
        help={say`as printed on the label`}
      />
      <Box sx={{ gridColumn: "1 / -1" }}>
        <TextInput label={say`Note`} field={form.field("note")} multiline />
      </Box>
    </Box>
  );
}

export function PutButton({
  busy,
  problem,
  children,
  onClick,
}: {
  busy: boolean;
  problem: Phrase | undefined;
  children: ReactNode;
  onClick: () => void;
}) {
  const say = useSay();
  return (
    <Box sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap" }}>
      <Button variant="contained" size="large" disabled={busy} onClick={onClick}>
        {children}
      </Button>
      <Box role="status">{problem && <Alert severity="error">{say(problem)}</Alert>}</Box>
    </Box>
  );
}

/** A bottle's making evaluated as it is typed. */
export function evaluateMaking(
  formula: string,
  name: string,
  making: Making,
  typed: TypedFields,
  rules: HouseRules,
): { stage: PreparationEvaluation; problems: Readonly<Record<string, Phrase>> } | null {
  try {
    const { record, problems } = typedRecord(makingMethod(formula, name, making), typed, {
      houseRules: rules,
      at: "2000-01-01T00:00:00.000Z",
      person: "",
    });
    const stage = evaluateRun(record).stages.find((s) => s.key === makingKey);
    return stage?.kind === "preparation" ? { stage, problems } : null;
  } catch {
    // A formula that is still being typed does not compile: there is nothing to show yet.
    return null;
  }
}

interface MadeProps {
  evaluated: ReturnType<typeof evaluateMaking>;
  target: number | null;
}

/** The concentration that was actually made, beside what was wanted. */
export function Made({ evaluated, target }: MadeProps) {
  const say = useSay();
  const shown = evaluated?.stage.shown ?? null;
  const departure = shown && target ? (100 * (Number(shown.value) - target)) / target : null;
  return (
    <Box aria-live="polite">
      <Typography variant="h3">{say`Concentration made`}</Typography>
      <Box data-testid="made" sx={{ fontFamily: fonts.reading, fontSize: "1.6rem", lineHeight: 1.25 }}>
        {shown ? (
          <>
            {shown.value}{" "}
            <span style={{ fontSize: "1rem" }}>
              ± {shown.plusMinus} {say(unitText(shown.unit))}
            </span>
          </>
        ) : (
          "–"
        )}
      </Box>
      {departure !== null && (
        <Typography color="textSecondary">
          {say`${departure >= 0 ? "+" : "−"}${Math.abs(departure).toFixed(1)} % off target. The concentration made is what counts.`}
        </Typography>
      )}
      {evaluated?.stage.cautions.map(({ message }) => (
        <Alert key={say(message)} severity="warning" sx={{ mt: 1 }}>
          {say(message)}.
        </Alert>
      ))}
    </Box>
  );
}

/** What to mind while it is made. */
export function Mind({ lines }: { lines: readonly Phrase[] }) {
  const say = useSay();
  if (lines.length === 0) return null;
  return (
    <Box sx={{ pl: 1.25, borderLeft: `4px solid ${colors.amber}`, color: colors.amberDeep, mt: 1.5 }}>
      {lines.map(say).map((line) => (
        <Box key={line}>{line}</Box>
      ))}
    </Box>
  );
}

/** Cautions of making a solution of this substance. */
export function mindOf(formula: string): Phrase[] {
  const substance = substanceOf(formula);
  return [
    ...(substance?.acid ? [msg`Acid into water, never water into acid: it gets hot.`] : []),
    ...(substance?.drying ? [msg`${capitalized(substance.drying)}.`] : []),
    ...(substance ? [msg`Hazards: ${substance.hazards}.`] : []),
    msg`Goggles on. The safety data sheet comes before this text.`,
  ];
}

/** What to say below a form whose fields are marked. */
export const markedProblem = (problems: FormProblems): Phrase | undefined =>
  problems.form ??
  (Object.keys(problems).length > 0 ? msg`Not on the shelf yet: look at the fields marked above` : undefined);

/** What every bottle is kept with, as typed. */
export const keptFrom = (values: FormState["values"]) => ({
  person: (values.person ?? "").trim(),
  amount: values.amount ?? "",
  restandardizeBy: values.restandardizeBy ?? "",
  hazards: values.hazards ?? "",
  note: values.note ?? "",
});

/** Fields that were filled in, with their texts. */
export const filled = (typed: TypedFields): Record<string, string> =>
  Object.fromEntries(Object.entries(typed).flatMap(([key, text]) => (text?.trim() ? [[key, text]] : [])));

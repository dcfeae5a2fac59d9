import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { type ReactNode, useState } from "react";
import { problemText, type Result } from "~/core/result";
import type { CalculatedStep } from "~/core/prepare";
import { colors, fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { numberIn } from "../../ui/number-in";
import { Tex } from "../../ui/tex";
import type { FormField } from "../shelf/use-form";
import { useSay } from "../../words/text";
import { type Phrase } from "~/core/text";

/** Texts of a calculator; a text that is no number is told by its field. */
export function useTexts(initial: Readonly<Record<string, string>>) {
  const say = useSay();
  const [texts, setTexts] = useState(initial);
  return {
    texts,
    words: (name: string, problem?: Phrase): FormField => ({
      name,
      value: texts[name] ?? "",
      problem,
      change: (value) => setTexts((before) => ({ ...before, [name]: value })),
    }),
    number: (name: string): FormField => {
      const text = texts[name] ?? "";
      const n = numberIn(text);
      return {
        name,
        value: text,
        problem:
          text.trim() === "" ? undefined : n === null || n === 0 ? say`Type a number above zero` : undefined,
        change: (value) => setTexts((before) => ({ ...before, [name]: value })),
      };
    },
  };
}

/** What is typed on the left, the working on the right. */
export function Calculator({ fields, children }: { fields: ReactNode; children: ReactNode }) {
  const say = useSay();
  return (
    <Box
      sx={{
        display: "grid",
        gap: 2,
        alignItems: "start",
        gridTemplateColumns: { xs: "minmax(0,1fr)", md: "380px minmax(0,1fr)" },
      }}
    >
      <Sheet sx={{ p: 2.25, display: "grid", gap: 2 }}>{fields}</Sheet>
      <Sheet component="section" aria-label={say`Working`} aria-live="polite" sx={{ p: 2.5, minHeight: 160 }}>
        {children}
      </Sheet>
    </Box>
  );
}

/** The answer in large figures. */
export function Answer({ children }: { children: ReactNode }) {
  return (
    <Box
      data-testid="answer"
      sx={{ fontFamily: fonts.reading, fontSize: "1.9rem", lineHeight: 1.25, mb: 1.5 }}
    >
      {children}
    </Box>
  );
}

/** A calculation as on a board; what keeps it from being done, in words. */
export function Board({ result, answer }: { result: Result<CalculatedStep[]> | null; answer?: number }) {
  const say = useSay();
  if (result === null)
    return <Typography color="textSecondary">{say`Fill in the fields to see the working.`}</Typography>;
  if (!result.ok)
    return <Typography sx={{ color: colors.brick }}>{say(problemText(result.problem))}.</Typography>;
  const steps = result.value;
  const main = steps.at(answer ?? -1);
  return (
    <>
      {main && <Answer>{say(main.text)}</Answer>}
      {steps.map((step) => (
        <Box
          key={step.title}
          tabIndex={0}
          role="group"
          aria-label={say`${step.title}: ${step.text}`}
          sx={{ mb: 1.75, overflowX: "auto" }}
        >
          <Typography sx={{ fontWeight: 650 }}>{step.title}</Typography>
          <Box sx={{ whiteSpace: "nowrap", py: 0.5 }}>
            <Tex tex={step.names} />
          </Box>
          <Box sx={{ whiteSpace: "nowrap", color: colors.inkSoft }}>
            <Tex tex={step.numbers} />{" "}
            <Box component="span" sx={{ color: colors.ink }}>
              <Tex tex={`\\boldsymbol{${step.value}}`} />
            </Box>
          </Box>
        </Box>
      ))}
    </>
  );
}

import Box from "@mui/material/Box";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import {
  balance,
  combineHalfReactions,
  completeHalfReaction,
  describeImbalances,
  electronsTransferred,
  equationText,
  imbalances,
  parseEquation,
} from "~/core/chemistry";
import type { Medium } from "~/core/chemistry";
import { problemText, type Result } from "~/core/result";
import { colors } from "../../theme/theme";
import { EquationLine } from "../../ui/equation";
import { TextInput } from "../../ui/text-input";
import { Calculator, useTexts } from "./board";
import { useSay } from "../../words/text";

/** Balances an equation, or puts two half-reactions together. */
export function BalanceCalculator() {
  const say = useSay();
  const [way, setWay] = useState<"whole" | "halves">("whole");
  const [medium, setMedium] = useState<Medium>("acid");
  const { texts, words } = useTexts({
    equation: say`MnO4- + Fe^2+ + H+ -> Mn^2+ + Fe^3+ + H2O`,
    taking: say`MnO4- -> Mn^2+`,
    giving: "C2O4^2- -> CO2",
  });
  return (
    <Calculator
      fields={
        <>
          <ToggleButtonGroup
            exclusive
            size="small"
            value={way}
            onChange={(_, chosen: "whole" | "halves" | null) => chosen && setWay(chosen)}
            aria-label={say`How to balance`}
          >
            <ToggleButton value="whole">{say`Equation`}</ToggleButton>
            <ToggleButton value="halves">{say`Half-reactions`}</ToggleButton>
          </ToggleButtonGroup>
          {way === "whole" ? (
            <TextInput
              label={say`Equation`}
              field={words("equation")}
              help={say`charges as in MnO4-, Fe^3+, C2O4^2-; coefficients may be left out`}
              multiline
            />
          ) : (
            <>
              <TextInput
                label={say`Takes electrons`}
                field={words("taking")}
                help={say`the rest is completed`}
              />
              <TextInput
                label={say`Gives electrons`}
                field={words("giving")}
                help={say`the rest is completed`}
              />
              <ToggleButtonGroup
                exclusive
                size="small"
                value={medium}
                onChange={(_, chosen: Medium | null) => chosen && setMedium(chosen)}
                aria-label={say`Medium`}
              >
                <ToggleButton value="acid">{say`in acid`}</ToggleButton>
                <ToggleButton value="base">{say`in base`}</ToggleButton>
              </ToggleButtonGroup>
            </>
          )}
        </>
      }
    >
      {way === "whole" ? (
        <Whole source={texts.equation ?? ""} />
      ) : (
        <Halves taking={texts.taking ?? ""} giving={texts.giving ?? ""} medium={medium} />
      )}
    </Calculator>
  );
}

function Trouble({ result }: { result: Result<unknown> }) {
  const say = useSay();
  return result.ok ? null : (
    <Typography sx={{ color: colors.brick }}>{say(problemText(result.problem))}.</Typography>
  );
}

function Whole({ source }: { source: string }) {
  const say = useSay();
  if (source.trim() === "") return <Typography color="textSecondary">{say`Type an equation.`}</Typography>;
  const read = parseEquation(source);
  if (!read.ok) return <Trouble result={read} />;
  const wrong = imbalances(read.value);
  const balanced = balance(read.value);
  if (!balanced.ok) return <Trouble result={balanced} />;
  const text = equationText(balanced.value);
  const electrons = electronsTransferred(balanced.value);
  return (
    <Box data-testid="answer">
      <EquationLine source={text} large />
      <Typography sx={{ mt: 1 }} data-testid="equation-text">
        {text}
      </Typography>
      <Typography color="textSecondary">
        {say`As typed: ${wrong.length === 0 ? say`it balances.` : say`${describeImbalances(wrong)}.`}`}
        {electrons.ok && electrons.value > 0 && say` Electrons transferred: ${electrons.value}.`}
      </Typography>
    </Box>
  );
}

function Halves({ taking, giving, medium }: { taking: string; giving: string; medium: Medium }) {
  const say = useSay();
  const a = completeHalfReaction(taking, medium);
  const b = completeHalfReaction(giving, medium);
  const whole = a.ok && b.ok ? combineHalfReactions(a.value, b.value) : null;
  return (
    <Box data-testid="answer">
      {[a, b].map((half, i) =>
        half.ok ? (
          <Box key={i} sx={{ mb: 1 }}>
            <Typography variant="h3">{i === 0 ? say`Takes electrons` : say`Gives electrons`}</Typography>
            <EquationLine source={equationText(half.value)} />
          </Box>
        ) : (
          <Trouble key={i} result={half} />
        ),
      )}
      {whole?.ok && (
        <>
          <Typography variant="h3">{say`Together`}</Typography>
          <EquationLine source={equationText(whole.value)} large />
        </>
      )}
      {whole && <Trouble result={whole} />}
    </Box>
  );
}

import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { equivalentsTyped, planMethod, shoppingList } from "~/core/plan";
import { type ComputedStage, type Method } from "~/core/method";
import { compiledMethod, type PlanChoices, type StageChoices } from "~/core/stages";
import { noPrint, Page } from "../../ui/page";
import { numberIn } from "../../ui/number-in";
import { Sheet } from "../../ui/sheet";
import { PlanBeside } from "./plan-beside";
import { PlannedIndicators } from "./planned-indicators";
import { type PlanField, PlannedStage } from "./planned-stage";
import { useSay } from "../../words/text";

interface PlanPageProps {
  method: Method;
  buretteMl: number;
  /** A drop of the burette of the house, mL. */
  dropMl: number;
  replicates: number;
}

/** Texts as typed, by `stage.field`; what is no number is told beside it and left out of the plan. */
type Typed = Readonly<Record<string, string>>;

function choicesFrom(typed: Typed, stages: readonly ComputedStage[]): PlanChoices["stages"] {
  return Object.fromEntries(
    stages.map((stage): [string, StageChoices] => {
      const number = (field: string) => numberIn(typed[`${stage.key}.${field}`]);
      const amounts = Object.fromEntries(
        stage.inputs.flatMap(({ symbol }) => {
          const value = number(`amount.${symbol}`);
          return value === null ? [] : [[symbol, value]];
        }),
      );
      const [result, targetMl, stockMolPerL] = [number("result"), number("target"), number("stock")];
      return [
        stage.key,
        {
          amounts,
          ...(result === null ? {} : { result }),
          ...(targetMl === null ? {} : { targetMl }),
          ...(stockMolPerL === null ? {} : { stockMolPerL }),
        },
      ];
    }),
  );
}

/** The plan of one method: what is there is typed, what follows is shown at each key press; one sheet to print. */
export function PlanPage({ method, buretteMl, dropMl, replicates }: PlanPageProps) {
  const say = useSay();
  const [typed, setTyped] = useState<Typed>({});
  const [burette, setBurette] = useState(String(buretteMl));
  const [benches, setBenches] = useState("1");
  const [trials, setTrials] = useState(String(replicates + 1));
  const [margin, setMargin] = useState("10");
  const stages = useMemo(() => method.stages, [method]);
  const whole = (text: string, least: number) => Math.max(least, Math.floor(numberIn(text) ?? least));
  const counts = {
    benches: whole(benches, 1),
    trials: whole(trials, 1),
    marginPercent: numberIn(margin) ?? 0,
  };
  const compiled = compiledMethod(method);
  const plans = planMethod(compiled, {
    ...counts,
    buretteMl: Number(burette),
    stages: choicesFrom(typed, stages),
  });
  const shopping = shoppingList(stages, counts);
  const field =
    (stage: string) =>
    (name: string): PlanField => {
      const key = `${stage}.${name}`;
      const text = typed[key] ?? "";
      return {
        text,
        problem: text.trim() !== "" && numberIn(text) === null ? say`Type a number above zero` : undefined,
        change: (value) => setTyped((before) => ({ ...before, [key]: value })),
      };
    };
  return (
    <Page
      title={say`Plan: ${method.title}`}
      note={
        <Box component="span" sx={noPrint}>
          {say`Type what you have; empty fields use the values of the method.`}
        </Box>
      }
      actions={
        <>
          <Button variant="contained" onClick={() => window.print()}>
            {say`Print the sheet`}
          </Button>
          <Button component={Link} to={`/methods/${method.id}`} variant="outlined">
            {say`Back to the method`}
          </Button>
        </>
      }
    >
      <Box
        sx={{
          display: "grid",
          gap: 2,
          alignItems: "start",
          gridTemplateColumns: { xs: "minmax(0,1fr)", md: "minmax(0,1fr) 400px" },
          // All of it on one sheet of paper.
          "@media print": { gridTemplateColumns: "minmax(0,1fr) minmax(0,1fr)", zoom: 0.62, gap: 1 },
        }}
      >
        <Box sx={{ display: "grid", gap: 2, minWidth: 0 }}>
          <Sheet component="section" aria-label={say`For whom`} sx={noPrint}>
            <Box
              sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr 1fr", sm: "repeat(4, 1fr)" } }}
            >
              <TextField
                select
                label={say`Burette`}
                value={burette}
                onChange={(e) => setBurette(e.target.value)}
              >
                {[10, 25, 50, 100].map((ml) => (
                  <MenuItem key={ml} value={String(ml)}>
                    {say`${ml} mL`}
                  </MenuItem>
                ))}
              </TextField>
              <Count label={say`Benches`} value={benches} onChange={setBenches} />
              <Count
                label={say`Trials each`}
                value={trials}
                onChange={setTrials}
                help={say`including the rough one`}
              />
              <Count label={say`Margin, %`} value={margin} onChange={setMargin} />
            </Box>
          </Sheet>
          <Box sx={{ display: "none", "@media print": { display: "block" } }}>
            {say`${counts.benches} ${counts.benches === 1 ? say`bench` : say`benches`}, ${counts.trials} trials each, ${burette} mL burettes, ${counts.marginPercent} % margin.`}
          </Box>
          {plans.map((plan, i) => (
            <PlannedStage
              key={plan.key}
              plan={plan}
              number={i + 1}
              field={field(plan.key)}
              equivalentsOf={(typed) => equivalentsTyped(method, plan, typed)}
            >
              <PlannedIndicators {...{ compiled, plan, plans, dropMl }} />
            </PlannedStage>
          ))}
        </Box>
        <PlanBeside method={method} shopping={shopping} />
      </Box>
    </Page>
  );
}

interface CountProps {
  label: string;
  value: string;
  help?: string;
  onChange: (value: string) => void;
}

function Count({ label, value, help, onChange }: CountProps) {
  const say = useSay();
  const wrong = numberIn(value) === null;
  return (
    <TextField
      label={label}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      error={wrong}
      helperText={wrong ? say`Type a number` : help}
      slotProps={{ htmlInput: { inputMode: "numeric" } }}
    />
  );
}

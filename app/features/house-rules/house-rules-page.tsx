import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { type ReactNode, useState } from "react";
import { Form, useNavigation } from "react-router";
import type { HouseRules } from "~/core/run";
import { fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import type { FormProblems } from "./form.server";

interface Choice {
  readonly value: string | number;
  readonly label: string;
}

interface FieldProps {
  name: string;
  label: string;
  help?: string;
  value: string | number;
  problems: FormProblems;
  choices?: readonly Choice[];
  onChoose?: (value: string) => void;
  /** Across both columns, for choices of many words. */
  wide?: boolean;
}

function RuleField({ name, label, help, value, problems, choices, onChoose, wide }: FieldProps) {
  const problem = problems[name];
  return (
    <TextField
      name={name}
      label={label}
      defaultValue={value}
      error={problem !== undefined}
      helperText={problem ?? help}
      select={choices !== undefined}
      id={name}
      sx={wide ? { gridColumn: "1 / -1" } : {}}
      onChange={(event) => onChoose?.(event.target.value)}
      slotProps={{
        htmlInput: choices
          ? { "aria-label": label }
          : { inputMode: "decimal", style: { fontFamily: fonts.reading } },
      }}
    >
      {choices?.map((choice) => (
        <MenuItem key={choice.value} value={choice.value}>
          {choice.label}
        </MenuItem>
      ))}
    </TextField>
  );
}

function Group({ title, note, children }: { title: string; note: string; children: ReactNode }) {
  return (
    <Sheet component="section" sx={{ p: { xs: 2, sm: 2.5 }, mb: 2, breakInside: "avoid" }}>
      <Typography variant="h2">{title}</Typography>
      <Typography variant="body2" color="textSecondary" sx={{ mb: 2 }}>
        {note}
      </Typography>
      <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
        {children}
      </Box>
    </Sheet>
  );
}

const shapes = [
  { value: "triangular", label: "mostly near the middle" },
  { value: "rectangular", label: "anywhere within" },
];

interface HouseRulesPageProps {
  rules: HouseRules;
  problems: FormProblems;
  saved: boolean | undefined;
}

/** The conventions of the lab. Runs that have begun keep the rules with which they began. */
export function HouseRulesPage({ rules, problems, saved }: HouseRulesPageProps) {
  const busy = useNavigation().state === "submitting";
  const { agreement, burette, glassware, balance, temperature } = rules;
  const field = { problems };
  return (
    <Box component="main" sx={{ maxWidth: 1080, mx: "auto", px: { xs: 2, sm: 3 }, py: 2.5 }}>
      <Typography variant="h1">House rules</Typography>
      <Typography color="textSecondary" sx={{ mb: 2 }}>
        How this lab reads and judges. Runs already begun keep the rules they began with.
      </Typography>
      <Form method="post" noValidate>
        <Box
          sx={{
            columnCount: { xs: 1, md: 2 },
            columnGap: 2,
          }}
        >
          <Group
            title="When trials agree"
            note="What closes a set. A test for outliers only advises: nothing is left out because of it."
          >
            <AgreementFields agreement={agreement} problems={problems} />
            <RuleField
              {...field}
              name="agreementOf"
              wide
              label="Held against"
              value={rules.agreementOf}
              choices={[
                { value: "titers", label: "titers, per amount if unlike" },
                { value: "results", label: "results, each flask’s own" },
              ]}
            />
            <RuleField
              {...field}
              name="outliers"
              label="Outliers are looked for"
              value={rules.outliers}
              choices={[
                { value: "none", label: "not at all" },
                { value: "dixon-90", label: "by Dixon’s Q, 90 %" },
                { value: "dixon-95", label: "by Dixon’s Q, 95 %" },
                { value: "dixon-99", label: "by Dixon’s Q, 99 %" },
                { value: "grubbs", label: "by Grubbs’ test, 5 %" },
              ]}
            />
          </Group>
          <Group title="Results" note="How far a result is known, and how it is written.">
            <RuleField
              {...field}
              name="priorRepeatabilityPercent"
              label="Repeatability known, %"
              help="of one trial, from earlier work; empty where unknown"
              value={rules.priorRepeatabilityPercent}
            />
            <RuleField
              {...field}
              name="plusMinus"
              label="What follows ±"
              value={rules.plusMinus}
              choices={[
                { value: "k2", label: "twice u (k = 2)" },
                { value: "u", label: "u, standard uncertainty" },
                { value: "i95", label: "95 % interval" },
              ]}
            />
            <RuleField
              {...field}
              name="digits"
              label="Digits of a result"
              value={rules.digits}
              choices={[
                { value: "uncertainty", label: "by its ±" },
                { value: "significant-figures", label: "by significant figures" },
              ]}
            />
            <RuleField
              {...field}
              name="percentError"
              label="A percent error is given"
              value={rules.percentError}
              choices={[
                { value: "signed", label: "above or below" },
                { value: "absolute", label: "without its sign" },
              ]}
            />
          </Group>
          <Group title="Burette" note="The one on the bench, and how closely it is read.">
            <RuleField
              {...field}
              name="capacityMl"
              label="Capacity"
              value={burette.capacityMl}
              choices={[10, 25, 50, 100].map((ml) => ({ value: ml, label: `${ml} mL` }))}
            />
            <RuleField
              {...field}
              name="decimals"
              label="Read to"
              value={burette.decimals}
              choices={[
                { value: 1, label: "0.1 mL, the mark" },
                { value: 2, label: "0.01 mL, estimated" },
                { value: 3, label: "0.001 mL" },
              ]}
            />
            <RuleField
              {...field}
              name="readingHalfWidthMl"
              label="A reading is good to ±, mL"
              value={burette.readingHalfWidthMl}
            />
          </Group>
          <Group title="Glassware" note="Tolerances of burettes and pipettes, and how they are taken.">
            <RuleField
              {...field}
              name="toleranceClass"
              label="Class"
              value={glassware.toleranceClass}
              choices={[
                { value: "A", label: "class A" },
                { value: "B", label: "class B, twice that" },
              ]}
            />
            <RuleField
              {...field}
              name="toleranceShape"
              label="Glass within its tolerance lies"
              value={glassware.toleranceShape}
              choices={shapes}
            />
          </Group>
          <Group
            title="Balance and room"
            note="What the balance shows, and how far the room strays from 20 °C."
          >
            <RuleField
              {...field}
              name="readabilityG"
              label="Balance shows steps of, g"
              value={balance.readabilityG}
            />
            <RuleField {...field} name="linearityG" label="Linear within ±, g" value={balance.linearityG} />
            <RuleField
              {...field}
              name="correctBuoyancy"
              label="Buoyancy of air"
              value={balance.correctBuoyancy ? "yes" : "no"}
              choices={[
                { value: "no", label: "left alone" },
                { value: "yes", label: "corrected, by density" },
              ]}
            />
            <RuleField
              {...field}
              name="halfRangeC"
              label="Room within ±, °C"
              value={temperature.halfRangeC}
            />
            <RuleField
              {...field}
              name="temperatureShape"
              label="Room within its range lies"
              value={temperature.shape}
              choices={[
                { value: "rectangular", label: "anywhere within" },
                { value: "normal95", label: "in 95 cases of 100" },
              ]}
            />
          </Group>
        </Box>
        <Box sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap", mt: 2.5 }}>
          <Button type="submit" variant="contained" size="large" disabled={busy}>
            Save house rules
          </Button>
          <Box role="status">
            {saved && <Alert severity="success">Saved. Runs begun from now on follow them.</Alert>}
            {problems.form && <Alert severity="error">{problems.form}</Alert>}
            {!problems.form && Object.keys(problems).length > 0 && (
              <Alert severity="error">Not saved yet: look at the fields marked above.</Alert>
            )}
          </Box>
        </Box>
      </Form>
    </Box>
  );
}

/** The rule, and the fields that it uses: they change with it before anything is saved. */
function AgreementFields({
  agreement,
  problems,
}: {
  agreement: HouseRules["agreement"];
  problems: FormProblems;
}) {
  const [rule, setRule] = useState(agreement.rule);
  const field = { problems };
  const width = rule === "n-within" || rule === "within-of-mean" || rule === "two-else-third";
  return (
    <>
      <RuleField
        {...field}
        name="agreement"
        wide
        label="A set agrees when"
        value={agreement.rule}
        onChoose={(value) => setRule(value as typeof rule)}
        choices={[
          { value: "n-within", label: "so many lie within this of each other" },
          { value: "within-of-mean", label: "so many lie within ± this of their mean" },
          { value: "identical", label: "so many read the same" },
          { value: "relative-spread", label: "so many differ by a part of their mean" },
          { value: "two-else-third", label: "the first two do, else with a third" },
        ]}
      />
      {rule !== "two-else-third" && (
        <RuleField
          {...field}
          name="replicates"
          label="Trials that must agree"
          value={"replicates" in agreement ? agreement.replicates : 2}
        />
      )}
      {width && (
        <RuleField
          {...field}
          name="withinMl"
          label={rule === "within-of-mean" ? "Within ±, mL" : "Within, mL"}
          value={"withinMl" in agreement ? agreement.withinMl : "0.10"}
        />
      )}
      {rule === "relative-spread" && (
        <RuleField
          {...field}
          name="partsPerThousand"
          label="Range at most, ‰ of the mean"
          value={"partsPerThousand" in agreement ? agreement.partsPerThousand : "2"}
        />
      )}
    </>
  );
}

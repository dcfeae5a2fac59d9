import { useState } from "react";
import type { HouseRules } from "~/core/run";
import type { FormProblems } from "./form.server";
import { Group, RuleField } from "./rule-field";

interface RulesProps {
  rules: HouseRules;
  problems: FormProblems;
}

/** When trials agree, and what a result is given with. */
export function JudgingRules({ rules, problems }: RulesProps) {
  const field = { problems };
  return (
    <>
      <Group
        title="When trials agree"
        note="What closes a set. A test for outliers only advises: nothing is left out because of it."
      >
        <AgreementFields agreement={rules.agreement} problems={problems} />
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
    </>
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

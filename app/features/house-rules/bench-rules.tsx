import type { HouseRules } from "~/core/run";
import type { FormProblems } from "./form.server";
import { Group, RuleField } from "./rule-field";

const shapes = [
  { value: "triangular", label: "mostly near the middle" },
  { value: "rectangular", label: "anywhere within" },
];

/** What stands on the bench: burette, glassware, balance, and the room around them. */
export function BenchRules({ rules, problems }: { rules: HouseRules; problems: FormProblems }) {
  const { burette, glassware, balance, temperature } = rules;
  const field = { problems };
  return (
    <>
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
      <Group title="Balance and room" note="What the balance shows, and how far the room strays from 20 °C.">
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
        <RuleField {...field} name="halfRangeC" label="Room within ±, °C" value={temperature.halfRangeC} />
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
    </>
  );
}

import type { DeliveringGlass } from "~/core/prepare";
import { msg, type Phrase } from "~/core/text";

/** What a stock can be delivered with, by a name for a list. */
export const glasses: readonly {
  readonly value: string;
  readonly label: Phrase;
  readonly glass: DeliveringGlass;
}[] = [
  { value: "burette", label: msg`burette`, glass: { kind: "burette" } },
  { value: "pipette", label: msg`one-mark pipette`, glass: { kind: "pipette" } },
  {
    value: "graduated-10",
    label: msg`graduated pipette, 10 mL`,
    glass: { kind: "graduated pipette", capacityMl: 10 },
  },
  { value: "cylinder-50", label: msg`cylinder, 50 mL`, glass: { kind: "cylinder", capacityMl: 50 } },
  { value: "cylinder-100", label: msg`cylinder, 100 mL`, glass: { kind: "cylinder", capacityMl: 100 } },
];

export const glassOf = (value: string | undefined): DeliveringGlass =>
  glasses.find((g) => g.value === value)?.glass ?? { kind: "burette" };

import { lazy, Suspense } from "react";
import type { ComputedStage } from "~/core/method";
import type { Field } from "~/core/inputs";
import { plausibleLoadG } from "~/devices/pan-load";
import { roleOf, useInstrumentSettings } from "../../instruments/settings";

// Only a bench with an instrument on it needs its display.
const InstrumentDisplay = lazy(() =>
  import("../../instruments/display").then((m) => ({ default: m.InstrumentDisplay })),
);

interface ByInstrumentProps {
  stage: ComputedStage;
  field: Field;
  /** Which flask it is read of. */
  flask: string;
  onTake: (shown: string) => void;
}

/** The display of the instrument that reads this field, where one is chosen for this device. */
export function ByInstrument({ stage, field, flask, onTake }: ByInstrumentProps) {
  const settings = useInstrumentSettings();
  const role = roleOf(field.kind);
  if (!role || settings[role].source === "none") return null;
  return (
    <Suspense>
      <InstrumentDisplay role={role} onTake={onTake} loadG={plausibleLoadG(stage, field, flask)} />
    </Suspense>
  );
}

import { useState } from "react";
import { adaptations, isAdapted, moistureSymbol, type RunRecord } from "~/core/run";
import { statedNow, stating, type Step } from "./in-order";

/* Whether the result is one on dry basis, while it is chosen. */

/** What is typed of it. */
export interface DryForm {
  readonly on: boolean;
  readonly moisture: string;
  readonly plusMinus: string;
}

/** The choice of the basis of a result; null for a result that has none. */
export function useDryChosen(record: RunRecord, stageKey: string) {
  const own = record.method.stages.find(({ key }) => key === stageKey);
  const place = { stageKey, symbol: moistureSymbol };
  const text = (kind: "given" | "given.plus-minus") => statedNow(record, place, kind)?.text ?? "";
  const [form, setForm] = useState<DryForm>(() => ({
    on: isAdapted(record, stageKey, "dry"),
    moisture: text("given"),
    plusMinus: text("given.plus-minus"),
  }));
  const fits = own !== undefined && adaptations.dry.fits(own);
  const steps = (): readonly Step<string>[] => {
    if (!fits) return [];
    const { on } = form;
    const adapt: Step<string> = {
      at: moistureSymbol,
      change: (now) =>
        isAdapted(now, stageKey, "dry") === on ? null : { intent: "adapt", stageKey, adapted: "dry", on },
    };
    if (!on) return [adapt];
    return [
      adapt,
      { at: moistureSymbol, change: stating(place, "given", form.moisture) },
      { at: moistureSymbol, change: stating(place, "given.plus-minus", form.plusMinus) },
    ];
  };
  return { form: fits ? form : null, setForm, steps };
}

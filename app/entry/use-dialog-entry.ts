import { useEffect } from "react";
import type { Field } from "~/core/inputs";
import { checkField, fieldKey, type ComputedStage } from "~/core/method";
import type { CurvePlace, Observation } from "~/core/record";
import { dialogKey, useDrafts, writeDrafts } from "./drafts";
import type { Entry } from "./entry";
import { useRunInHand } from "./run-context";

interface DialogEntryOptions {
  /** What the dialog is about: the stage, with the trial where it is of one. */
  readonly stage: ComputedStage;
  readonly trial: { readonly id: string; readonly kind: "rough" | "fine" } | null;
  /** The other readings of the trial, or of the stage. */
  readonly observations: readonly Observation[];
  /** What stands in its fields when it opens, by field key. */
  readonly offered?: Readonly<Record<string, string>>;
  readonly fields: readonly Field[];
  /** Where it was read, for a point of a titration curve. */
  readonly place?: CurvePlace;
}

/** Readings that are entered in a dialog: as in any field, and gone with the dialog. */
export function useDialogEntry(options: DialogEntryOptions): Entry {
  const { stage, trial, observations, offered = {}, fields } = options;
  const { record, rules } = useRunInHand();
  const key = dialogKey([record.id, stage.key, trial?.id ?? "", ...fields.map(fieldKey)].join("/"));
  useDrafts(key);
  useEffect(() => () => writeDrafts(key, null), [key]);
  return {
    place: { key, trialId: trial?.id ?? stage.key, kind: trial?.kind ?? "fine" },
    facts: (field) => ({ offered: offered[fieldKey(field)] ?? null, stands: null }),
    check: (field, text) =>
      checkField(field, text, {
        stage,
        method: record.method,
        houseRules: rules,
        holder: { observations: [...observations] },
        ...(options.place ? { place: options.place } : {}),
      }),
    asks: true,
  };
}

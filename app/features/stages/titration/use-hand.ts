import { useState } from "react";
import { v7 as newId } from "uuid";
import type { TitrationEvaluation } from "~/core/stages";
import { readDraft, useStoredDraft, writeDraft } from "../shared/draft-store";

/** What a trial is called by that has no id yet. */
export const next = "next";

/** Which trial is in hand, and the ids that it may get. */
export function useHand(base: string, saved: TitrationEvaluation) {
  const [chosen, choose] = useState<string | null>(null);
  const [pointer] = useStoredDraft(base);
  const isThere = (id: string) => saved.trials.some((t) => t.id === id);
  const waiting = pointer && !isThere(pointer.trialId) ? pointer.trialId : next;
  const open = chosen !== null && !saved.trials.some((t) => t.id === chosen && t.missing === null);
  const trialId = open ? (chosen === next ? waiting : chosen) : (saved.current?.id ?? waiting);
  /** Leaving a field right after Enter comes here twice before anything is rendered anew: one trial, one id. */
  const idInHand = (kind: "rough" | "fine") => {
    if (trialId !== next) return trialId;
    const begun = readDraft(base)?.trialId;
    if (begun !== undefined && !isThere(begun)) return begun;
    const id = newId();
    writeDraft(base, { trialId: id, kind, texts: {} });
    return id;
  };
  return { trialId, pointer, chosen, choose, idInHand };
}

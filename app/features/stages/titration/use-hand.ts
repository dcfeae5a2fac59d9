import { useState } from "react";
import { v7 as newId } from "uuid";
import type { TimerRecord } from "~/core/record";
import type { TitrationEvaluation } from "~/core/stages";
import { readDrafts, useDrafts, writeDrafts } from "../../../entry/drafts";
import { nextDue } from "./due-flasks";

/** What a trial is called by that has no id yet. */
export const next = "next";

/**
 * Which trial is in hand, and the ids that it may get. A flask that was chosen stays in hand until its trial is whole; then comes the
 * one that is due, of those that stand; then one that was begun; then a new one.
 */
export function useHand(base: string, saved: TitrationEvaluation, timers: readonly TimerRecord[]) {
  const [chosen, choose] = useState<string | null>(null);
  const pointer = useDrafts(base);
  const isThere = (id: string) => saved.trials.some((t) => t.id === id);
  const waiting = pointer && !isThere(pointer.trialId) ? pointer.trialId : next;
  const isWhole = (id: string) => saved.trials.some((t) => t.id === id && t.missing === null);
  const open = chosen !== null && !isWhole(chosen);
  const due = nextDue(timers, saved.trials);
  const begun = chosen === null ? saved.current : (saved.begun[0] ?? null);
  const trialId = open ? (chosen === next ? waiting : chosen) : (due ?? begun?.id ?? waiting);
  /** Leaving a field right after Enter comes here twice before anything is rendered anew: one trial, one id. */
  const idInHand = (kind: "rough" | "fine") => {
    if (trialId !== next) return trialId;
    const begunId = readDrafts(base)?.trialId;
    if (begunId !== undefined && !isThere(begunId)) return begunId;
    const id = newId();
    writeDrafts(base, { trialId: id, kind, fields: {} });
    // A new flask that was asked for stays in hand once it is begun.
    if (chosen === next) choose(id);
    return id;
  };
  return { trialId, pointer, chosen, choose, idInHand };
}

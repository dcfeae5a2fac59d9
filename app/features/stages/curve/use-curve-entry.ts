import { useMemo, useState } from "react";
import { v7 as newId } from "uuid";
import { type Field, pointBurette, presumedOf } from "~/core/inputs";
import { checkField, fieldKey, trialFields } from "~/core/method";
import { type CurvePlace, pointsOf, presentObservation } from "~/core/record";
import { buretteText } from "~/core/rules";
import type { CurveEvaluation, CurveStageEvaluation } from "~/core/stages";
import { withPoint } from "~/core/text";
import { useCursor } from "../../../entry/cursor";
import { useDrafts, writeDrafts } from "../../../entry/drafts";
import {
  answerIn,
  cautionIn,
  confirmAllIn,
  confirmIn,
  type Entered,
  type Entry,
  heldUpIn,
  standing,
  stateIn,
  typeIn,
} from "../../../entry/entry";
import { type RunInHand, useRunInHand } from "../../../entry/run-context";

/** The input of a stage that is its curve. */
export const curveInputOf = ({ definition }: CurveStageEvaluation) => {
  const input = definition.inputs.find((one) => one.is === "curve");
  if (!input) throw new Error("A curve stage without its curve passed the check");
  return input;
};

/** The id of the curve that is begun next: it outlives a closed page, and is another one once a curve has it. */
function useNextId(base: string, { trials }: CurveStageEvaluation): string {
  const pointed = useDrafts(base)?.trialId ?? null;
  const count = trials.length;
  // Another one for each curve that is there.
  const [made, setMade] = useState({ count, id: newId() });
  if (made.count !== count) setMade({ count, id: newId() });
  return pointed !== null && trials.every(({ id }) => id !== pointed) ? pointed : made.id;
}

/** What a field of the next curve will probably be. */
function offeredFor(stage: CurveStageEvaluation, rules: RunInHand["rules"]): Record<string, string> {
  const input = curveInputOf(stage);
  const last = stage.trials.at(-1);
  const ended = last && pointsOf(last.record.observations, input.symbol).at(-1)?.place.burette;
  const start = rules.burette.start === "zero" ? buretteText(0, rules) : ended;
  const offered: Record<string, string> =
    start === undefined ? {} : { [fieldKey({ symbol: input.symbol, kind: "burette.initial" })]: start };
  for (const other of stage.definition.inputs) {
    for (const [kind, text] of Object.entries(presumedOf(other))) offered[`${other.symbol}:${kind}`] = text;
  }
  return offered;
}

/** Fields of a beaker, of a point, and of the burette beside it. */
function useFields(stage: CurveStageEvaluation, rules: RunInHand["rules"]) {
  const input = curveInputOf(stage);
  return useMemo(() => {
    const all = trialFields(stage.definition, rules).filter(
      (field) => !field.hidden && (!field.optional || field.kind === "given.plus-minus"),
    );
    const point = all.find(({ kind }) => kind === "point");
    const beakerFields = all.filter((field) => field !== point);
    return { input, point, beakerFields, burette: pointBurette(input, rules) };
  }, [stage.definition, rules, input]);
}

/** The reading of the burette after the next addition: the start itself before the first point. */
function advisedFor(curve: CurveEvaluation | null, rules: RunInHand["rules"]): string | null {
  if (curve?.startMl == null || curve.next.do === "stop") return null;
  const { points, startMl, next } = curve;
  return buretteText(startMl + (points.at(-1)?.volume ?? 0) + (points.length === 0 ? 0 : next.ml), rules);
}

/** A curve in hand with what its fields are entered with: one that is begun, or the next one. */
function useEntry(stage: CurveStageEvaluation, curve: CurveEvaluation | null) {
  const { record, rules, waiting } = useRunInHand();
  const base = `steady-bead.draft.${record.id}.${stage.key}`;
  const next = useNextId(base, stage);
  const trialId = curve?.id ?? next;
  const key = `${base}.${trialId}`;
  useDrafts(key);
  const fields = useFields(stage, rules);
  const { burette, point } = fields;
  const offered = offeredFor(stage, rules);
  const advised = advisedFor(curve, rules);
  const observations = curve?.record.observations ?? [];
  const buretteTyped = () => withPoint(stateIn(entry, burette).text.trim());
  const entry: Entry = {
    place: { key, trialId, kind: "fine" },
    facts: (field) => {
      if (field === burette) return { offered: advised, stands: null };
      if (field === point) return { offered: null, stands: null };
      const there = presentObservation(observations, field.symbol, field.kind);
      return { offered: offered[fieldKey(field)] ?? null, stands: standing(there, waiting) };
    },
    check: (field, text) =>
      checkField(field, text, {
        ...{ stage: stage.definition, method: record.method, houseRules: rules },
        holder: { observations: [...observations] },
        ...(field === point ? { place: { burette: buretteTyped() } } : {}),
      }),
    asks: true,
  };
  return { ...fields, base, trialId, advised, entry, buretteTyped };
}

/** What is typed of a curve in hand, and how it is saved: the beaker field by field, then pair by pair. */
export function useCurveEntry(stage: CurveStageEvaluation, curve: CurveEvaluation | null) {
  const { send } = useRunInHand();
  const toNext = useCursor();
  const inHand = useEntry(stage, curve);
  const { input, point, burette, beakerFields, base, trialId, advised, entry, buretteTyped } = inHand;
  const trial = { id: trialId, kind: "fine" } as const;
  const sendReading = async (reading: Entered): Promise<void> => {
    const answer = await send({
      ...{ intent: "observe", id: reading.id, stageKey: stage.key, trial },
      ...{ symbol: reading.field.symbol, kind: reading.field.kind, text: reading.text },
      ...{ supersedes: null, reason: null },
    });
    answerIn(entry, [reading], answer);
  };
  /** Readings of the beaker are sent one by one; those before it that were left as offered go first. */
  const commit = async (field: Field): Promise<void> => {
    const upTo = beakerFields.slice(0, beakerFields.indexOf(field) + 1);
    for (const one of upTo.filter((f) => f === field || stateIn(entry, f).is === "offered")) {
      const entered = confirmIn(entry, one);
      if (entered === "held") return;
      for (const reading of entered) await sendReading(reading);
    }
    toNext();
  };
  /** Sends a pair: as it was typed, or as a meter shows it. */
  const savePoint = async (shown?: { readonly text: string; readonly unsteady: boolean }): Promise<void> => {
    if (!point) return;
    const both = confirmAllIn(entry, [burette, point], shown && { field: point, text: shown.text });
    const reading = both === "held" ? undefined : both.find(({ field }) => field === point);
    if (both === "held" || both.length < 2 || !reading) return;
    const place: CurvePlace = {
      burette: withPoint(both.find(({ field }) => field === burette)?.text.trim() ?? ""),
      ...(shown?.unsteady ? { unsteady: true } : {}),
    };
    const answer = await send({
      ...{ intent: "observe", id: reading.id, stageKey: stage.key, trial, point: place },
      ...{ symbol: point.symbol, kind: "point", text: reading.text, supersedes: null, reason: null },
      source: shown ? "instrument" : "typed",
    });
    answerIn(entry, both, answer);
    toNext();
  };
  return {
    ...{ trialId, beakerFields, burette, point, input, commit, savePoint },
    /** What the burette should read after the next addition, as it is offered; null where nothing is. */
    advised,
    stateOf: (field: Field) => stateIn(entry, field),
    cautionOf: (field: Field) => cautionIn(entry, field),
    /** True where something about what is typed as the burette's reading has to be settled first. */
    heldUp: (field: Field) => heldUpIn(entry, [field]),
    type: (field: Field, text: string) => {
      if (!curve) writeDrafts(base, { trialId, kind: "fine", fields: {} });
      typeIn(entry, field, text);
    },
    /** Volume that is in the beaker by what is typed, else by the last point, mL; null before the burette is read. */
    addedMl: () => {
      if (curve?.startMl == null) return null;
      const at = Number(buretteTyped());
      const typed = stateIn(entry, burette).is === "typed" && buretteTyped() !== "" && !Number.isNaN(at);
      return typed ? at - curve.startMl : (curve.points.at(-1)?.volume ?? 0);
    },
    /** Opens the tap of a simulated burette: what was advised is in the beaker. */
    pour: () => {
      if (advised !== null && stateIn(entry, burette).is !== "typed") typeIn(entry, burette, advised);
    },
  };
}
export type CurveEntry = ReturnType<typeof useCurveEntry>;

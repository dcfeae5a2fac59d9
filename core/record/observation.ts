import type { TrialRecord, Observation, ObservationKind, StageRecord, TraceRecord } from "./schema";
import { msg, type Phrase } from "../text";

/** The number that the next trial that counts is called by. */
export const nextTrialNumber = (trials: readonly Pick<TrialRecord, "number">[]): number =>
  1 + Math.max(0, ...trials.map((t) => t.number ?? 0));

type Named = Pick<TrialRecord, "label" | "kind" | "number">;

const nouns = { trial: msg`trial`, flask: msg`flask`, course: msg`kinetic run` };

/** A trial in a sentence: "trial 3", "the rough trial", or the name that people gave it; a flask is no trial. */
export function trialWords(
  { label, kind, number }: Named,
  one: "trial" | "flask" | "course" = "trial",
): Phrase {
  if (label !== null) return label;
  return kind === "rough" || number === null ? msg`the rough ${nouns[one]}` : msg`${nouns[one]} ${number}`;
}

/** What a trial is called: the label that people gave it, "rough", or its number. */
export const trialName = ({ label, kind, number }: Pick<TrialRecord, "label" | "kind" | "number">): Phrase =>
  label ?? (kind === "rough" || number === null ? msg`rough` : String(number));

/**
 * The observation that holds now for one field: the newest that nothing supersedes. One that takes an entry back holds nothing;
 * where a field is read many times, those before it stand.
 */
export function presentObservation(
  observations: readonly Observation[],
  symbol: string,
  kind: ObservationKind,
): Observation | null {
  const superseded = new Set(observations.map((o) => o.supersedes));
  const holds = (o: Observation) =>
    o.symbol === symbol && o.kind === kind && o.value !== null && !superseded.has(o.id);
  return observations.findLast(holds) ?? null;
}

/** All that was ever written in one field, oldest first. */
export function fieldHistory(
  observations: readonly Observation[],
  symbol: string,
  kind: ObservationKind,
): Observation[] {
  return observations.filter((o) => o.symbol === symbol && o.kind === kind);
}

/** The newest observation of the row of corrections that this one stands in. */
export function endOfCorrections(observations: readonly Observation[], id: string): Observation | null {
  let end = observations.find((o) => o.id === id) ?? null;
  for (let next = end; next; next = observations.find((o) => o.supersedes === end?.id) ?? null) end = next;
  return end;
}

/** The reason of a value that came from the shelf when the run began, and that nobody chose: it gives way without one. */
export const preselected = "preselected from the shelf";

export const isPreselected = ({ reason }: Pick<Observation, "reason">): boolean => reason === preselected;

/** What says how well a value is known, by the kind of the value: it goes when another value is written. */
export const spreadKinds: Partial<Record<ObservationKind, readonly ObservationKind[]>> = {
  given: ["given.plus-minus", "given.standard-uncertainty"],
  "given.plus-minus": ["given.standard-uncertainty"],
  purity: ["purity.plus-minus"],
};

/** The course of a trial that is in use: the last one that was not put away. */
export const traceOf = ({ traces = [] }: StageRecord, trialId: string): TraceRecord | null =>
  traces.findLast((t) => t.trialId === trialId && !t.removed) ?? null;

import { v7 as newId } from "uuid";
import type { Field } from "~/core/inputs";
import { asksBack } from "~/core/measure";
import { fieldKey, type FieldCheck } from "~/core/method";
import type { Observation } from "~/core/record";
import { isTaken, type ChangeOutcome } from "../live/post";
import { type DraftPlace, happen, readDrafts } from "./drafts";
import {
  type Facts,
  type FieldEvent,
  type FieldState,
  isOpen,
  type Note,
  type Sending,
  stateOf,
  step,
} from "./field";
import { type Phrase } from "~/core/text";

/** What the fields of one trial, flask or stage are entered with. */
export interface Entry {
  readonly place: DraftPlace;
  readonly facts: (field: Field) => Facts;
  readonly check: (field: Field, text: string) => FieldCheck;
  /** Where a house reads a field twice: what is said where the two differ too much. */
  readonly compare?: (field: Field) => ((first: string, second: string) => Phrase | null) | undefined;
  /** Asks about a likely slip before it is saved; left out where cautions are only told. */
  readonly asks?: boolean;
}

/** A reading on its way, with its field. */
export interface Entered extends Sending {
  readonly field: Field;
}

/** How a field stands at this moment, whatever a component last rendered. */
export const stateIn = ({ place, facts }: Entry, field: Field): FieldState =>
  stateOf(readDrafts(place.key)?.fields[fieldKey(field)] ?? null, facts(field));

/** What a reading as it stands should be known for: a likely slip, with what was probably meant. */
export function cautionIn(entry: Entry, field: Field): Note | null {
  const { is, text } = stateIn(entry, field);
  if (is !== "typed") return null;
  const checked = entry.check(field, text);
  return checked.ok ? (checked.value.cautions[0] ?? null) : null;
}

export const typeIn = ({ place }: Entry, field: Field, text: string): void =>
  void happen(place, fieldKey(field), { on: "type", text });

export const dropIn = ({ place }: Entry, field: Field): void =>
  void happen(place, fieldKey(field), { on: "drop" });

type Confirm = Extract<FieldEvent, { on: "confirm" }>;

/** What Enter means for a field as it stands, or for what an instrument showed. */
function confirmOf(entry: Entry, field: Field, shown: string | undefined): Confirm {
  const text = shown ?? stateIn(entry, field).text;
  const checked = entry.check(field, text);
  const own = text !== entry.facts(field).offered && shown === undefined;
  const compare = own ? entry.compare?.(field) : undefined;
  return {
    on: "confirm",
    text,
    problem: checked.ok ? null : checked.problem,
    ask: checked.ok && own && entry.asks ? (checked.value.cautions.find(asksBack) ?? null) : null,
    ...(compare ? { compare } : {}),
    newId,
  };
}

/**
 * Checks what stands in a field, or what an instrument showed, and hands out the readings to be sent. "held" where the field wants
 * something first: it is wrong, asked about, or read a second time. Nothing where it is saved or on its way.
 */
export function confirmIn(entry: Entry, field: Field, shown?: string): readonly Entered[] | "held" {
  if (!isOpen(stateIn(entry, field))) return [];
  const sent = happen(entry.place, fieldKey(field), confirmOf(entry, field, shown));
  return sent.length === 0 ? "held" : sent.map((reading) => ({ ...reading, field }));
}

interface Shown {
  readonly field: Field;
  readonly text: string;
}

const textShown = (field: Field, shown: Shown | undefined): string | undefined =>
  shown && fieldKey(shown.field) === fieldKey(field) ? shown.text : undefined;

const openOf = (entry: Entry, fields: readonly Field[]) =>
  fields.filter((field) => isOpen(stateIn(entry, field)));

/** True where one of the fields wants something first; what that is, is told beside it. Nothing is sent. */
export function heldUpIn(entry: Entry, fields: readonly Field[], shown?: Shown): boolean {
  const held = openOf(entry, fields).filter((field) => {
    const draft = readDrafts(entry.place.key)?.fields[fieldKey(field)] ?? null;
    return step(draft, confirmOf(entry, field, textShown(field, shown))).send.length === 0;
  });
  held.forEach((field) => confirmIn(entry, field, textShown(field, shown)));
  return held.length > 0;
}

/** Several fields that are sent together: all of them, or none, and then what holds it up is told beside its field. */
export function confirmAllIn(
  entry: Entry,
  fields: readonly Field[],
  shown?: Shown,
): readonly Entered[] | "held" {
  if (heldUpIn(entry, fields, shown)) return "held";
  const confirmed = openOf(entry, fields).map((field) => confirmIn(entry, field, textShown(field, shown)));
  return confirmed.flatMap((sent) => (sent === "held" ? [] : sent));
}

/** Of two readings that differ, the one that stands. */
export const settleIn = ({ place }: Entry, field: Field, text: string): readonly Entered[] =>
  happen(place, fieldKey(field), { on: "settle", text, newId }).map((reading) => ({ ...reading, field }));

/** Tells the fields what became of their readings. */
export function answerIn(
  { place }: Pick<Entry, "place">,
  readings: readonly Entered[],
  outcome: ChangeOutcome,
): void {
  const { message, proposal } = { message: "", proposal: undefined, ...outcome };
  for (const { id, field } of readings) {
    happen(place, fieldKey(field), {
      ...{ on: "answer", id },
      answer: isTaken(outcome)
        ? { status: "taken" }
        : { status: "refused", message, ...(proposal === undefined ? {} : { proposal }) },
    });
  }
}

/** Gives readings that were sent with something else back to their fields, where it was that which was wrong. */
export function releaseIn({ place }: Pick<Entry, "place">, readings: readonly Entered[]): void {
  for (const { id, field } of readings)
    happen(place, fieldKey(field), { on: "answer", id, answer: { status: "released" } });
}

/** The reading that stands in a field, as the engine takes it. */
export const standing = (
  present: Observation | null | undefined,
  waiting: ReadonlySet<string>,
): Facts["stands"] =>
  present ? { id: present.id, text: present.text, waits: waiting.has(present.id) } : null;

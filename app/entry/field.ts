import type { Check } from "~/core/measure";
import { msg, type Phrase } from "~/core/text";

/**
 * The state machine of one field: pure, without clock, network or storage. What a person did is the `Draft`; what the run says of
 * the field are the `Facts`; how the field stands follows from both (`stateOf`). `step` takes an event and returns the draft as it
 * then is and the readings to be sent. A reading that is sent again keeps its ids, so that it is written once.
 */

/** What is said beside a field: what is wrong, or what is asked. */
export interface Note {
  readonly message: Phrase;
  /** What was probably meant. */
  readonly proposal?: string;
  /** Of two readings that differ: which one is it? */
  readonly choices?: readonly string[];
}

/** One reading to be sent; `again` is the second of two, typed without sight of the first. */
export interface Sending {
  readonly id: string;
  readonly text: string;
  readonly again: boolean;
}

/** What was sent last. */
interface Attempt {
  readonly readings: readonly Sending[];
  readonly onTheWay: boolean;
}

/** What a person did with a field that is not saved yet. */
export interface Draft {
  readonly text: string;
  /** The first of two readings, put away while the second is typed. */
  readonly first?: string;
  readonly asked?: Note;
  readonly refused?: Note;
  /** True once a caution about this text was answered: it is not asked about again. */
  readonly kept?: boolean;
  readonly attempt?: Attempt;
}

/** What the run says of a field. */
export interface Facts {
  /** The value that is offered before anything is typed. */
  readonly offered: string | null;
  /** The reading that stands in the field; `waits` while it is in this browser alone. */
  readonly stands: { readonly id: string; readonly text: string; readonly waits: boolean } | null;
}

/** How a field stands. */
export type FieldState =
  | { readonly is: "empty"; readonly text: "" }
  | { readonly is: "offered" | "typed" | "sending"; readonly text: string }
  /** The first reading is put away: this is the second. */
  | { readonly is: "first of two"; readonly text: string }
  | { readonly is: "asked" | "refused"; readonly text: string; readonly note: Note }
  /** `typedMeanwhile`: what was typed here when another device saved its reading. */
  | {
      readonly is: "waiting" | "saved";
      readonly text: string;
      readonly id: string;
      readonly typedMeanwhile: string | null;
    };

/** What became of a reading that was sent. */
export type Answered =
  | { readonly status: "taken" }
  /** Not saved, for a reason that lies in something else than this reading. */
  | { readonly status: "released" }
  | { readonly status: "refused"; readonly message: Phrase; readonly proposal?: string };

export type FieldEvent =
  | { readonly on: "type"; readonly text: string }
  | {
      readonly on: "confirm";
      /** What stands in the field: typed, offered, or shown by an instrument. */
      readonly text: string;
      readonly problem: Check | null;
      /** A caution that is answered by confirming again. */
      readonly ask: Check | null;
      /** Where a house reads twice: what is said where two readings differ too much, else null. Left out where it reads once. */
      readonly compare?: (first: string, second: string) => Phrase | null;
      readonly newId: () => string;
    }
  /** Of two readings that differ, the one that stands. */
  | { readonly on: "settle"; readonly text: string; readonly newId: () => string }
  | { readonly on: "answer"; readonly id: string; readonly answer: Answered }
  /** Lets go of what was typed. */
  | { readonly on: "drop" };

export interface Stepped {
  readonly draft: Draft | null;
  readonly send: readonly Sending[];
}

const isOnTheWay = (draft: Draft | null): boolean => draft?.attempt?.onTheWay ?? false;

/** How a field stands, by what was done with it and what the run says of it. */
export function stateOf(draft: Draft | null, { offered, stands }: Facts): FieldState {
  if (stands) {
    const meanwhile = draft && !isOnTheWay(draft) ? draft.text || (draft.first ?? null) : null;
    const typedMeanwhile = meanwhile === stands.text ? null : meanwhile;
    return { is: stands.waits ? "waiting" : "saved", text: stands.text, id: stands.id, typedMeanwhile };
  }
  if (!draft) return offered === null ? { is: "empty", text: "" } : { is: "offered", text: offered };
  const { text, first, asked, refused } = draft;
  if (isOnTheWay(draft)) return { is: "sending", text };
  if (refused) return { is: "refused", text, note: refused };
  if (asked) return { is: "asked", text, note: asked };
  if (first !== undefined) return { is: "first of two", text };
  return text === "" ? { is: "empty", text: "" } : { is: "typed", text };
}

/** True where a field waits for something to be typed, chosen or confirmed. */
export const isOpen = ({ is }: FieldState): boolean => is !== "sending" && is !== "waiting" && is !== "saved";

/** True where what stands in a field is a person's own, and not saved. */
export const isTouched = ({ is }: FieldState): boolean =>
  is === "typed" || is === "asked" || is === "refused" || is === "sending";

const noteOf = ({ message, proposal }: Check): Note =>
  proposal === undefined ? { message } : { message, proposal };

/** What is typed, without what was said about the text before it. */
const typed = (draft: Draft | null, text: string): Draft => ({
  text,
  ...(draft?.first === undefined ? {} : { first: draft.first }),
  ...(draft?.attempt ? { attempt: draft.attempt } : {}),
});

/** Sends readings; the same ones as the last time under the same ids. */
function sending(
  draft: Draft,
  texts: readonly { text: string; again: boolean }[],
  newId: () => string,
): Stepped {
  const before = draft.attempt?.readings ?? [];
  const readings = texts.map(
    ({ text, again }) =>
      before.find((r) => r.text === text && r.again === again) ?? { id: newId(), text, again },
  );
  const next: Draft = {
    ...typed(draft, draft.text),
    ...(draft.kept ? { kept: true } : {}),
    attempt: { readings, onTheWay: true },
  };
  return { draft: next, send: readings };
}

function confirm(draft: Draft | null, event: Extract<FieldEvent, { on: "confirm" }>): Stepped {
  const { text, problem, ask, compare, newId } = event;
  const now: Draft = draft?.text === text ? draft : typed(draft, text);
  const quiet = { draft: now, send: [] };
  if (problem) return { ...quiet, draft: { ...typed(now, text), refused: noteOf(problem) } };
  const answered = now.asked !== undefined || now.kept === true;
  if (ask && !answered) {
    const note = noteOf(ask);
    return {
      ...quiet,
      draft: {
        ...typed(now, text),
        asked: { ...note, message: msg`${note.message} Enter again keeps ${text}.` },
      },
    };
  }
  if (!compare) return sending({ ...now, kept: ask !== null }, [{ text, again: false }], newId);
  if (now.first === undefined) return { ...quiet, draft: { ...typed(now, ""), first: text } };
  const differ = compare(now.first, text);
  if (differ !== null) {
    const choices = [...new Set([now.first, text])];
    return { ...quiet, draft: { ...typed(now, text), asked: { message: differ, choices } } };
  }
  return sending(
    now,
    [
      { text: now.first, again: false },
      { text, again: true },
    ],
    newId,
  );
}

/** Of two readings, the one that stands; the other is sent as the second. */
function settle(draft: Draft | null, text: string, newId: () => string): Stepped {
  const unsettled = { draft, send: [] };
  if (draft?.first === undefined || (text !== draft.first && text !== draft.text)) return unsettled;
  const other = text === draft.first ? draft.text : draft.first;
  return sending(
    draft,
    [
      { text, again: false },
      { text: other, again: true },
    ],
    newId,
  );
}

function answered(draft: Draft | null, id: string, answer: Answered): Stepped {
  const { attempt } = draft ?? {};
  // An answer about another text than the one being sent does not concern this one.
  if (!draft || !attempt?.onTheWay || !attempt.readings.some((r) => r.id === id)) return { draft, send: [] };
  if (answer.status === "taken") return { draft: null, send: [] };
  if (answer.status === "released") return { draft: reopened(draft), send: [] };
  const { message, proposal } = answer;
  const refused: Note = proposal === undefined ? { message } : { message, proposal };
  return { draft: { ...draft, refused, attempt: { ...attempt, onTheWay: false } }, send: [] };
}

/** What an event makes of a field, and what is to be sent. What is on its way stays as it was sent. */
export function step(draft: Draft | null, event: FieldEvent): Stepped {
  if (event.on === "answer") return answered(draft, event.id, event.answer);
  if (isOnTheWay(draft)) return { draft, send: [] };
  switch (event.on) {
    case "type":
      return { draft: typed(draft, event.text), send: [] };
    case "confirm":
      return confirm(draft, event);
    case "settle":
      return settle(draft, event.text, event.newId);
    case "drop":
      return { draft: null, send: [] };
  }
}

/** A draft as it comes back after the page was closed: nothing of it is on its way any more, and no answer to it will come. */
export const reopened = (draft: Draft): Draft =>
  draft.attempt ? { ...draft, attempt: { ...draft.attempt, onTheWay: false } } : draft;

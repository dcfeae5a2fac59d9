import { useRef, useState } from "react";
import { v7 as newId } from "uuid";
import type { Field } from "~/core/inputs";
import { fieldKey } from "~/core/method";
import { isTaken } from "../../../live/post";
import { readDraft, writeDraft } from "../shared/draft-store";
import type { Send } from "../shared/use-run";

/**
 * How a field stands while it is not saved: on its way, or with a message beside it; a caution lets it be saved, what is
 * asked waits for an answer.
 */
export interface FieldNote {
  readonly state: "saving" | "refused" | "unreachable" | "caution" | "ask";
  readonly message: string;
  readonly proposal?: string;
  /** Of two readings that differ: which one is it? */
  readonly choices?: readonly string[];
}

interface UseSaving {
  /** Under which what is typed is kept in the browser, with the trial's id behind it. */
  readonly base: string;
  readonly stageKey: string;
  /** The trial in hand. */
  readonly trialId: string;
  readonly kind: "rough" | "fine";
  readonly send: Send;
}

/** Keeps what is typed for a trial, sends readings one by one, and tells how each of them stands. */
export function useSaving({ base, stageKey, trialId, kind, send }: UseSaving) {
  const [notes, setNotes] = useState<Readonly<Record<string, FieldNote>>>({});
  const onTheWay = useRef(new Set<string>());
  const attempts = useRef(new Map<string, { text: string; id: string }>());

  const noteKey = (field: Pick<Field, "symbol" | "kind">, id = trialId) => `${id}/${fieldKey(field)}`;
  const setNote = (key: string, note: FieldNote | null) =>
    setNotes((all) => {
      const rest = Object.fromEntries(Object.entries(all).filter(([k]) => k !== key));
      return note ? { ...rest, [key]: note } : rest;
    });

  /** Changes what is typed for a trial; null lets go of it. */
  const write = (id: string, change: Readonly<Record<string, string | null>>) => {
    const key = `${base}.${id}`;
    const now = readDraft(key)?.texts ?? {};
    const merged = Object.entries({ ...now, ...change }).filter(
      (entry): entry is [string, string] => entry[1] !== null,
    );
    writeDraft(key, merged.length > 0 ? { trialId: id, kind, texts: Object.fromEntries(merged) } : null);
  };

  /** Sends a reading; how it stands is told beside the field that it was typed in. False where one is on its way already. */
  const save = (
    field: Pick<Field, "symbol" | "kind">,
    text: string,
    id: string,
    typedAs = field,
    source: "typed" | "instrument" = "typed",
  ): boolean => {
    const key = noteKey(field, id);
    if (onTheWay.current.has(key)) return false;
    onTheWay.current.add(key);
    setNote(noteKey(typedAs, id), { state: "saving", message: "saving" });
    // The same reading sent again keeps its id, so that it is written once even if an answer was lost.
    const before = attempts.current.get(key);
    const observationId = before?.text === text ? before.id : newId();
    attempts.current.set(key, { text, id: observationId });
    void send({
      intent: "observe",
      id: observationId,
      stageKey,
      trial: { id, kind },
      symbol: field.symbol,
      kind: field.kind,
      text,
      supersedes: null,
      reason: null,
      source,
    }).then((answer) => {
      onTheWay.current.delete(key);
      if (!isTaken(answer)) {
        const state = answer.status === "unreachable" ? "unreachable" : "refused";
        return setNote(noteKey(typedAs, id), { ...answer, state });
      }
      attempts.current.delete(key);
      // What is saved is no draft any more: taken back later, it must not come up again by itself.
      if (readDraft(`${base}.${id}`)?.texts[fieldKey(field)] === text) write(id, { [fieldKey(field)]: null });
      setNote(noteKey(typedAs, id), null);
    });
    return true;
  };

  const isOnTheWay = (field: Field, id: string) => onTheWay.current.has(noteKey(field, id));

  return { noteKey, notes, setNote, write, save, isOnTheWay };
}

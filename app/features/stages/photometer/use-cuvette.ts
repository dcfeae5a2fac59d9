import { useState } from "react";
import { checkField, type ComputedStage, fieldKey } from "~/core/method";
import type { Field } from "~/core/inputs";
import type { Observation } from "~/core/record";
import { useDrafts } from "../../../entry/drafts";
import { answerIn, confirmAllIn, dropIn, type Entry, stateIn, typeIn } from "../../../entry/entry";
import type { Note } from "../../../entry/field";
import { useRunInHand } from "../../../entry/run-context";
import { isTaken } from "../../../live/post";

/** What is in the light now: which flask, and what has still to be typed of it. */
export interface CuvetteTarget {
  /** Null for the blank, which belongs to the stage. */
  readonly trialId: string | null;
  /** What the display can be written down as: absorbance, transmittance, a check at the end. */
  readonly readings: readonly Field[];
  /** Fields of the flask that nothing was typed for yet. */
  readonly fields: readonly Field[];
  /** What they usually are. */
  readonly proposals: Readonly<Record<string, string>>;
  readonly observations: readonly Observation[];
}

export type ReadingKind = "absorbance" | "transmittance" | "absorbance.again";

/** The fields of a photometer's display among those of a flask, or of a stage for its blank. */
export const displayFields = (fields: readonly Field[]): Field[] => fields.filter((f) => f.many);

interface UseCuvette {
  readonly draftKey: string;
  readonly target: CuvetteTarget;
  readonly stage: ComputedStage;
  readonly person: string;
  readonly onSaved: (trialId: string | null) => void;
}

/** Entry of one reading with whatever has to be typed of its flask; what is typed outlives a closed tab until it is saved. */
export function useCuvette({ draftKey, target, stage, person, onSaved }: UseCuvette) {
  const { rules, send } = useRunInHand();
  const drafts = useDrafts(draftKey);
  // A flask that is begun by what is typed keeps its id over a reload, as its readings do: sent again, it is written once.
  const trialId = target.trialId === null ? null : (drafts?.trialId ?? target.trialId);
  const [asked, setAsked] = useState<ReadingKind>("absorbance");
  // What should be known of the reading that was just saved.
  const [after, setAfter] = useState<Note | null>(null);
  const fieldOf = (of: ReadingKind) => target.readings.find((f) => f.kind === of);
  // A check belongs to a standard that was read; any other cuvette is simply read.
  const kind = fieldOf(asked) ? asked : "absorbance";
  const reading = fieldOf(kind);
  const entry: Entry = {
    place: { key: draftKey, trialId: trialId ?? "blank", kind: "fine" },
    facts: (field) => ({ offered: target.proposals[fieldKey(field)] ?? null, stands: null }),
    check: (field, text) =>
      checkField(field, text, {
        stage,
        houseRules: rules,
        holder: { observations: [...target.observations] },
      }),
  };
  const type = (field: Field, text: string) => {
    setAfter(null);
    typeIn(entry, field, text);
  };

  const setKind = (to: ReadingKind) => {
    if (reading) moveText(entry, reading, fieldOf(to));
    setAsked(to);
  };

  /** Sends what is typed, or what the instrument showed, with what was typed of the flask: all of it, or nothing. */
  const save = async (shown?: string): Promise<void> => {
    if (!reading) return;
    const instrument = shown === undefined ? undefined : { field: reading, text: shown };
    const [caution] = cautionsOf(entry, reading, shown);
    const entered = confirmAllIn(entry, [...target.fields, reading], instrument);
    if (entered === "held" || entered.length === 0) return;
    const answer = await send({
      intent: "enter",
      stageKey: stage.key,
      source: shown === undefined ? "typed" : "instrument",
      rows: [
        {
          trial: trialId === null ? null : { id: trialId, kind: "fine" },
          readings: entered.map(({ id, field, text }) => ({
            ...{ id, symbol: field.symbol, kind: field.kind, text, person },
          })),
        },
      ],
    });
    answerIn(entry, entered, answer);
    if (!isTaken(answer)) return;
    setAfter(caution ?? null);
    if (kind === "absorbance.again") setAsked("absorbance");
    onSaved(trialId);
  };
  return {
    stateOf: (field: Field) => stateIn(entry, field),
    ...{ type, save, kind, setKind, reading, after },
  };
}

/** What should be known of a reading that passes. */
function cautionsOf(entry: Entry, field: Field, shown: string | undefined) {
  const checked = entry.check(field, shown ?? stateIn(entry, field).text);
  return checked.ok ? checked.value.cautions : [];
}

/** Another scale of the display: what was typed stays in the field. */
function moveText(entry: Entry, from: Field, to: Field | undefined): void {
  const { text } = stateIn(entry, from);
  if (!to || to === from) return;
  dropIn(entry, from);
  if (text !== "") typeIn(entry, to, text);
}

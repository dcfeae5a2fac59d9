import { useRef, useState } from "react";
import { v7 as newId } from "uuid";
import { checkField, type ComputedStage, fieldKey } from "~/core/method";
import type { Field } from "~/core/inputs";
import type { HouseRules } from "~/core/rules";
import type { Observation } from "~/core/record";
import type { Enter } from "~/core/change";
import { isTaken } from "../../../live/post";
import { useStoredDraft } from "../shared/draft-store";
import type { Send } from "../shared/use-run";

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

export interface CuvetteNote {
  readonly key: string;
  readonly severity: "stop" | "caution" | "waiting";
  readonly message: string;
  readonly proposal?: string;
}

export type ReadingKind = "absorbance" | "transmittance" | "absorbance.again";

/** The fields of a photometer's display among those of a flask, or of a stage for its blank. */
export const displayFields = (fields: readonly Field[]): Field[] => fields.filter((f) => f.many);

interface UseCuvette {
  readonly draftKey: string;
  readonly target: CuvetteTarget;
  readonly stage: ComputedStage;
  readonly rules: HouseRules;
  readonly person: string;
  readonly send: Send;
  readonly onSaved: () => void;
}

export const readingKey = "reading";

/** Entry of one reading with whatever has to be typed of its flask; what is typed outlives a closed tab until it is saved. */
export function useCuvette({ draftKey, target, stage, rules, person, send, onSaved }: UseCuvette) {
  const [draft, setDraft] = useStoredDraft(draftKey);
  const [asked, setKind] = useState<ReadingKind>("absorbance");
  // A check belongs to a standard that was read; any other cuvette is simply read.
  const kind = target.readings.some((f) => f.kind === asked) ? asked : "absorbance";
  const [note, setNote] = useState<CuvetteNote | null>(null);
  const [busy, setBusy] = useState(false);
  // A request that is sent again after a lost answer carries the same ids, and is written once.
  const ids = useRef(new Map<string, string>());
  const texts = draft?.texts ?? {};
  const textOf = (key: string) => texts[key] ?? target.proposals[key] ?? "";
  const type = (key: string, value: string) => {
    setNote(null);
    setDraft({ trialId: target.trialId ?? "blank", kind: "fine", texts: { ...texts, [key]: value } });
  };
  const idOf = (key: string) => {
    const known = ids.current.get(key) ?? newId();
    ids.current.set(key, known);
    return known;
  };

  /** Sends what is typed, or what the instrument showed. False where something is wrong with it. */
  const save = async (shown?: string): Promise<boolean> => {
    const holder = { observations: [...target.observations] };
    const context = { stage, houseRules: rules, holder };
    const readings: Enter["rows"][number]["readings"] = [];
    for (const field of target.fields) {
      const key = fieldKey(field);
      const checked = checkField(field, textOf(key), context);
      if (!checked.ok) {
        setNote({ key, severity: "stop", message: checked.problem.message });
        return false;
      }
      readings.push({ id: idOf(key), symbol: field.symbol, kind: field.kind, text: textOf(key), person });
    }
    const reading = shown ?? texts[readingKey] ?? "";
    const field = target.readings.find((f) => f.kind === kind);
    if (!field) return false;
    const checked = checkField(field, reading, context);
    if (!checked.ok) {
      setNote({ key: readingKey, severity: "stop", message: checked.problem.message });
      return false;
    }
    readings.push({ id: idOf(readingKey), symbol: field.symbol, kind, text: reading, person });
    setBusy(true);
    const answer = await send({
      intent: "enter",
      stageKey: stage.key,
      source: shown === undefined ? "typed" : "instrument",
      rows: [{ trial: target.trialId === null ? null : { id: target.trialId, kind: "fine" }, readings }],
    });
    setBusy(false);
    if (!isTaken(answer)) {
      setNote({
        key: readingKey,
        severity: answer.status === "unreachable" ? "waiting" : "stop",
        message: answer.message,
      });
      return false;
    }
    ids.current.clear();
    setDraft(null);
    const [caution] = checked.value.cautions;
    setNote(caution ? { key: readingKey, severity: "caution", message: caution.message } : null);
    if (kind === "absorbance.again") setKind("absorbance");
    onSaved();
    return true;
  };
  return { textOf, type, save, note, busy, kind, setKind, reading: texts[readingKey] ?? "" };
}

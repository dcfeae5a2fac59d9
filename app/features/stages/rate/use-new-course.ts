import { useEffect, useState } from "react";
import { v7 as newId } from "uuid";
import type { Field } from "~/core/inputs";
import { checkField, trialFields } from "~/core/method";
import { decimalsIn, type TraceRecord } from "~/core/record";
import { methodOf, type RunRecord } from "~/core/run";
import { unitOf } from "~/core/quantity";
import {
  compiledMethod,
  type RateEvaluation,
  type RunEvaluation,
  presumedRate,
  usualConstant,
} from "~/core/stages";
import { msg, type Phrase, withPoint } from "~/core/text";
import { shownDecimals } from "~/devices";
import { useDrafts, writeDrafts } from "../../../entry/drafts";
import { confirmAllIn, type Entry, heldUpIn, releaseIn, stateIn, typeIn } from "../../../entry/entry";
import { useRunInHand } from "../../../entry/run-context";
import { isTaken } from "../../../live/post";
import { useSay } from "../../../words/text";
import { hidden } from "../photometer/use-photometer";
import { useReader, wavelengthOf } from "../photometer/use-reader";
import { useCourse } from "./use-course";

/** A course as an instrument or a file gives it: absorbances over times in seconds. */
export interface TakenCourse {
  readonly name: string;
  readonly x: readonly number[];
  readonly absorbance: readonly number[];
  readonly decimals?: TraceRecord["decimals"];
  readonly source: "instrument" | "imported";
}

/** The fields of a cuvette that a kinetic run is taken with. What is typed in them outlives a closed page until it is saved. */
function useCuvetteFields({ key: stageKey, definition, trials }: RateEvaluation) {
  const { record, rules } = useRunInHand();
  const key = `course:${record.id}:${stageKey}`;
  const drafts = useDrafts(key);
  const [fresh] = useState(() => newId());
  // A cuvette whose answer was lost on its way back is there after all: what was typed of it belongs to no other.
  const saved = drafts !== null && trials.some(({ id }) => id === drafts.trialId);
  useEffect(() => {
    if (saved) writeDrafts(key, null);
  }, [saved, key]);
  const trialId = saved ? fresh : (drafts?.trialId ?? fresh);
  const entry: Entry = {
    place: { key, trialId, kind: "fine" },
    facts: () => ({ offered: null, stands: null }),
    check: (field, text) =>
      checkField(field, text, { stage: definition, houseRules: rules, holder: { observations: [] } }),
    asks: true,
  };
  // The ± of what is stated of a cuvette may stay empty.
  const fields = trialFields(definition, rules).filter((f) => !f.optional || f.kind === "given.plus-minus");
  const isEmpty = (field: Field) => stateIn(entry, field).text.trim() === "";
  return {
    ...{ entry, trialId, fields },
    /** Lets go of all that was typed, of fields that were emptied again too: the next cuvette is another one. */
    letGo: () => writeDrafts(key, null),
    filled: () => fields.filter((f) => !f.optional || !isEmpty(f)),
    next: fields.find((f) => !f.optional && isEmpty(f)) ?? null,
  };
}

/** The constant by which a cuvette fades that holds what was typed: near the presumed one, and nobody is told. */
function trueConstant(
  record: RunRecord,
  { definition }: RateEvaluation,
  entry: Entry,
  filled: readonly Field[],
) {
  const numbers = filled
    .filter((f) => !f.optional)
    .map((field) => {
      const value = Number(withPoint(stateIn(entry, field).text));
      return [field.symbol, value * unitOf(field.unit || "1").factor] as const;
    });
  const presumed = presumedRate(definition) * (1 + 0.15 * hidden(record.id));
  return usualConstant(compiledMethod(methodOf(record)), definition, new Map(numbers), presumed);
}

/** Entry of a kinetic run: what has to be typed of its cuvette, checked before the cuvette goes in, and saved with the course. */
export function useNewCourse(
  stage: RateEvaluation,
  evaluation: RunEvaluation,
  onMade: (trialId: string) => void,
) {
  const say = useSay();
  const { record, send } = useRunInHand();
  const [person] = useReader(record.bench);
  const { entry, trialId, fields, filled, next, letGo } = useCuvetteFields(stage);
  const [trouble, setTrouble] = useState<Phrase | null>(null);
  const live = useCourse(11 + stage.trials.length);

  const keep = async ({ name, x, absorbance, decimals, source }: TakenCourse): Promise<void> => {
    const entered = confirmAllIn(entry, filled());
    if (entered === "held") return;
    const answer = await send({
      ...{ intent: "trace", id: newId(), stageKey: stage.key, trialId },
      readings: entered.map(({ id, field: { symbol, kind }, text }) => ({ id, symbol, kind, text })),
      ...{ name, xUnit: "s", x: [...x], absorbance: [...absorbance], source, person },
      ...(decimals ? { decimals } : {}),
    });
    if (!isTaken(answer)) {
      // The readings were checked: what is wrong is the course, and it is said below them.
      releaseIn(entry, entered);
      return setTrouble(answer.message);
    }
    letGo();
    onMade(trialId);
  };

  const begin = () => {
    setTrouble(null);
    if (heldUpIn(entry, filled())) return;
    const name = say`kinetic run ${stage.trials.length + 1}`;
    live.start(trueConstant(record, stage, entry, filled()), wavelengthOf(evaluation), (points) => {
      const [x, absorbance] = [points.map(([t]) => t), points.map(([, a]) => a)];
      const decimals = { x: Math.max(...x.map((t) => decimalsIn(String(t)))), absorbance: shownDecimals };
      void keep({ name, x, absorbance, decimals, source: "instrument" });
    });
  };

  return {
    ...{ fields, next, live, begin, keep },
    stateOf: (field: Field) => stateIn(entry, field),
    trouble: trouble ?? (live.trouble && msg`${live.trouble}.`),
    type: (field: Field, text: string) => {
      setTrouble(null);
      typeIn(entry, field, text);
    },
  };
}

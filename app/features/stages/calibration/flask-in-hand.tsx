import { useMemo, useState } from "react";
import { v7 as newId } from "uuid";
import { fieldKey, stageFields, trialFields } from "~/core/method";
import {
  type CalibrationEvaluation,
  type LevelEvaluation,
  seriesKind,
  seriesWords,
  usualAbsorbance,
} from "~/core/stages";
import { presentObservation } from "~/core/record";
import { absorberNear, clearCuvette, cuvetteOf } from "~/devices";
import { useRunInHand } from "../../../entry/run-context";
import { CuvetteSheet } from "../photometer/cuvette-sheet";
import { takenWords } from "./levels-table";
import { tintOf } from "../photometer/tint";
import { type CuvetteTarget, displayFields, useCuvette } from "../photometer/use-cuvette";
import { usePhotometer } from "../photometer/use-photometer";
import { wavelengthOf } from "../photometer/use-reader";
import type { StageViewProps } from "../screens";
import { useSay } from "../../../words/text";
import { msg, type Phrase } from "~/core/text";

interface FlaskInHandProps extends StageViewProps<CalibrationEvaluation> {
  readonly which: string;
  readonly person: string;
  readonly onPerson: (person: string) => void;
  readonly onSaved: () => void;
}

/** The flask that is read next: what it holds, what the instrument shows of it, and how to fill the cuvette. */
export function FlaskInHand({ stage, evaluation, which, person, onPerson, onSaved }: FlaskInHandProps) {
  const say = useSay();
  const { record } = useRunInHand();
  const { definition } = stage;
  const [fresh, setFresh] = useState(() => newId());
  const stageRecord = record.stages.find((s) => s.key === stage.key);
  const level = stage.levels.find((l) => l.id === which) ?? null;
  const planned = which.startsWith("ahead:") ? which.slice(6) : null;
  const { symbol } = definition.series;
  const kind = seriesKind(definition);
  const amountKey = fieldKey({ symbol, kind });
  // What is typed for the flask in hand, or will be: its color, and what a simulated photometer shows of it.
  const amount =
    planned ?? (level && presentObservation(level.record.observations, symbol, kind)?.value) ?? null;

  const target = useMemo((): CuvetteTarget => {
    if (which === "blank") {
      const observations = stageRecord?.observations ?? [];
      const readings = displayFields(stageFields(definition, record.houseRules));
      return { trialId: null, readings, fields: [], proposals: {}, observations };
    }
    const all = trialFields(definition, record.houseRules);
    const read = level !== null && level.readings.length > 0;
    const there = new Set(level?.fields.filter((f) => f.present).map((f) => fieldKey(f.field)));
    return {
      trialId: level?.id ?? fresh,
      readings: displayFields(all).filter((f) => f.kind !== "absorbance.again" || read),
      fields: all.filter((f) => !f.optional && !there.has(fieldKey(f))),
      proposals: planned === null ? {} : { [amountKey]: planned },
      observations: level?.record.observations ?? [],
    };
  }, [which, stageRecord, definition, record.houseRules, level, fresh, planned, amountKey]);

  const cuvette = useCuvette({
    draftKey: `cuvette:${record.id}:${stage.key}:${which}`,
    target,
    stage: definition,
    person,
    onSaved: () => {
      setFresh(newId());
      onSaved();
    },
  });
  const nm = wavelengthOf(evaluation);
  const usual = usualAbsorbance(definition, amount);
  const simulated = which === "blank" ? clearCuvette : cuvetteOf(absorberNear(nm), nm, usual);
  const photometer = usePhotometer(record.id, nm, simulated, which);

  const { title, prompt } = wordsFor(stage, which, level, planned);
  return (
    <CuvetteSheet
      title={say(title)}
      prompt={say(prompt)}
      tint={which === "blank" ? null : tintOf(definition.color, usual / definition.strongest)}
      target={target}
      cuvette={cuvette}
      person={person}
      onPerson={onPerson}
      photometer={photometer}
    />
  );
}

function wordsFor(
  stage: CalibrationEvaluation,
  which: string,
  level: LevelEvaluation | null,
  planned: string | null,
): { title: Phrase; prompt: Phrase } {
  const title =
    which === "blank"
      ? msg`Blank`
      : level
        ? msg`Flask with ${takenWords(level)}`
        : planned === null
          ? msg`Another flask`
          : msg`Flask with ${seriesWords(stage.definition, planned)}`;
  const prompt =
    which === "blank"
      ? stage.blanks.length === 0
        ? msg`Zero the instrument on the blank, then record what it shows.`
        : msg`Read the blank again to check for drift.`
      : msg`Rinse the cuvette with this solution, fill it, wipe it, the same side to the light.`;
  return { title, prompt };
}

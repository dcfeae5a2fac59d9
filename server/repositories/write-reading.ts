import { eq, max } from "drizzle-orm";
import { checkField, type ComputedStage, fieldKey, stageFields, trialFields } from "../../core/method";
import {
  endOfCorrections,
  isPreselected,
  type Observation,
  type ObservationKind,
  nextTrialNumber,
  presentObservation,
  type StageRecord,
} from "../../core/record";
import { uncapitalized } from "../../core/text";
import type { Connection } from "../database/types";
import { observation, trial } from "../database/schema";
import type { Inverse } from "../database/stored";
import { type Change, done, malformed, missing, type Outcome, refused } from "./change";
import { supersedes } from "./take";

export interface NewReading {
  readonly id: string;
  readonly symbol: string;
  readonly kind: ObservationKind;
  readonly text: string;
  readonly supersedes: string | null;
  readonly reason: string | null;
  readonly source: Observation["source"];
  readonly person: string;
  /** When it was read, where that is not now. */
  readonly at?: Date;
}

export interface NewTrial {
  readonly id: string;
  readonly kind: "rough" | "fine";
  readonly label?: string | undefined;
}

/** A stage of a run as it stands while several changes are written one after the other. */
export interface OpenStage {
  readonly definition: ComputedStage;
  record: StageRecord;
}

/** The stage that a request names, or why there is none. */
export function openStage({ record }: Change, stageKey: string): OpenStage | Outcome {
  const definition = record.method.stages.find((s) => s.key === stageKey);
  const stage = record.stages.find((s) => s.key === stageKey);
  if (!definition || definition.kind === "conclude" || !stage) return missing("This run has no such stage");
  return { definition, record: stage };
}

/** The reading was there already: nothing is written. */
const same: Outcome = done;

export const isOutcome = (x: OpenStage | Outcome | Written): x is Outcome => "status" in x;

/** True where a trial with this id stands in the database at all. */
async function elsewhere(db: Connection, trialId: string): Promise<boolean> {
  return (await db.select({ id: trial.id }).from(trial).where(eq(trial.id, trialId))).length > 0;
}

/** The trial with this id, begun where there is none; or why it cannot be. */
export async function openTrial(
  { db, record }: Change,
  stage: OpenStage,
  sent: NewTrial,
): Promise<Outcome | null> {
  if (stage.record.trials.some((t) => t.id === sent.id)) return null;
  if (stage.definition.kind === "preparation") return malformed("Nothing is titrated in this stage");
  if (record.stages.some((s) => s.trials.some((t) => t.id === sent.id)))
    return missing("This trial belongs to another stage");
  if (await elsewhere(db, sent.id)) return missing("This trial belongs to another run");
  const { id: stageId, trials } = stage.record;
  const [last] = await db
    .select({ position: max(trial.position) })
    .from(trial)
    .where(eq(trial.stageId, stageId));
  const number = sent.kind === "fine" ? nextTrialNumber(trials) : null;
  const label = sent.label?.trim() || null;
  await db.insert(trial).values({
    id: sent.id,
    stageId,
    position: (last?.position ?? 0) + 1,
    number,
    label,
    kind: sent.kind,
  });
  const begun = { id: sent.id, number, label, kind: sent.kind, struck: null, observations: [] };
  stage.record = { ...stage.record, trials: [...trials, begun] };
  return null;
}

export interface Written {
  readonly inverse: Inverse;
  /** What was written, in words. */
  readonly what: string;
}

/** The reading that a new one stands in place of: named by it where a field holds many, else the one that stands. */
function before(
  observations: readonly Observation[],
  reading: NewReading,
  many: boolean,
): Observation | null {
  if (!many) return presentObservation(observations, reading.symbol, reading.kind);
  if (reading.supersedes === null) return null;
  const end = endOfCorrections(observations, reading.supersedes);
  return end?.id === reading.supersedes && end.value !== null ? end : null;
}

/**
 * Checks a reading by the same rules as the browser and appends it; the stage in hand then holds it too. A correction must
 * name what stands now, and say why.
 */
export async function writeReading(
  { db, record, now }: Change,
  stage: OpenStage,
  trialId: string | null,
  reading: NewReading,
): Promise<Written | Outcome> {
  const { definition } = stage;
  const holder = trialId === null ? stage.record : stage.record.trials.find((t) => t.id === trialId);
  const fields = (trialId === null ? stageFields : trialFields)(definition, record.houseRules);
  const field = fields.find((f) => fieldKey(f) === fieldKey(reading));
  if (!field || !holder) return malformed("Nothing of this kind is read here");
  const { observations } = holder;
  const checked = checkField(field, reading.text, {
    stage: definition,
    houseRules: record.houseRules,
    holder: { observations },
  });
  if (!checked.ok) return refused(checked.check.message, checked.check.proposal);
  const present = before(observations, reading, field.many === true);
  if ((present?.id ?? null) !== reading.supersedes) {
    // Two devices that read the same thing the same way agree.
    if (present && reading.supersedes === null && present.text === reading.text.trim()) return same;
    const standing = present && {
      present: { id: present.id, text: present.text, person: present.person, at: present.at },
    };
    const said = refused(
      present
        ? `This was read as ${present.text} meanwhile: look again before you correct it`
        : "What you correct is no longer there: look again",
    );
    return { ...said, ...standing };
  }
  if (present && reading.reason === null && !isPreselected(present))
    return refused("Say why the reading is corrected");
  const written = {
    id: reading.id,
    symbol: reading.symbol,
    kind: reading.kind,
    text: reading.text.trim(),
    value: checked.text,
    unit: field.unit,
    source: reading.source,
    person: reading.person,
    supersedes: reading.supersedes,
    reason: reading.reason,
  };
  const at = reading.at ?? now;
  await db.insert(observation).values({ ...written, stageId: stage.record.id, trialId, at });
  const appended = [...observations, { ...written, at: at.toISOString() }];
  stage.record =
    trialId === null
      ? { ...stage.record, observations: appended }
      : {
          ...stage.record,
          trials: stage.record.trials.map((t) => (t.id === trialId ? { ...t, observations: appended } : t)),
        };
  const label = uncapitalized(field.label);
  return {
    inverse: supersedes(reading.id, present),
    what: present ? `correction of ${label} to ${checked.text}` : `${label} ${checked.text}`,
  };
}

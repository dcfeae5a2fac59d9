import { methodOf, type RunRecord } from "../../core/run";
import type { Inverse, ChangeDetail } from "../../core/change";
import { type Observation, trialWords } from "../../core/record";
import { stageFields, trialFields, fieldKey } from "../../core/method";
import { uncapitalized, sourceWords } from "../../core/text";
import type { TrailLine } from "../../formats/trail";
import type { Connection } from "../database/types";
import { runEvent } from "../database/schema";
import { eq, desc } from "drizzle-orm";

/** The reading that a change wrote, as its inverse names it. */
function written(inverse: Inverse): string | null {
  if (inverse.do === "supersede") return inverse.observationId;
  if (inverse.do !== "several") return null;
  return inverse.of.map(written).find((id) => id !== null) ?? null;
}

interface Found {
  readonly reading: Observation;
  /** "Titrate the acid, trial 2". */
  readonly where: string;
  /** What is read, in words. */
  readonly label: string | undefined;
}

/** All readings of a run by id, with where they stand. */
function readingsOf(record: RunRecord): Map<string, Found> {
  const found = new Map<string, Found>();
  for (const stage of record.stages) {
    const definition = methodOf(record).stages.find((s) => s.key === stage.key);
    if (!definition) continue;
    const labels = new Map(
      [...stageFields(definition, record.houseRules), ...trialFields(definition, record.houseRules)].map(
        (field) => [fieldKey(field), uncapitalized(field.label)] as const,
      ),
    );
    const put = (observations: readonly Observation[], where: string) =>
      observations.forEach((reading) =>
        found.set(reading.id, { reading, where, label: labels.get(fieldKey(reading)) }),
      );
    put(stage.observations, definition.title);
    for (const trial of stage.trials) put(trial.observations, `${definition.title}, ${trialWords(trial)}`);
  }
  return found;
}

/** What, from what, to what and why, of a change that wrote one reading. */
function ofReading(
  id: string | null,
  all: ReadonlyMap<string, Found>,
): Partial<ChangeDetail & Omit<TrailLine, "id">> {
  const found = id === null ? undefined : all.get(id);
  if (!found) return {};
  const { reading, where, label } = found;
  const before = reading.supersedes === null ? undefined : all.get(reading.supersedes)?.reading;
  const corrects = before !== undefined && before.text !== "";
  const shown = ({ text, unit }: Observation) => `${text} ${unit}`.trim();
  return {
    where,
    ...(label ? { what: `${corrects ? "correction of " : ""}${label}${sourceWords[reading.source]}` } : {}),
    ...(corrects ? { from: shown(before) } : {}),
    ...(reading.text === "" ? {} : { to: shown(reading) }),
    ...(reading.reason === null ? {} : { why: reading.reason }),
    person: reading.person,
    at: reading.at,
  };
}

/**
 * All that was ever done in a run, the newest first: who, when, what, from what to what, and why. A reading that waited for
 * the server stands at the time when it was read.
 */
export async function trailOf(db: Connection, record: RunRecord): Promise<TrailLine[]> {
  const events = await db
    .select()
    .from(runEvent)
    .where(eq(runEvent.runId, record.id))
    .orderBy(desc(runEvent.seq));
  const all = readingsOf(record);
  return events.map((event) => {
    // A fading is told by itself: its mark is only a part of it.
    const reading = event.detail ? {} : ofReading(written(event.inverse), all);
    const { from, to, why } = { ...reading, ...event.detail };
    return {
      id: event.id,
      at: reading.at ?? event.at.toISOString(),
      received: event.at.toISOString(),
      person: reading.person ?? event.person,
      what: reading.what ?? event.description,
      where: reading.where ?? null,
      from: from || null,
      to: to || null,
      why: why || null,
      undone: event.undone
        ? { at: event.undoneAt?.toISOString() ?? null, person: event.undoneBy ?? "" }
        : null,
    };
  });
}

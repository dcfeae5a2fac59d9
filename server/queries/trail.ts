import { withUnit } from "../../core/quantity";
import { methodOf, type RunRecord } from "../../core/run";
import type { Inverse, ChangeDetail } from "../../core/change";
import { type Observation, trialWords } from "../../core/record";
import { stageFields, trialFields, fieldKey } from "../../core/method";
import { counted, inEnglish, joined, msg, type Phrase, sourceWords, uncapitalized } from "../../core/text";
import type { TrailLine } from "../../formats/trail";
import type { DatabaseConnection } from "../database/types";
import { runEvent } from "../database/schema";
import { eq, desc } from "drizzle-orm";

/** The readings that a change wrote, as its inverse names them. */
function written(inverse: Inverse): string[] {
  if (inverse.do === "supersede") return [inverse.observationId];
  return inverse.do === "several" ? inverse.of.flatMap(written) : [];
}

interface Found {
  readonly reading: Observation;
  /** "Titrate the acid, trial 2". */
  readonly where: Phrase;
  /** What is read, in words. */
  readonly label: Phrase | undefined;
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
    const put = (observations: readonly Observation[], where: Phrase) =>
      observations.forEach((reading) =>
        found.set(reading.id, { reading, where, label: labels.get(fieldKey(reading)) }),
      );
    put(stage.observations, definition.title);
    for (const trial of stage.trials) put(trial.observations, msg`${definition.title}, ${trialWords(trial)}`);
  }
  return found;
}

const shown = ({ text, unit }: Observation) => withUnit(text, unit);

type OfReadings = Partial<ChangeDetail & Omit<TrailLine, "id">>;

/** What, from what, to what and why, of a change that wrote one reading. */
function ofReading({ reading, where, label }: Found, all: ReadonlyMap<string, Found>): OfReadings {
  const before = reading.supersedes === null ? undefined : all.get(reading.supersedes)?.reading;
  const corrects = before !== undefined && before.text !== "";
  return {
    where,
    ...(label
      ? {
          what: corrects
            ? msg`${label} corrected${sourceWords[reading.source]}`
            : msg`${label}${sourceWords[reading.source]}`,
        }
      : {}),
    ...(corrects ? { from: shown(before) } : {}),
    ...(reading.text === "" ? {} : { to: shown(reading) }),
    ...(reading.reason === null ? {} : { why: reading.reason }),
    person: reading.person,
    at: reading.at,
  };
}

/** So many readings of one change are told one by one. */
const mostListed = 12;

/** The same of a change that wrote many: all of them, in the order in which they were written, at the time of the first. */
function ofMany(found: readonly Found[]): OfReadings {
  const readings = found.map(({ reading }) => reading);
  const people = [...new Set(readings.map(({ person }) => person))];
  const places = [...new Map(found.map(({ where }) => [inEnglish(where), where] as const)).values()];
  const more = readings.length - mostListed;
  const listed = joined(readings.slice(0, mostListed).map(shown), ", ");
  return {
    where:
      places.length === 1 ? places[0]! : msg`${places[0] ?? ""} and ${counted(places.length - 1, "other")}`,
    to: more > 0 ? msg`${listed} and ${more} more` : listed,
    person: people.join(", "),
    at: readings.map(({ at }) => at).reduce((a, b) => (a < b ? a : b)),
  };
}

/** What is told of the readings that a change wrote; nothing where it wrote none. */
function ofReadings(ids: readonly string[], all: ReadonlyMap<string, Found>): OfReadings {
  const found = ids.flatMap((id) => all.get(id) ?? []);
  // What was taken back beside them is told by them.
  const read = found.filter(({ reading }) => reading.text !== "");
  if (read.length > 1) return ofMany(read.toReversed());
  const [one] = read.length === 1 ? read : found;
  return one ? ofReading(one, all) : {};
}

/**
 * All that was ever done in a run, the newest first: who, when, what, from what to what, and why. A reading that waited for
 * the server stands at the time when it was read.
 */
export async function trailOf(db: DatabaseConnection, record: RunRecord): Promise<TrailLine[]> {
  const events = await db
    .select()
    .from(runEvent)
    .where(eq(runEvent.runId, record.id))
    .orderBy(desc(runEvent.seq));
  const all = readingsOf(record);
  return events.map((event) => {
    // A fading is told by itself: its mark is only a part of it.
    const reading = event.detail ? {} : ofReadings(written(event.inverse), all);
    const { from, to, why } = { ...reading, ...event.detail };
    return {
      id: event.id,
      at: reading.at ?? event.at.toISOString(),
      received: event.at.toISOString(),
      person: reading.person ?? event.person,
      what: reading.what ?? event.phrase ?? event.description,
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

import type { Check } from "../measure";
import { clockText, durationText, punctuality } from "../timing";
import type { Field } from "../inputs";
import type { Condition, TitrationStage } from "./schema";
import { isOfFlask } from "./method";
import { endOfCorrections, fieldHistory, type Observation, type TimerRecord } from "../record";
import type { HouseRules } from "../rules";
import { uncapitalized, msg, type Phrase } from "../text";

const caution = (message: Phrase, kind: NonNullable<Check["kind"]>): Check => ({
  severity: "caution",
  message,
  kind,
});

/** A place on the burette where the end may have been; it counts for nothing until it is chosen. */
export interface MaybeMark {
  readonly id: string;
  readonly text: string;
  /** Why it is no end: "faded after 12 s"; null where it was only marked. */
  readonly reason: string | null;
  readonly at: string;
  readonly person: string;
}

/** Marks of a trial in the order in which they were made; those taken back are gone. */
export function maybeMarks(observations: readonly Observation[], symbol: string): MaybeMark[] {
  return fieldHistory(observations, symbol, "burette.maybe").flatMap((mark) => {
    if (mark.supersedes !== null) return [];
    const last = endOfCorrections(observations, mark.id);
    if (!last || last.value === null) return [];
    return [{ id: last.id, text: last.text, reason: mark.reason, at: mark.at, person: mark.person }];
  });
}

/** How long the color of an end must stay where the method does not say, s. Common practice, no source. */
const usualPersistence = 30;

/** How long one watches whether the color of an end stays, s; null where that is not watched: no color, or a rough trial. */
export const persistenceOf = (
  { ribbon, persistSeconds }: Pick<TitrationStage, "ribbon" | "persistSeconds">,
  kind: "rough" | "fine",
): number | null => (kind === "rough" || ribbon.length === 0 ? null : (persistSeconds ?? usualPersistence));

/** Longer than this and it is no work at the bench, min. */
const longestWait = 60;

/** Conditions of a stage that a timer can be set for. */
export const timedConditions = (conditions: readonly Condition[]): Condition[] =>
  conditions.filter((c) => c.minutes !== undefined && c.minutes < longestWait);

/** Something that one waits for, with its time. */
export type Wait = Required<Pick<Condition, "what" | "minutes" | "counts" | "strict">>;

/** What one waits for at a stage: what its method asks for, then what there is at any burette. Common practice, no source. */
export const usualWaits = (conditions: readonly Condition[]): Wait[] => [
  ...timedConditions(conditions).map(({ what, minutes = 1, counts = "for", strict = false }) => ({
    what,
    minutes,
    counts,
    strict,
  })),
  { what: "let the burette wall drain", minutes: 1, counts: "for", strict: false },
  { what: "let it settle", minutes: 2, counts: "for", strict: false },
];

/**
 * A temperature outside what the method keeps to, with what to do while it can still be done; nothing for one within, or where the
 * method names none.
 */
export function temperatureChecks(
  { conditions = [] }: Pick<TitrationStage, "conditions">,
  celsius: number,
  done = false,
): Check[] {
  const asked = conditions.find(isOfFlask);
  const [low, high] = asked?.celsius ?? [-Infinity, Infinity];
  if (celsius >= low && celsius <= high) return [];
  const off = msg`${celsius} °C is ${celsius < low ? msg`below` : msg`above`} the ${low} to ${high} °C of this method`;
  const advice = celsius < low ? msg`warm it before you go on` : msg`let it cool before you go on`;
  return [caution(done ? off : msg`${off}: ${advice}`, "temperature")];
}

/** The house starts every titration at the zero mark, and this one did not. */
export function startChecks(rules: HouseRules, initial: string): Check[] {
  if (rules.burette.start !== "zero" || Number(initial) === 0) return [];
  const proposal = (0).toFixed(initial.split(".")[1]?.length ?? 0);
  return [{ ...caution(msg`This lab starts at zero: was it ${initial}?`, "start"), proposal }];
}

/** Two readings of one meniscus, the second typed without sight of the first, that differ by more than the house allows. */
export function secondReadingChecks(rules: HouseRules, first: string, second: string): Check[] {
  const allowed = Number(rules.burette.readTwiceWithinMl);
  if (Math.abs(Number(first) - Number(second)) <= allowed + 1e-9) return [];
  return [
    {
      ...caution(
        msg`Read as ${first} first and as ${second} now: more than ${rules.burette.readTwiceWithinMl} mL apart. Which one is it?`,
        "repeat",
      ),
      proposal: first,
    },
  ];
}

/** What an ended timer says of its flask: how long it took, and whether that was early or late. */
export function timerWords(timer: TimerRecord): Phrase | null {
  const came = punctuality(timer);
  if (!came || timer.outcome === "dropped") return null;
  const took = (timer.seconds + (came.how === "early" ? -1 : 1) * came.bySeconds) / 60;
  const what = msg`${uncapitalized(timer.what)}: ${took < 1 ? msg`under a minute` : msg`${Math.round(took * 10) / 10} min`}`;
  return came.how === "on time"
    ? msg`${what}, on time`
    : msg`${what}, ${clockText(came.bySeconds)} ${came.how === "early" ? msg`less` : msg`more`} than ${durationText(timer.seconds)}`;
}

/** Symbol of a titration's own burette, that of the titrant; what a sample is delivered from is another. */
export const titerOf = ({ inputs }: Pick<TitrationStage, "inputs">): string =>
  inputs.find((input) => input.is === "titer")?.symbol ?? "";

/** A trial by its fields, with what stands in each. */
interface ReadTrial {
  readonly id: string;
  readonly fields: readonly {
    readonly field: Pick<Field, "symbol" | "kind">;
    readonly present: Observation | null;
    /** All readings that stand, of what is read many times. */
    readonly readings?: readonly Observation[];
  }[];
}

/** What about the way a trial was done should be known with its result. */
export function practiceCautions(
  { id, fields }: ReadTrial,
  stage: TitrationStage,
  timers: readonly TimerRecord[],
  rules: HouseRules,
): Check[] {
  const titer = titerOf(stage);
  const read = (kind: Observation["kind"]) =>
    fields.find(({ field }) => field.kind === kind && field.symbol === titer)?.present?.text ?? null;
  const [initial, final] = [read("burette.initial"), read("burette.final")];
  const [initialAgain, finalAgain] = [read("burette.initial.again"), read("burette.final.again")];
  const temperatures = fields
    .find(({ field }) => field.kind === "temperature.flask" && field.symbol === titer)
    ?.readings?.map(({ text }) => text);
  const [addedMl, worth] = [read("back.volume"), read("back.worth")];
  const twice = (name: Phrase, first: string | null, second: string | null): Check[] =>
    first !== null && second !== null && secondReadingChecks(rules, first, second).length > 0
      ? [caution(msg`${name} reading typed as ${first} and as ${second}`, "repeat")]
      : [];
  const strict = timers.flatMap((timer) => {
    const came = timer.trialId === id && timer.strict ? punctuality(timer) : null;
    if (!came || came.how === "on time" || timer.outcome === "dropped") return [];
    return [caution(timerWords(timer) ?? "", "time")];
  });
  return [
    ...twice("initial", initial, initialAgain),
    ...twice("final", final, finalAgain),
    ...(initial !== null && startChecks(rules, initial).length > 0
      ? [caution(msg`started at ${initial}, not at zero`, "start")]
      : []),
    ...(temperatures ?? []).flatMap((celsius) => temperatureChecks(stage, Number(celsius), true)),
    ...(addedMl !== null && worth !== null
      ? [caution(msg`overshot: ${addedMl} mL added back, worth ${worth} mL of titrant each`, "back")]
      : []),
    ...strict,
  ];
}

/**
 * Which step of the color ribbon one should see now: the first one while the titrant runs freely, those before the end
 * as it draws near, the end where it should be, and what follows when that is passed by half a milliliter. Null where it is
 * not known where the end comes. All in mL.
 */
export function ribbonNow(
  ribbon: TitrationStage["ribbon"],
  place: { readonly now: number | null; readonly slowAt: number | null; readonly endNear: number | null },
): number | null {
  const { now, slowAt, endNear } = place;
  const end = ribbon.findIndex((step) => step.end);
  if (now === null || endNear === null || end < 0) return null;
  if (now > endNear + 0.5) return Math.min(end + 1, ribbon.length - 1);
  if (now >= endNear - 0.1) return end;
  const slow = slowAt ?? endNear - 1;
  if (now < slow || end === 0) return 0;
  const part = (now - slow) / Math.max(0.1, endNear - 0.1 - slow);
  return Math.min(end - 1, Math.max(end > 1 ? 1 : 0, Math.ceil(part * (end - 1))));
}

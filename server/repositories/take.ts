import { and, eq } from "drizzle-orm";
import { v7 as newId } from "uuid";
import type { InputOf } from "../../core/inputs";
import {
  isPreselected,
  type Observation,
  type ObservationKind,
  presentObservation,
  spreadKinds,
  type StageRecord,
} from "../../core/record";
import { uncapitalized } from "../../core/text";
import type { RunRequest } from "../../protocol/requests";
import { assignment, observation, solution } from "../database/schema";
import type { Inverse } from "../database/stored";
import type { Connection } from "../database/types";
import { type Change, done, malformed, missing, type Outcome, refused, remember } from "./change";
import { solutionCode } from "./shelf";

interface Written {
  readonly symbol: string;
  readonly kind: ObservationKind;
  /** Null takes back what is there. */
  readonly value: string | null;
  readonly unit: string;
  readonly assignmentId: string | null;
  readonly reason: string | null;
}

/** Where something is written: a stage, or one of its trials, with what stands there. */
interface Holder {
  readonly stageId: string;
  readonly trialId: string | null;
  readonly observations: readonly Observation[];
}

/** Appends what was not typed, over what holds now; says how to take that back. Nothing to do: null. */
async function write(
  { db, person, now }: Change,
  { stageId, trialId, observations }: Holder,
  { symbol, kind, value, unit, assignmentId, reason }: Written,
): Promise<Inverse | null> {
  const present = presentObservation(observations, symbol, kind);
  if (value === null && !present) return null;
  const id = newId();
  await db.insert(observation).values({
    id,
    stageId,
    trialId,
    symbol,
    kind,
    text: value ?? "",
    value,
    unit: present && value === null ? present.unit : unit,
    source: "imported",
    person,
    at: now,
    supersedes: present?.id ?? null,
    reason: present ? (reason ?? "taken back") : reason,
    assignmentId,
  });
  return supersedes(id, present);
}

/** What takes back an observation: what it stands in place of, bottle and all. */
export const supersedes = (observationId: string, before: Observation | null): Inverse => ({
  do: "supersede",
  observationId,
  by: before?.text ?? null,
  assignment: before?.assignment ?? null,
});

/** A concentration that was given to a bottle, with the bottle; undefined where it is gone. */
export async function bottleById(db: Connection, assignmentId: string) {
  const [found] = await db
    .select({ a: assignment, s: solution })
    .from(assignment)
    .innerJoin(solution, eq(solution.id, assignment.solutionId))
    .where(and(eq(assignment.id, assignmentId)));
  return found;
}

/**
 * Writes a bottle's concentration or purity into a stage, its ± with it; where that was a standard uncertainty, no typed ± may
 * stay beside it. Says how to take it back.
 */
export async function writeTaken(
  change: Change,
  stage: StageRecord,
  input: InputOf<"given" | "purity">,
  a: typeof assignment.$inferSelect,
  reason: string | null,
): Promise<Inverse[]> {
  const normal = a.shape === "normal";
  const half = a.shape === "rectangular" ? a.plusMinus : null;
  // A purity is read with a half width only: that of a rectangle with the same standard uncertainty.
  const purityHalf = normal ? String(Number((Number(a.plusMinus) * Math.sqrt(3)).toPrecision(4))) : half;
  const parts: readonly (readonly [ObservationKind, string | null])[] =
    input.is === "purity"
      ? [
          ["purity", a.value],
          ["purity.plus-minus", purityHalf],
        ]
      : [
          ["given", a.value],
          ["given.plus-minus", half],
          ["given.standard-uncertainty", normal ? a.plusMinus : null],
        ];
  const unit = input.is === "purity" ? "%" : input.unit;
  const inverses: Inverse[] = [];
  for (const [kind, value] of parts) {
    const assignmentId = value === null ? null : a.id;
    const holder = { stageId: stage.id, trialId: null, observations: stage.observations };
    const inverse = await write(change, holder, {
      symbol: input.symbol,
      ...{ kind, value, unit, assignmentId, reason },
    });
    if (inverse) inverses.unshift(inverse);
  }
  return inverses;
}

/** A concentration from a bottle. What was only preselected gives way without a reason. */
export async function take(
  change: Change,
  request: Extract<RunRequest, { intent: "take" }>,
): Promise<Outcome> {
  const { db, record } = change;
  const { stageKey, symbol, assignmentId, reason } = request;
  const definition = record.method.stages.find((s) => s.key === stageKey);
  const stage = record.stages.find((s) => s.key === stageKey);
  if (!definition || definition.kind === "conclude" || !stage) return missing("This run has no such stage");
  const input = definition.inputs.find((i) => i.symbol === symbol);
  if (!input || (input.is !== "given" && input.is !== "purity") || input.of === undefined)
    return malformed("Nothing from the shelf is used here");
  const found = await bottleById(db, assignmentId);
  if (!found) return refused("This bottle is no longer on the shelf: look again");
  const { a, s } = found;
  const unit = input.is === "purity" ? "%" : input.unit;
  if (s.formula !== input.of) return refused(`${s.name} is not what this stage needs`);
  if (a.unit !== unit) return refused(`Its ${a.unit} cannot be used where ${unit} is needed`);
  if (s.usedUpAt) return refused(`${solutionCode(s.number)} is used up`);
  const main = input.is === "purity" ? "purity" : "given";
  const standing = presentObservation(stage.observations, symbol, main);
  if (standing && !isPreselected(standing) && reason === null) return refused("Say why another one is taken");
  const inverses = await writeTaken(change, stage, input, a, reason);
  await remember(change, `taking of ${uncapitalized(input.label)} from ${solutionCode(s.number)}`, {
    do: "several",
    of: inverses,
  });
  return done;
}

/** Takes back the ± that stood beside a value that is now typed: it was that value's. Says how to undo that. */
export async function takeBackPartners(
  change: Change,
  holder: Holder,
  { symbol, kind }: { readonly symbol: string; readonly kind: ObservationKind },
): Promise<Inverse[]> {
  const inverses: Inverse[] = [];
  for (const partner of spreadKinds[kind] ?? []) {
    if (!presentObservation(holder.observations, symbol, partner)) continue;
    const back = { symbol, kind: partner, value: null, unit: "", assignmentId: null };
    const inverse = await write(change, holder, { ...back, reason: "another value was typed" });
    if (inverse) inverses.push(inverse);
  }
  return inverses;
}

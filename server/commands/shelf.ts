import "~/core/stages/engines";
import { withPoint } from "../../core/text";
import { RolledBack } from "../database/rolled-back";
import { solutionCode } from "../queries/solution-code";
import type {
  How,
  FormProblems,
  AddSolution,
  MakeSolution,
  SolutionView,
  AssignmentView,
  EditSolution,
} from "../../protocol/shelf";
import type { DatabaseConnection, Transacting, Database } from "../database/types";
import { recorded } from "../journal/recorded";
import { newId } from "../journal/under-way";
import { assignment, assignmentSource, solution } from "../database/schema";
import { isDay } from "../../core/timing";
import { parseFormula } from "../../core/chemistry";
import { currentHouseRules } from "../queries/house-rules";
import { solutionById, type SolutionRow } from "../queries/shelf";
import { typedRecord, makingMethod, makingKey } from "../../core/prepare";
import { evaluateRun } from "../../core/evaluate";
import { resultQuantity } from "../../core/stages";
import { inUnit, standardUncertainty } from "../../core/quantity";
import { eq, sql } from "drizzle-orm";
import type { ChangeDetail } from "../../core/change";
import { rememberDeed } from "./lab";
import { msg, type Phrase } from "~/core/text";

export interface NewAssignment {
  readonly solutionId: string;
  readonly at: Date;
  readonly person: string;
  readonly how: How;
  readonly value: string;
  readonly plusMinus: string;
  readonly shape: "rectangular" | "normal";
  readonly unit: string;
  readonly runId?: string;
  readonly stageKey?: string;
  /** Assignments that it stands on. */
  readonly sources: readonly string[];
}

/** The number on the label of the next bottle. */
export const nextNumber = sql<number>`(select coalesce(max(${solution.number}), 0) + 1 from ${solution})`;

/** Gives a bottle a concentration, or a purity; earlier ones stay as they are. Returns its id. */
export async function assign(db: DatabaseConnection, { sources, ...parts }: NewAssignment): Promise<string> {
  const id = newId(parts.at);
  await db.insert(assignment).values({ id, ...parts });
  const distinct = [...new Set(sources)];
  if (distinct.length > 0)
    await db.insert(assignmentSource).values(distinct.map((sourceId) => ({ assignmentId: id, sourceId })));
  return id;
}

/** A value as the shelf keeps it: two digits more than its ± needs, so that nothing is rounded twice. */
export function keptDecimals(value: number, u: number): { value: string; plusMinus: string } {
  const decimals = Math.min(12, Math.max(0, 3 - Math.floor(Math.log10(u > 0 ? u : value * 1e-6))));
  return { value: value.toFixed(decimals), plusMinus: u.toFixed(decimals) };
}

const decimal = (text: string): string | null => {
  const plain = withPoint(text);
  return /^\d+(\.\d+)?$/.test(plain) ? plain : null;
};

interface BottleDetails {
  readonly amount: string;
  readonly restandardizeBy: string;
}

function keepingProblems({ amount, restandardizeBy }: BottleDetails): Record<string, Phrase> {
  const problems: Record<string, Phrase> = {};
  if (amount.trim() !== "" && decimal(amount) === null)
    problems.amount = msg`Give the amount as a number, such as 500`;
  if (restandardizeBy !== "" && !isDay(restandardizeBy)) problems.restandardizeBy = msg`There is no such day`;
  return problems;
}

export type PutResult = { readonly id: string } | { readonly problems: FormProblems };

/** Puts a bottle on the shelf whose concentration is stated: by a certificate, or nominally. */
export async function addSolution(
  db: Transacting,
  request: AddSolution,
  now = new Date(),
): Promise<PutResult> {
  const problems: Record<string, Phrase> = keepingProblems(request);
  const formula = parseFormula(request.formula.trim());
  if (!formula.ok) problems.formula = formula.problem.message;
  const value = decimal(request.value);
  const plusMinus = request.plusMinus.trim() === "" ? "0" : decimal(request.plusMinus);
  if (value === null || Number(value) <= 0) problems.value = msg`Give a number above zero`;
  else if (request.form === "solid" && Number(value) > 100)
    problems.value = msg`The purity is over 100 %: no solid holds more than all of itself`;
  if (plusMinus === null) problems.plusMinus = msg`Give the ± as a number`;
  if (Object.keys(problems).length > 0 || value === null || plusMinus === null) return { problems };
  return recorded(db, "bottle", request, now, async (tx) => {
    const id = newId(now);
    await tx.insert(solution).values({ id, ...kept(request, now), form: request.form });
    await assign(tx, {
      solutionId: id,
      at: now,
      person: request.person.trim(),
      how: request.how,
      value,
      plusMinus,
      shape: "rectangular",
      unit: request.form === "solid" ? "%" : "mol/L",
      sources: [],
    });
    await rememberBottle(
      tx,
      id,
      request.person,
      "put on the shelf",
      {
        to: `${value} ${request.form === "solid" ? "%" : "mol/L"}`,
        ...(request.note.trim() === "" ? {} : { why: request.note.trim() }),
      },
      now,
    );
    return { id };
  });
}

function kept(
  request: Pick<
    AddSolution,
    "formula" | "name" | "person" | "amount" | "restandardizeBy" | "hazards" | "note"
  > & {
    form?: "solution" | "solid";
  },
  now: Date,
) {
  const amount = decimal(request.amount);
  return {
    form: "solution" as const,
    number: nextNumber,
    formula: request.formula.trim(),
    name: request.name.trim(),
    madeAt: now,
    madeBy: request.person.trim(),
    amountMade: amount,
    amountLeft: amount,
    amountUnit: request.form === "solid" ? ("g" as const) : ("mL" as const),
    restandardizeBy: request.restandardizeBy || null,
    hazards: request.hazards.trim(),
    note: request.note.trim(),
  };
}

/** Puts several bottles on the shelf, all or none. Returns the last, or what is wrong with the first that does not pass. */
export async function putAll(
  db: Database,
  requests: readonly (AddSolution | MakeSolution)[],
  now = new Date(),
): Promise<PutResult> {
  try {
    return await recorded(db, "bottles", requests, now, async (tx) => {
      let last: PutResult = { problems: { form: msg`Nothing was asked for` } };
      for (const request of requests) {
        last =
          request.intent === "add"
            ? await addSolution(tx, request, now)
            : await makeSolution(tx, request, now);
        if ("problems" in last) throw new RolledBack(last.problems);
      }
      return last;
    });
  } catch (error) {
    if (error instanceof RolledBack) return { problems: error.problem as FormProblems };
    throw error;
  }
}

/** What is wrong with what was typed of a solution that is made, by field. */
function makingProblems(request: MakeSolution): Record<string, Phrase> {
  const { making, formula } = request;
  const problems: Record<string, Phrase> = keepingProblems(request);
  const written = parseFormula(formula.trim());
  if (!written.ok) problems.formula = written.problem.message;
  if (!(Number(making.flaskMl) > 0)) problems.volume = msg`Give the volume that it is made up to`;
  if (making.how !== "weighed") return problems;
  const solid = parseFormula(making.solid.trim());
  if (!solid.ok) problems.solid = solid.problem.message;
  if (!(Number(making.purity.percent) > 0)) problems.purity = msg`Give a purity above zero`;
  if (Number(making.purity.percent) > 100)
    problems.purity = msg`The purity is over 100 %: no solid holds more than all of itself`;
  return problems;
}

/** Makes a solution from what was weighed or taken, computes what that gave, and puts it on the shelf. */
export const makeSolution = (db: Transacting, request: MakeSolution, now = new Date()): Promise<PutResult> =>
  recorded(db, "bottle", request, now, (tx) => making(tx, request, now));

async function making(tx: DatabaseConnection, request: MakeSolution, now: Date): Promise<PutResult> {
  const { making: made, formula, name } = request;
  const problems = makingProblems(request);
  if (Object.keys(problems).length > 0) return { problems };
  const houseRules = (await currentHouseRules(tx)).data;
  const source = request.fromId === null ? null : await solutionById(tx, request.fromId, now);
  if (request.fromId !== null && !source?.solution.current)
    return { problems: { fromId: msg`This bottle has no concentration yet` } };
  const current = source?.solution.current ?? null;
  const person = request.person.trim();
  const { record, problems: wrong } = typedRecord(
    makingMethod(formula.trim(), name.trim(), made),
    { ...request.typed, ...(made.how === "diluted" && current ? stockTexts(current) : {}) },
    { houseRules, at: now.toISOString(), person },
  );
  if (Object.keys(wrong).length > 0) return { problems: wrong };
  const stage = evaluateRun(record).stages.find((s) => s.key === makingKey);
  const q = stage?.kind === "preparation" ? resultQuantity(stage) : null;
  if (stage?.kind !== "preparation" || !q)
    return { problems: { form: stageProblem(stage?.kind === "preparation" ? stage : null) } };
  const used = made.how === "weighed" ? stage.symbols.get("m") : stage.symbols.get("V_0");
  if (made.how === "diluted" && used && inUnit(used, "mL") > Number(made.flaskMl))
    return { problems: { volume: msg`That is more stock than the flask holds` } };
  const id = newId(now);
  if (source && used) await drawFrom(tx, source.solution, inUnit(used, source.solution.amountUnit));
  await tx.insert(solution).values({ id, ...kept(request, now), making: record });
  await assign(tx, {
    solutionId: id,
    at: now,
    person,
    how: made.how,
    ...keptDecimals(inUnit(q, "mol/L"), standardUncertainty(q)),
    shape: "normal",
    unit: "mol/L",
    sources: current ? [current.id] : [],
  });
  await rememberBottle(
    tx,
    id,
    person,
    "made and put on the shelf",
    {
      to: `${keptDecimals(inUnit(q, "mol/L"), standardUncertainty(q)).value} mol/L`,
      ...(request.note.trim() === "" ? {} : { why: request.note.trim() }),
    },
    now,
  );
  return { id };
}

/** What was taken from a bottle is no longer in it. */
async function drawFrom(
  db: DatabaseConnection,
  { id, amountLeft, revision }: SolutionView,
  taken: number,
): Promise<void> {
  if (amountLeft === null) return;
  const left = Math.max(0, Number(amountLeft) - taken);
  await db
    .update(solution)
    .set({ amountLeft: String(Number(left.toFixed(4))), revision: revision + 1 })
    .where(eq(solution.id, id));
}

const stageProblem = (stage: { problem: Phrase | null; missing: { label: Phrase } | null } | null): Phrase =>
  stage?.problem ??
  (stage?.missing ? msg`Still to be read: ${stage.missing.label}` : msg`Something is still to be read`);

/** What is written of a stock's concentration, by field key. */
export const stockTexts = ({ value, plusMinus, shape }: AssignmentView): Record<string, string> => ({
  "c_0:given": value,
  [shape === "normal" ? "c_0:given.standard-uncertainty" : "c_0:given.plus-minus"]: plusMinus,
});

/** Changes what is told of a bottle. Of two people who edit it at once, the second is told, and nothing is overwritten. */
export async function editSolution(
  db: Database,
  id: string,
  request: EditSolution,
  now = new Date(),
  from: string | null = null,
): Promise<PutResult | { readonly missing: true }> {
  const problems = keepingProblems({ amount: request.amountLeft, restandardizeBy: request.restandardizeBy });
  if (problems.amount) {
    problems.amountLeft = problems.amount;
    delete problems.amount;
  }
  const amountLeft = decimal(request.amountLeft);
  return recorded(db, "edit-bottle", { id, request, from }, now, async (tx) => {
    const [row] = await tx.select().from(solution).where(eq(solution.id, id));
    if (!row) return { missing: true as const };
    if (row.amountMade !== null && amountLeft !== null && Number(amountLeft) > Number(row.amountMade))
      problems.amountLeft = msg`There were ${Number(row.amountMade)} ${row.amountUnit} of it: there cannot be more left`;
    if (Object.keys(problems).length > 0) return { problems };
    if (row.revision !== request.revision)
      return {
        problems: {
          form: msg`Someone else has changed this bottle since you opened it. What you typed still stands here: compare it with what is saved, and save again`,
        },
      };
    await tx
      .update(solution)
      .set({
        name: request.name.trim(),
        amountLeft,
        restandardizeBy: request.restandardizeBy || null,
        hazards: request.hazards.trim(),
        note: request.note.trim(),
        usedUpAt: request.usedUp ? (row.usedUpAt ?? now) : null,
        revision: row.revision + 1,
      })
      .where(eq(solution.id, id));
    const changes = bottleChanges(row, { ...request, amountLeft });
    await rememberBottle(
      tx,
      id,
      request.person,
      "bottle changed",
      {
        from: changes.map(([name, before]) => `${name}: ${before || "none"}`).join("; "),
        to: changes.map(([name, , after]) => `${name}: ${after || "none"}`).join("; "),
        why: request.reason.trim(),
      },
      now,
      from,
    );
    return { id };
  });
}

/** What of a bottle becomes another by an edit: its name, and both texts. */
function bottleChanges(
  row: SolutionRow,
  now: Pick<EditSolution, "name" | "restandardizeBy" | "hazards" | "note" | "usedUp"> & {
    amountLeft: string | null;
  },
): (readonly [name: string, before: string, after: string])[] {
  const number = (text: string | null) => (text === null ? "" : `${Number(text)} ${row.amountUnit}`);
  const all = [
    ["name", row.name, now.name.trim()],
    ["left", number(row.amountLeft), number(now.amountLeft)],
    ["standardize by", row.restandardizeBy ?? "", now.restandardizeBy],
    ["hazards", row.hazards, now.hazards.trim()],
    ["note", row.note, now.note.trim()],
    ["state", row.usedUpAt ? "used up" : "in use", now.usedUp ? "used up" : "in use"],
  ] as const;
  return all.filter(([, before, after]) => before !== after);
}

/** Writes a line about a bottle into the lab's trail. */
export async function rememberBottle(
  db: DatabaseConnection,
  id: string,
  person: string,
  description: string,
  detail: ChangeDetail,
  now: Date,
  from: string | null = null,
): Promise<void> {
  const [bottle] = await db
    .select({ number: solution.number, name: solution.name })
    .from(solution)
    .where(eq(solution.id, id));
  const subject = bottle ? `${solutionCode(bottle.number)} ${bottle.name}` : "";
  await rememberDeed(
    db,
    { about: "bottle", subjectId: id, subject, person: person.trim(), description, detail, from },
    now,
  );
}

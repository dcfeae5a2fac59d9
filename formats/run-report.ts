import "~/core/stages/engines";
import { plusMinus } from "~/core/judgement";
import { type Quantity, standardUncertainty, unitOf } from "~/core/quantity";
import { checkRecord, evaluateRun } from "~/core/evaluate";
import {
  type ComputedEvaluation,
  footingWords,
  implausibleWords,
  isOnce,
  membersOf,
  plusMinusWords,
  resultQuantity,
  type Shown,
} from "~/core/stages";
import { inEnglish, msg, type Phrase } from "~/core/text";
import type { RunRecord } from "~/core/run";
import { recordProblemWords } from "~/words/record-problems";
import { workingOf } from "~/core/working";
import { conclusionProblem, recordOfFile, type RunFile } from "./concluded";
import { recordShapeProblems } from "./run-record";
import type { PathProblem } from "./validate";

/** One number of a report: as shown, and in full. */
export interface ReportedResult {
  readonly name: string;
  readonly symbol: string;
  readonly unit: string;
  readonly value: number;
  readonly standardUncertainty: number;
  readonly interval95: readonly [number, number];
  readonly shown: string;
  readonly nearestWhole?: string;
}

export interface ReportedStage {
  readonly key: string;
  readonly title: string;
  /** True where a titer is read, false on a photometer and where something is made once. */
  readonly titrated: boolean;
  readonly done: boolean;
  readonly result: ReportedResult | null;
  /** Why there is no result although something was read; null where there is one, or readings are still to come. */
  readonly problem: string | null;
  readonly also: readonly ReportedResult[];
  readonly verdict: { readonly state: string; readonly reason: string; readonly next: string } | null;
  readonly acceptance: string | null;
  /** Where its result is from, for a stage that is known and was not done in the run. */
  readonly source: string | null;
  /** What the result rests on that nobody stated, and what is not counted; empty where there is nothing to say. */
  readonly footing: string;
  /** Results that cannot be, or that the method does not hold for, with where to look first. */
  readonly implausible: readonly string[];
  /** Further results that cannot be told, and why. */
  readonly withheld: readonly string[];
  readonly trials: readonly {
    readonly name: string;
    readonly counts: boolean;
    readonly inSet: boolean;
    readonly titerMl: number | null;
    readonly result: string | null;
    readonly problem: string | null;
    readonly cautions: readonly string[];
  }[];
  readonly shares: readonly { readonly cause: string; readonly part: number }[];
  readonly improvement: string | null;
  readonly working: readonly { readonly title: string; readonly formula: string; readonly value: string }[];
}

/** What the core makes of a run record, as plain data: for auditors, scripts and other programs. */
export interface RunReport {
  readonly id: string;
  readonly title: string;
  readonly method: { readonly id: string; readonly version: number; readonly title: string };
  readonly plusMinus: string;
  readonly state: string;
  readonly stages: readonly ReportedStage[];
}

/** The record in a file's contents, or everything that is wrong with it by path: shape first, then sense. */
export function readRunRecord(value: unknown): { record: RunRecord } | { problems: readonly PathProblem[] } {
  const problems = recordShapeProblems(value);
  if (problems.length > 0) return { problems };
  const file = value as RunFile;
  const wrong = conclusionProblem(file.method);
  if (wrong) return { problems: [{ path: `method.stages.${wrong.at}`, message: wrong.message }] };
  const record = recordOfFile(file);
  const senseless = checkRecord(record);
  return senseless.length > 0
    ? {
        problems: senseless.map((problem) => ({ path: problem.path, message: recordProblemWords(problem) })),
      }
    : { record };
}

/** How a report says what the core found: in American English, or in the words of a lab. */
type Say = (phrase: Phrase) => string;

function reported(
  { name, symbol, unit }: { name: Phrase; symbol: string; unit: string },
  q: Quantity,
  shown: Shown,
  say: Say,
): ReportedResult {
  const { factor } = unitOf(unit);
  const [value, half] = [q.value / factor, plusMinus(q, "i95") / factor];
  return {
    name: say(name),
    symbol,
    unit,
    value,
    standardUncertainty: standardUncertainty(q) / factor,
    interval95: [value - half, value + half],
    shown: say(shown.text),
    ...(shown.nearestWhole === undefined ? {} : { nearestWhole: shown.nearestWhole }),
  };
}

function reportedStage(
  stage: ComputedEvaluation,
  record: RunRecord,
  all: ReturnType<typeof evaluateRun>,
  say: Say,
): ReportedStage {
  const { definition, shown } = stage;
  const quantity = resultQuantity(stage);
  const titration = stage.kind === "titration" ? stage : null;
  const verdict = titration?.verdict ?? null;
  const members = isOnce(stage) ? [] : membersOf(stage);
  const localized = (phrase: Phrase | null | undefined) => (phrase == null ? null : say(phrase));
  return {
    key: stage.key,
    title: definition.title,
    titrated: titration !== null,
    done: stage.done,
    result: quantity && shown ? reported(definition.result, quantity, shown, say) : null,
    problem: localized(stage.problem),
    also: stage.also.map((a) => reported(a.definition, a.quantity, a.shown, say)),
    verdict: verdict && { state: verdict.state, reason: say(verdict.reason), next: say(verdict.next) },
    acceptance: localized(stage.acceptance?.text ?? null),
    source: localized(all.chain.find(({ key }) => key === stage.key)?.source),
    footing: say(footingWords(stage)),
    implausible: stage.implausible.map((found) => say(implausibleWords(found))),
    withheld: stage.withheld.map(({ name, why }) => say(msg`${name} is not given: ${why}.`)),
    trials: (isOnce(stage) ? [] : stage.trials).map((t) => ({
      name: say(t.words),
      counts: t.eligible,
      inSet: members.some((m) => m.id === t.id),
      titerMl: t.titerMl,
      result: localized(t.shownResult?.text),
      problem: localized(t.problem),
      cautions: t.cautions.map((c) => say(c.message)),
    })),
    shares: stage.shares.map(({ label, part }) => ({ cause: say(label), part })),
    improvement: localized(titration?.improvement?.text),
    working: (workingOf(record, all, stage.key, null)?.steps ?? []).map(({ title, formula, valueText }) => ({
      title: say(title),
      formula: say(formula),
      value: say(valueText),
    })),
  };
}

/** The report of a record, its words as `say` has them. */
export function reportOf(record: RunRecord, say: Say = inEnglish): RunReport {
  const evaluation = evaluateRun(record);
  return {
    id: record.id,
    title: record.title,
    method: { id: record.method.id, version: record.method.version, title: record.method.title },
    plusMinus: say(plusMinusWords[record.houseRules.plusMinus]),
    state: say(evaluation.state),
    stages: evaluation.stages.map((stage) => reportedStage(stage, record, evaluation, say)),
  };
}

const percent = (part: number) => `${(100 * part).toFixed(0)} %`;

type ReportedTrial = ReportedStage["trials"][number];

/** A trial with what it gave, whether it counts, and what should be known of it. */
function trialLines(t: ReportedTrial, { trials, titrated }: ReportedStage, say: Say): string[] {
  const left = trials.some((other) => other.inSet) ? msg`left out` : msg`counts, but no set agrees yet`;
  const mark = t.inSet ? msg`in the set` : t.counts ? left : msg`does not count`;
  const none = titrated ? msg`no titer` : "";
  const titer = say(t.titerMl === null ? none : msg`titer ${t.titerMl.toFixed(2)} mL`);
  const results = [titer, t.result ?? ""].filter(Boolean).join(", ");
  const notes = [...(t.problem === null ? [] : [t.problem]), ...t.cautions];
  return [
    `  ${t.name}: ${results === "" ? say(msg`nothing read`) : results} (${say(mark)})`,
    ...notes.map((words) => `    ! ${words}`),
  ];
}

/** Results of a stage, and what they rest on. */
function resultLines(stage: ReportedStage, say: Say): string[] {
  const results = [...(stage.result ? [stage.result] : []), ...stage.also].map((result) => {
    const whole =
      result.nearestWhole === undefined ? "" : say(msg`, nearest whole number ${result.nearestWhole}`);
    return `  ${result.name}: ${result.shown}${whole}`;
  });
  const none = stage.problem === null ? say(msg`No result yet.`) : say(msg`No result yet: ${stage.problem}.`);
  return [
    ...results,
    ...(stage.result ? [] : [`  ${none}`]),
    ...(stage.source === null
      ? []
      : [`  ${say(msg`Known already, not done in this run: ${stage.source}.`)}`]),
    ...(stage.acceptance === null ? [] : [`  ${stage.acceptance}`]),
    ...(stage.footing === "" ? [] : [`  ${stage.footing}`]),
    ...[...stage.implausible, ...stage.withheld].map((note) => `  ! ${note}`),
  ];
}

function stageLines(stage: ReportedStage, say: Say): string[] {
  const { title, verdict, shares, improvement, working } = stage;
  const causes = shares.map((s) => `${s.cause} ${percent(s.part)}`).join(", ");
  return [
    ...["", title, "=".repeat(title.length)],
    ...stage.trials.flatMap((t) => trialLines(t, stage, say)),
    ...(verdict ? [`  ${verdict.reason}`, `  ${say(msg`Next: ${verdict.next}.`)}`] : []),
    ...resultLines(stage, say),
    ...(shares.length > 0 ? [`  ${say(msg`± by cause: ${causes}`)}`] : []),
    ...(improvement === null ? [] : [`  ${improvement}`]),
    ...(working.length > 0 ? [`  ${say(msg`Working:`)}`] : []),
    ...working.flatMap((step) => [
      `    ${step.title}`,
      `      ${step.formula === "" ? "" : `${step.formula} = `}${step.value}`,
    ]),
  ];
}

/** The report as a page of plain text, in the words of the lab that worked by them. What people typed stands as they typed it. */
export function reportText(record: RunRecord, say: Say): string {
  const { id, title, method, plusMinus: style, state, stages } = reportOf(record, say);
  const lines = [
    `${title} (${id})`,
    say(msg`${method.title}, version ${method.version}; ± is ${style}; ${state}`),
    ...stages.flatMap((stage) => stageLines(stage, say)),
  ];
  return `${lines.join("\n")}\n`;
}

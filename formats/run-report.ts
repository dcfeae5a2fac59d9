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
import { type HouseWords, inHouseWords } from "~/core/rules";
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

function reported(
  { name, symbol, unit }: { name: string; symbol: string; unit: string },
  q: Quantity,
  shown: Shown,
): ReportedResult {
  const { factor } = unitOf(unit);
  const [value, half] = [q.value / factor, plusMinus(q, "i95") / factor];
  return {
    name,
    symbol,
    unit,
    value,
    standardUncertainty: standardUncertainty(q) / factor,
    interval95: [value - half, value + half],
    shown: shown.text,
    ...(shown.nearestWhole === undefined ? {} : { nearestWhole: shown.nearestWhole }),
  };
}

function reportedStage(
  stage: ComputedEvaluation,
  record: RunRecord,
  all: ReturnType<typeof evaluateRun>,
): ReportedStage {
  const { definition, shown } = stage;
  const quantity = resultQuantity(stage);
  const titration = stage.kind === "titration" ? stage : null;
  const verdict = titration?.verdict ?? null;
  const members = isOnce(stage) ? [] : membersOf(stage);
  return {
    key: stage.key,
    title: definition.title,
    titrated: titration !== null,
    done: stage.done,
    result: quantity && shown ? reported(definition.result, quantity, shown) : null,
    problem: stage.problem,
    also: stage.also.map((a) => reported(a.definition, a.quantity, a.shown)),
    verdict: verdict && { state: verdict.state, reason: verdict.reason, next: verdict.next },
    acceptance: ("acceptance" in stage ? stage.acceptance?.text : undefined) ?? null,
    footing: footingWords(stage),
    implausible: stage.implausible.map((found) => implausibleWords(found)),
    withheld: stage.withheld.map(({ name, why }) => `${name} is not given: ${why}.`),
    trials: (isOnce(stage) ? [] : stage.trials).map((t) => ({
      name: t.words,
      counts: t.eligible,
      inSet: members.some((m) => m.id === t.id),
      titerMl: t.titerMl,
      result: t.shownResult?.text ?? null,
      problem: t.problem,
      cautions: t.cautions.map((c) => c.message),
    })),
    shares: stage.shares.map(({ label, part }) => ({ cause: label, part })),
    improvement: titration?.improvement?.text ?? null,
    working: (workingOf(record, all, stage.key, null)?.steps ?? []).map(({ title, formula, valueText }) => ({
      title,
      formula,
      value: valueText,
    })),
  };
}

export function reportOf(record: RunRecord): RunReport {
  const evaluation = evaluateRun(record);
  return {
    id: record.id,
    title: record.title,
    method: { id: record.method.id, version: record.method.version, title: record.method.title },
    plusMinus: plusMinusWords[record.houseRules.plusMinus],
    state: evaluation.state,
    stages: evaluation.stages.map((stage) => reportedStage(stage, record, evaluation)),
  };
}

const percent = (part: number) => `${(100 * part).toFixed(0)} %`;

type ReportedTrial = ReportedStage["trials"][number];

/** A trial with what it gave, whether it counts, and what should be known of it. */
function trialLines(t: ReportedTrial, { trials, titrated }: ReportedStage): string[] {
  const left = trials.some((other) => other.inSet) ? "left out" : "counts, but nothing agrees yet";
  const mark = t.inSet ? "in the set" : t.counts ? left : "does not count";
  const titer = t.titerMl === null ? (titrated ? "no titer" : "") : `titer ${t.titerMl.toFixed(2)} mL`;
  const told = [titer, t.result ?? ""].filter(Boolean).join(", ");
  const said = [...(t.problem === null ? [] : [t.problem]), ...t.cautions];
  return [
    `  ${t.name}: ${told === "" ? "nothing read" : told} (${mark})`,
    ...said.map((words) => `    ! ${words}`),
  ];
}

/** Results of a stage, and what they rest on. */
function resultLines(stage: ReportedStage): string[] {
  const results = [...(stage.result ? [stage.result] : []), ...stage.also].map((result) => {
    const whole = result.nearestWhole === undefined ? "" : `, nearest whole number ${result.nearestWhole}`;
    return `  ${result.name}: ${result.shown}${whole}`;
  });
  const none = `  No result yet${stage.problem === null ? "" : `: ${stage.problem}`}.`;
  return [
    ...results,
    ...(stage.result ? [] : [none]),
    ...(stage.acceptance === null ? [] : [`  ${stage.acceptance}`]),
    ...(stage.footing === "" ? [] : [`  ${stage.footing}`]),
    ...[...stage.implausible, ...stage.withheld].map((said) => `  ! ${said}`),
  ];
}

function stageLines(stage: ReportedStage): string[] {
  const { title, verdict, shares, improvement, working } = stage;
  const causes = shares.map((s) => `${s.cause} ${percent(s.part)}`).join(", ");
  return [
    ...["", title, "=".repeat(title.length)],
    ...stage.trials.flatMap((t) => trialLines(t, stage)),
    ...(verdict ? [`  ${verdict.reason}`, `  Next: ${verdict.next}.`] : []),
    ...resultLines(stage),
    ...(shares.length > 0 ? [`  ± by cause: ${causes}`] : []),
    ...(improvement === null ? [] : [`  ${improvement}`]),
    ...(working.length > 0 ? ["  Working:"] : []),
    ...working.flatMap((step) => [
      `    ${step.title}`,
      `      ${step.formula === "" ? "" : `${step.formula} = `}${step.value}`,
    ]),
  ];
}

/** The report as a page of plain text, in the words of the house that worked by them. */
export function reportText(report: RunReport, words: HouseWords): string {
  const { method, plusMinus: style, state, stages } = report;
  const lines = [
    `${method.title}, version ${method.version}; ± is ${style}; ${state}`,
    ...stages.flatMap(stageLines),
  ];
  // Its title is the user's own.
  return `${report.title} (${report.id})\n${inHouseWords(lines.join("\n"), words)}\n`;
}

import { linesOf } from "../lines/line";
import "~/core/stages/engines";
import { evaluateRun } from "~/core/evaluate";
import type { Share } from "~/core/judgement";
import { knownWords, methodOf, readersOf, type RunRecord, type UsedSolution } from "~/core/run";
import {
  type ComputedEvaluation,
  footingWords,
  implausibleWords,
  improvementOfStage,
  plusMinusWords,
  reasonsOf,
  type RunEvaluation,
  type Shown,
  type WorkingStep,
} from "~/core/stages";
import { inEnglish, msg, type Phrase } from "~/core/text";
import { workingOf } from "~/core/working";
import { type ReportTable, trialTable } from "./trials";

/** A result as it stands in a report. */
export interface ReportResult {
  readonly name: Phrase;
  readonly shown: Shown;
}

/** What was read once in a stage. */
export interface ReportReading {
  readonly label: Phrase;
  readonly text: string;
  readonly unit: string;
  /** The bottle that it was taken from. */
  readonly bottle: string | null;
}

export interface ReportStage {
  readonly key: string;
  readonly title: string;
  readonly evaluation: ComputedEvaluation;
  readonly readings: readonly ReportReading[];
  readonly table: ReportTable | null;
  readonly results: readonly ReportResult[];
  /** Why there is no result; null where there is one. */
  readonly problem: Phrase | null;
  /** What speaks for the result or against it: agreement, verdict, what it was held against, what it rests on. */
  readonly reasons: readonly Phrase[];
  /** What speaks against believing it. */
  readonly warnings: readonly Phrase[];
  readonly shares: readonly Share[];
  /** What would make the ± smaller; null where nothing is known. */
  readonly improvement: Phrase | null;
  readonly working: readonly WorkingStep[];
}

/** Everything that a report of a run says, whatever it is printed on. */
export interface ReportDocument {
  readonly id: string;
  readonly title: string;
  readonly sample: string;
  readonly bench: string;
  readonly startedAt: string;
  readonly finishedAt: string | null;
  /** Who stands for it beside whoever carried it out, when, and what they wrote; null while nobody does. */
  readonly countersigned: string | null;
  readonly status: RunRecord["status"];
  readonly people: readonly string[];
  /** Whether it holds spectra, courses or curves. */
  readonly hasLines: boolean;
  readonly method: {
    readonly title: string;
    readonly version: number;
    readonly equations: readonly string[];
  };
  readonly plusMinus: Phrase;
  /** The result that the run was for. */
  readonly main: ReportResult | null;
  readonly bottles: readonly (UsedSolution & { readonly known: Phrase })[];
  readonly stages: readonly ReportStage[];
  readonly cautions: readonly string[];
  readonly waste: readonly string[];
}

function readingsOf(stage: ComputedEvaluation, { solutions = [] }: RunRecord): ReportReading[] {
  return stage.stageFields.flatMap(({ field, present }) =>
    !present || field.hidden
      ? []
      : [
          {
            label: field.label,
            text: present.text,
            unit: field.unit,
            bottle: solutions.find(({ assignmentId }) => assignmentId === present.assignment)?.code ?? null,
          },
        ],
  );
}

function resultsOf({ definition, shown, also }: ComputedEvaluation): ReportResult[] {
  return [
    ...(shown ? [{ name: definition.result.name, shown }] : []),
    ...also.map((further) => ({ name: further.definition.name, shown: further.shown })),
  ];
}

function stageOf(stage: ComputedEvaluation, record: RunRecord, evaluation: RunEvaluation): ReportStage {
  const reasons = reasonsOf(stage);
  const footing = footingWords(stage);
  // Some kinds tell in their verdict what the result rests on.
  const isTold = footing === "" || reasons.some((reason) => inEnglish(reason).includes(inEnglish(footing)));
  return {
    key: stage.key,
    title: stage.definition.title,
    evaluation: stage,
    readings: readingsOf(stage, record),
    table: trialTable(stage, record),
    results: resultsOf(stage),
    problem: stage.shown ? null : stage.problem,
    reasons: isTold ? reasons : [...reasons, footing],
    warnings: [
      ...stage.implausible.map((found) => msg`${implausibleWords(found)}.`),
      ...stage.withheld.map(({ name, why }) => msg`${name} is not given: ${why}.`),
      ...stage.cautions.map(({ message }) => msg`${message}.`),
    ],
    shares: stage.shares,
    improvement: improvementOfStage(stage)?.text ?? null,
    working: workingOf(record, evaluation, stage.key, null)?.steps ?? [],
  };
}

const countersignedBy = ({ countersigned }: RunRecord): string | null =>
  countersigned
    ? [countersigned.person, countersigned.at.slice(0, 10), countersigned.note].filter(Boolean).join(", ")
    : null;

/** What a report of a run says. */
export function documentOf(record: RunRecord): ReportDocument {
  const evaluation = evaluateRun(record);
  const stages = evaluation.stages.map((stage) => stageOf(stage, record, evaluation));
  const { method } = record;
  return {
    ...{
      id: record.id,
      title: record.title,
      sample: record.sample,
      bench: record.bench,
      status: record.status,
    },
    ...{ startedAt: record.startedAt, finishedAt: record.finishedAt, people: readersOf(record) },
    countersigned: countersignedBy(record),
    method: {
      title: method.title,
      version: method.version,
      equations: methodOf(record).equations.map(({ equation }) => equation),
    },
    plusMinus: plusMinusWords[record.houseRules.plusMinus],
    main: stages.findLast(({ results }) => results.length > 0)?.results[0] ?? null,
    bottles: (record.solutions ?? []).map((bottle) => ({
      ...bottle,
      known: knownWords(bottle, record.houseRules.plusMinus),
    })),
    stages,
    hasLines: linesOf(record).length > 0,
    cautions: method.hazards,
    waste: method.waste,
  };
}

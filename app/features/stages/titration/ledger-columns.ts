import { ledgerOf, differenceOf, decimalsOfInput } from "~/core/inputs";
import { inUnit, printedUnit, toDecimals } from "~/core/quantity";
import { type HouseRules } from "~/core/rules";
import { perOf, settingOf, fieldKey } from "~/core/method";
import type { TitrationEvaluation, TrialEvaluation } from "~/core/stages";
import { percentError } from "~/core/judgement";
import { msg, type Phrase, unitText, uncapitalized, joined } from "~/core/text";

export interface Column {
  readonly key: string;
  readonly head: Phrase;
  readonly field?: string;
  readonly value?: (trial: TrialEvaluation) => string;
}

/** A column for each reading, with the mass and the titer behind the readings they come from. */
export function columnsOf(stage: TitrationEvaluation, rules: HouseRules): Column[] {
  const { definition } = stage;
  const columns = definition.inputs.flatMap((input): Column[] => {
    const { symbol } = input;
    if (perOf(input) !== "trial") return [];
    return ledgerOf(input, settingOf(definition), rules).map(({ head, kind }): Column => {
      if (kind !== null) return { key: `${symbol}:${kind}`, head, field: fieldKey({ symbol, kind }) };
      const unit = differenceOf(input)?.unit ?? "1";
      const decimals = decimalsOfInput(input, rules) ?? 2;
      return {
        key: symbol,
        head,
        value: (trial) => {
          // The titer stands here as it was read, whatever the room and the indicator make of it.
          if (symbol === stage.titer)
            return trial.titerMl === null ? "" : toDecimals(trial.titerMl, decimals);
          const q = trial.symbols.get(symbol);
          return q ? toDecimals(inUnit(q, unit), decimals) : "";
        },
      };
    });
  });
  return [
    ...columns,
    {
      key: "result",
      head: unitText(printedUnit(definition.result.unit) || definition.result.symbol),
      value: (trial) => trial.shownResult?.value ?? "",
    },
    ...errorColumn(stage, rules),
  ];
}

/** How far each trial is from what the result is held against, once that is stated. */
function errorColumn({ definition: { accept } }: TitrationEvaluation, rules: HouseRules): Column[] {
  if (accept?.against !== "value") return [];
  const error = ({ symbols, result }: TrialEvaluation) => {
    const known = symbols.get(accept.symbol);
    if (!known || !result || known.value === 0) return "";
    return toDecimals(percentError(result.value, known.value, rules.percentError), 2);
  };
  return [{ key: "error", head: msg`error, %`, value: error }];
}

/** "refilled at 48.00, went on from 1.00": without it, final minus initial is not the titer that stands beside them. */
function refillWords({ fields }: TrialEvaluation): Phrase | null {
  const read = (kind: string) => fields.find(({ field }) => field.kind === kind)?.present?.value ?? null;
  const [before, after] = [read("burette.before-refill"), read("burette.after-refill")];
  return before === null || after === null ? null : msg`refilled at ${before}, went on from ${after}`;
}

/** Why a trial does not count, and what was corrected in it. */
export function noteOf(
  trial: TrialEvaluation,
  { state, members }: TitrationEvaluation["agreement"],
  waiting: ReadonlySet<string>,
): Phrase {
  const { record, fields, cautions, eligible, missing } = trial;
  const parts: Phrase[] = record.observations.some((o) => waiting.has(o.id))
    ? [msg`waiting for the server`]
    : [];
  if (record.observations.some(({ source }) => source === "paper")) parts.push(msg`entered from paper`);
  if (record.struck)
    parts.push(
      msg`struck out: ${record.struck.reason}${record.struck.person ? ` (${record.struck.person})` : ""}`,
    );
  else if (record.kind === "rough") parts.push(msg`rough, not used`);
  else if (missing) parts.push(msg`running`);
  // While no set stands, nothing is outside one.
  else if (eligible && state === "set" && !members.includes(trial.id)) parts.push(msg`outside the set`);
  const refill = refillWords(trial);
  if (refill) parts.push(refill);
  if (trial.overshot) parts.push(msg`overshot: the end came before`);
  for (const { history, field } of fields) {
    const correction = history.filter((o) => o.supersedes && o.reason && o.text !== "").at(-1);
    if (correction)
      parts.push(
        msg`${uncapitalized(field.label)}: ${correction.reason ?? ""}${correction.person ? `, ${correction.person}` : ""}`,
      );
  }
  return joined([...parts, ...cautions.map((c) => c.message)], "; ");
}

import { inUnit, printedUnit, toDecimals } from "~/core/quantity";
import { buretteDecimals, type HouseRules, massDecimals } from "~/core/rules";
import { perOf } from "~/core/method";
import type { TitrationEvaluation, TrialEvaluation } from "~/core/stages";

export interface Column {
  readonly key: string;
  readonly head: string;
  readonly field?: string;
  readonly value?: (trial: TrialEvaluation) => string;
}

/** A column for each reading, with the mass and the titer behind the readings they come from. */
export function columnsOf(stage: TitrationEvaluation, rules: HouseRules): Column[] {
  const { definition } = stage;
  const columns = definition.inputs.flatMap((input): Column[] => {
    const { symbol, label } = input;
    if (perOf(input) !== "trial") return [];
    const field = (end: string, head: string, kind: string): Column => ({
      key: `${symbol}:${end}`,
      head,
      field: `${symbol}:${kind}`,
    });
    const computed = (head: string, unit: string, decimals: number): Column => ({
      key: symbol,
      head,
      value: (trial) => {
        // The titer stands here as it was read, whatever the room and the indicator make of it.
        if (symbol === stage.titer) return trial.titerMl === null ? "" : toDecimals(trial.titerMl, decimals);
        const q = trial.symbols.get(symbol);
        return q ? toDecimals(inUnit(q, unit), decimals) : "";
      },
    });
    switch (input.is) {
      case "mass":
        return input.weighing === "tared"
          ? [field("t", "Mass, g", "mass.tared")]
          : [
              field("b", input.weighing === "addition" ? "Empty, g" : "Before, g", "mass.before"),
              field("a", input.weighing === "addition" ? "With it, g" : "After, g", "mass.after"),
              computed("Mass, g", "g", massDecimals(rules)),
            ];
      case "pipette":
        return [field("v", "Aliquot, mL", "volume.taken")];
      case "graduated":
      case "flask":
        return [field("v", `${label}, mL`, "volume.taken")];
      case "drops":
        return [field("n", label, "drops")];
      case "temperature":
        return [field("t", "°C", "temperature")];
      case "pH":
        return [field("p", label, "pH")];
      case "titer":
      case "delivered": {
        const titer = input.is === "titer";
        return [
          field("i", titer ? "Initial" : `${label}, initial`, "burette.initial"),
          field("f", titer ? "Final" : "final", "burette.final"),
          computed(titer ? "Titer, mL" : `${label}, mL`, "mL", buretteDecimals(rules)),
        ];
      }
      default:
        return [];
    }
  });
  return [
    ...columns,
    {
      key: "result",
      head: printedUnit(definition.result.unit) || definition.result.symbol,
      value: (trial) => trial.shownResult?.value ?? "",
    },
  ];
}

/** Why a trial does not count, and what was corrected in it. */
export function noteOf(
  trial: TrialEvaluation,
  { state, members }: TitrationEvaluation["agreement"],
  waiting: ReadonlySet<string>,
): string {
  const { record, fields, cautions, eligible, missing } = trial;
  const parts: string[] = record.observations.some((o) => waiting.has(o.id))
    ? ["waiting for the server"]
    : [];
  if (record.struck)
    parts.push(
      `struck out: ${record.struck.reason}${record.struck.person ? ` (${record.struck.person})` : ""}`,
    );
  else if (record.kind === "rough") parts.push("rough, not used");
  else if (missing) parts.push("running");
  // While no set stands, nothing is outside one.
  else if (eligible && state === "set" && !members.includes(trial.id)) parts.push("outside the set");
  if (trial.overshot) parts.push("overshot: the end came before");
  for (const { history, field } of fields) {
    const correction = history.filter((o) => o.supersedes && o.reason && o.text !== "").at(-1);
    if (correction)
      parts.push(
        `${field.label.toLowerCase()}: ${correction.reason}${correction.person ? `, ${correction.person}` : ""}`,
      );
  }
  return [...parts, ...cautions.map((c) => c.message)].join("; ");
}

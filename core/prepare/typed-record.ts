import { Bug } from "../result";
import { checkField, fieldKey, type Method, type PreparationStage, stageFields } from "../method";
import type { HouseRules } from "../rules";
import type { Observation } from "../record";
import type { RunRecord } from "../run";
import { presumedOf, statedOf } from "../inputs";
import { type Phrase } from "../text";

/** Texts as typed, by field key (`m:mass.before`). */
export type TypedFields = Readonly<Record<string, string | undefined>>;

export interface TypedRecord {
  readonly record: RunRecord;
  /** What is wrong with a text, by field key; what is empty is not wrong yet. */
  readonly problems: Readonly<Record<string, Phrase>>;
}

interface About {
  readonly houseRules: HouseRules;
  readonly at: string;
  readonly person: string;
}

/** What the method of such a run says of its glass and its solid: whoever chose it has said so. */
function statedByMethod(stage: PreparationStage): TypedFields {
  return Object.fromEntries(
    stage.inputs
      // A concentration is that of a bottle, or typed.
      .filter((input) => statedOf(input)?.value !== "given")
      .flatMap((input) =>
        Object.entries(presumedOf(input)).map(([kind, text]) => [`${input.symbol}:${kind}`, text] as const),
      ),
  );
}

/**
 * A run of a method of one preparation stage from what was typed into it: for the making of a bottle, and for small
 * calculations. Texts that do not pass their check are told, and left out.
 */
export function typedRecord(method: Method, typed: TypedFields, about: About): TypedRecord {
  const { houseRules, at, person } = about;
  const [stage] = method.stages;
  if (stage?.kind !== "preparation") throw new Bug(`${method.id} does not begin with a preparation`);
  const stated = statedByMethod(stage);
  const observations: Observation[] = [];
  const problems: Record<string, Phrase> = {};
  for (const field of stageFields(stage, houseRules)) {
    const key = fieldKey(field);
    const text = typed[key]?.trim() || stated[key] || "";
    if (text === "") continue;
    const checked = checkField(field, text, { stage, houseRules, holder: { observations } });
    if (!checked.ok) {
      problems[key] = checked.problem.message;
      continue;
    }
    observations.push({
      id: key,
      symbol: field.symbol,
      kind: field.kind,
      text,
      value: checked.value.text,
      unit: field.unit,
      source: "typed",
      person,
      at,
      supersedes: null,
      reason: null,
    });
  }
  return {
    problems,
    record: {
      format: "steady-bead/run",
      formatVersion: 1,
      id: method.id,
      title: method.title,
      sample: "",
      bench: person,
      status: "finished",
      startedAt: at,
      finishedAt: at,
      method,
      houseRules,
      stages: [{ id: stage.key, key: stage.key, observations, trials: [] }],
    },
  };
}

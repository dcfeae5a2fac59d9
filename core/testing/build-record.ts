import "~/core/stages/engines";
import type { Method } from "~/core/method";
import type { HouseRules } from "~/core/rules";
import type { Observation, ObservationKind, TrialRecord } from "~/core/record";
import type { RunRecord } from "~/core/run";
import { baseByPhthalateThenAcid } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { defaultHouseRules } from "~/catalog/rules/defaults";

const at = "2026-11-25T09:00:00.000Z";

type Phrase = readonly [symbol: string, kind: ObservationKind, text: string];

const observed = (holder: string, [symbol, kind, text]: Phrase): Observation => ({
  id: `${holder}:${symbol}:${kind}`,
  symbol,
  kind,
  text,
  value: text,
  unit: kind.startsWith("mass") ? "g" : kind.startsWith("purity") ? "%" : "mL",
  source: "typed",
  person: "bench 1",
  at,
  supersedes: null,
  reason: null,
});

export interface TrialOptions {
  readonly kind?: "rough" | "fine";
  readonly struck?: boolean;
}

function trial(
  id: string,
  texts: readonly Phrase[],
  { kind = "fine", struck = false }: TrialOptions,
): TrialRecord {
  return {
    id,
    number: 1,
    label: null,
    kind,
    struck: struck ? { at, person: "bench 1", reason: "overshot" } : null,
    observations: texts.map((text) => observed(id, text)),
  };
}

let made = 0;

/** A weighed flask: boat before and after, burette before and after, as typed. */
export function flask(
  before: string,
  after: string,
  initial: string,
  final: string,
  options: TrialOptions = {},
): TrialRecord {
  return trial(
    `flask ${++made}`,
    [
      ["m", "mass.before", before],
      ["m", "mass.after", after],
      ["V", "burette.initial", initial],
      ["V", "burette.final", final],
    ],
    options,
  );
}

export function aliquot(
  taken: string,
  initial: string,
  final: string,
  options: TrialOptions = {},
): TrialRecord {
  return trial(
    `aliquot ${++made}`,
    [
      ["V_a", "volume.taken", taken],
      ["V", "burette.initial", initial],
      ["V", "burette.final", final],
    ],
    options,
  );
}

/** A run of a method as it is begun: nothing is read in it. */
export const begunRun = (method: Method, houseRules: HouseRules = defaultHouseRules): RunRecord => ({
  format: "steady-bead/run",
  formatVersion: 1,
  id: "run",
  title: "Rinse acid",
  sample: "R-1",
  bench: "bench 1",
  status: "open",
  startedAt: at,
  finishedAt: null,
  method,
  houseRules,
  stages: method.stages.map(({ key }) => ({ id: `stage ${key}`, key, observations: [], trials: [] })),
});

/** A run of the phthalate method from trials alone. */
export function runRecord(
  standardize: readonly TrialRecord[],
  determine: readonly TrialRecord[] = [],
  houseRules: HouseRules = defaultHouseRules,
): RunRecord {
  const numbered = (trials: readonly TrialRecord[]) =>
    trials.map((t, i) => {
      const before = trials.slice(0, i).filter((other) => other.kind === "fine").length;
      return { ...t, number: t.kind === "fine" ? before + 1 : null };
    });
  return {
    ...begunRun(baseByPhthalateThenAcid, houseRules),
    stages: [
      { id: "s", key: "standardize", observations: [], trials: numbered(standardize) },
      { id: "d", key: "determine", observations: [], trials: numbered(determine) },
    ],
  };
}

import type { Observation, TrialRecord } from "~/core/record";
import type { RunRecord } from "~/core/run";
import { titer, typedRun } from "~/core/testing/typed-run";
import { baseByPhthalateThenAcid } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";

/** What somebody wrote as a reason who knows spreadsheets, with all that tables break at. */
export const wildReason = '=HYPERLINK("http://nowhere.invalid";"look")\nsecond line, with "quotes"; µ ± → √';

const flask = (before: string, after: string, final: string) => ({
  "m:mass.before": before,
  "m:mass.after": after,
  ...titer(final),
});

const later = "2026-11-25T09:40:00.000Z";

const changeTrial = (
  record: RunRecord,
  stage: string,
  place: number,
  change: (trial: TrialRecord) => TrialRecord,
): RunRecord => ({
  ...record,
  stages: record.stages.map((s) =>
    s.key === stage ? { ...s, trials: s.trials.map((t, i) => (i === place ? change(t) : t)) } : s,
  ),
});

/** A reading that was corrected: what stood there stays, and is followed by what holds. */
function corrected(trial: TrialRecord, kind: Observation["kind"], text: string, reason: string): TrialRecord {
  const before = trial.observations.find((o) => o.kind === kind);
  if (!before) return trial;
  const after = {
    ...before,
    id: `${before.id}/again`,
    text,
    value: text,
    at: later,
    person: "M. Finn",
    supersedes: before.id,
    reason,
  };
  return { ...trial, observations: [...trial.observations, after] };
}

/**
 * A standardization and a determination in which everything happened: a final reading that was corrected, a trial that was struck out with a
 * reason that a spreadsheet would carry out, one that is not complete.
 */
export function busyRecord(): RunRecord {
  const typed = typedRun(baseByPhthalateThenAcid, {
    standardize: {
      trials: [
        flask("2.6106", "2.1000", "25.00"),
        flask("2.5901", "2.1000", "24.01"),
        flask("2.6310", "2.1000", "25.89"),
      ],
    },
    determine: {
      trials: [
        { "V_a:volume.taken": "25.00", ...titer("20.00") },
        { "V_a:volume.taken": "25.00", ...titer("20.06") },
        { "V_a:volume.taken": "25.00", ...titer("22.40") },
        { "V_a:volume.taken": "25.00", "V:burette.initial": "0.00" },
      ],
    },
  });
  const withCorrection = changeTrial(typed, "standardize", 2, (t) =>
    corrected(t, "burette.final", "25.98", "digits changed places"),
  );
  return changeTrial(withCorrection, "determine", 2, (t) => ({
    ...t,
    struck: { at: later, person: "M. Finn", reason: wildReason },
  }));
}

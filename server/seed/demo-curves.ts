import { v7 as newId } from "uuid";
import { methods } from "~/catalog/methods";
import type { Enter } from "../../core/change";
import { mustHold } from "../../core/result";
import { simulateRun } from "../../core/simulate";
import type { Truth } from "../../core/stages";
import type { Observation } from "../../core/record";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import type { Database } from "../database/types";
import { type About, writer } from "./demo-assays";

/*
 * Runs with whole curves for the demo, and an adsorption: as a careful hand on a simulated bench reads them, each from its seed.
 */

type Row = Enter["rows"][number];

/** The most readings of one row. */
const mostOfRow = 200;

const readingsOf = (observations: readonly Observation[], person: string): Row["readings"] =>
  observations.map(({ symbol, kind, text, point }) => ({
    ...{ id: newId(), symbol, kind, text, person },
    ...(point ? { point } : {}),
  }));

/** Rows of readings of one flask, or of the stage. */
function rowsOf(observations: readonly Observation[], trial: Row["trial"], person: string): Row[] {
  const readings = readingsOf(observations, person);
  return Array.from({ length: Math.ceil(readings.length / mostOfRow) }, (_, i) => ({
    trial,
    readings: readings.slice(i * mostOfRow, (i + 1) * mostOfRow),
  }));
}

interface Told extends About {
  readonly seed: number;
  readonly truth: Truth;
  /** So many readings of the last flask of the last stage that is read; all where nothing is said. */
  readonly lastUpTo?: number;
  /** The stage whose meter was calibrated first. */
  readonly calibrated?: string;
}

/** What the buffers told of the electrode. */
const calibration = (person: string): Row["readings"] =>
  (["97.4", "6.8"] as const).map((text, i) => ({
    ...{ id: newId(), symbol: "k", text, person },
    kind: i === 0 ? ("meter.slope" as const) : ("meter.offset" as const),
  }));

/** Writes a run as a simulated bench reads it. */
async function told(
  db: Database,
  at: Date,
  { seed, truth, lastUpTo, calibrated, ...about }: Told,
): Promise<void> {
  const method = methods.find(({ id }) => id === about.methodId);
  if (!method) throw new Error(`Demo data: no method ${about.methodId}`);
  const { record } = mustHold(simulateRun({ method, houseRules: defaultHouseRules, truth, seed }));
  const change = await writer(db, at, about);
  for (const stage of record.stages) {
    const rows = [
      ...rowsOf(stage.observations, null, about.bench),
      ...(stage.key === calibrated ? [{ trial: null, readings: calibration(about.bench) }] : []),
      ...stage.trials.flatMap((trial, i) => {
        const isLast = stage === record.stages.at(-1) && i === stage.trials.length - 1;
        const read = trial.observations.slice(0, isLast ? lastUpTo : undefined);
        return rowsOf(read, { id: newId(), kind: trial.kind }, about.bench);
      }),
    ];
    for (const row of rows)
      await change({ intent: "enter", stageKey: stage.key, source: "typed", rows: [row] });
  }
}

const hour = 3_600_000;

/** A solid acid of which one curve is whole and the next is being taken, and the charcoal of a filter. */
export async function seedCurves(db: Database, now: Date): Promise<void> {
  await told(db, new Date(now.getTime() - 26 * hour), {
    ...{ methodId: "acetic-acid-on-charcoal", title: "Filter charcoal of the lagoon", sample: "FC-3" },
    ...{ bench: "bench 2", seed: 12 },
    truth: {
      results: {
        ...{ start: 0.4987, "bottle-1": 0.4561, "bottle-2": 0.3604, "bottle-3": 0.2651 },
        ...{ "bottle-4": 0.1703, "bottle-5": 0.0787 },
      },
    },
  });
  await told(db, new Date(now.getTime() - 2 * hour), {
    ...{ methodId: "diprotic-acid-by-curve", title: "Sour crystals of the gift shop", sample: "GS-1" },
    ...{ bench: "bench 4", seed: 5, lastUpTo: 15, calibrated: "determine" },
    truth: { results: { determine: 75.12 } },
  });
}

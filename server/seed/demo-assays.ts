import { v7 as newId } from "uuid";
import { mustHold } from "../../core/result";
import { rateLaw } from "../../core/kinetics";
import { type RandomStream, randomStream } from "../../core/montecarlo";
import type { ObservationKind } from "../../core/record";
import type { RunRequest } from "../../protocol/requests";
import type { Enter } from "../../core/change";
import type { Database } from "../database/types";
import { changeRun } from "../commands/change-run";
import { startRun } from "../commands/start-run";
import { inEnglish } from "~/core/text";

/*
 * Runs on the photometer for the demo: phosphate of the pond by a class, and a dye that fades. Readings follow from a true
 * line, or a true rate law, and seeded scatter; each holds something that goes wrong.
 */

const minute = 60_000;
const benches = ["bench 1", "bench 2", "bench 3", "bench 4", "bench 5"];

export interface About {
  readonly methodId: string;
  readonly title: string;
  readonly sample: string;
  readonly bench: string;
}

/** A run to which one change after another is made, two minutes apart. */
export async function writer(db: Database, at: Date, about: About) {
  const runId = mustHold(await startRun(db, { intent: "start", ...about }, at));
  let clock = at.getTime();
  return async (request: RunRequest): Promise<void> => {
    clock += 2 * minute;
    const outcome = await changeRun(db, runId, request, new Date(clock));
    if (outcome.status !== "done") throw new Error(`Demo data: ${inEnglish(outcome.message)}`);
  };
}

const once = (stageKey: string, symbol: string, kind: ObservationKind, text: string): RunRequest => ({
  intent: "observe",
  id: newId(),
  stageKey,
  trial: null,
  symbol,
  kind,
  text,
  supersedes: null,
  reason: null,
});

type Row = Enter["rows"][number];

const absorbances = (values: readonly (readonly [person: string, value: number])[], symbol = "A") =>
  values.map(([person, value]) => ({
    id: newId(),
    symbol,
    kind: "absorbance" as const,
    text: value.toFixed(3),
    person,
  }));

const flask = (symbol: string, taken: string, readings: Row["readings"], trialId: string = newId()): Row => ({
  trial: { id: trialId, kind: "fine" },
  readings: [
    { id: newId(), symbol, kind: "volume.taken", text: taken, person: readings[0]?.person ?? "" },
    ...readings,
  ],
});

/** A spectrum of two bands, each a Gaussian, with a little noise. */
function spectrum(
  bands: readonly (readonly [nm: number, width: number, height: number])[],
  to: number,
  random: RandomStream,
) {
  const x = Array.from({ length: (to - 400) / 2 + 1 }, (_, i) => 400 + 2 * i);
  const absorbance = x.map((nm) => {
    const truth = bands.reduce(
      (sum, [top, width, height]) => sum + height * Math.exp(-(((nm - top) / width) ** 2) / 2),
      0,
    );
    return Number((truth + 0.001 * random.normal()).toFixed(3));
  });
  return { x, absorbance };
}

const trace = (
  stageKey: string,
  name: string,
  xUnit: "nm" | "s",
  points: { x: number[]; absorbance: number[] },
  trial: {
    id: string;
    readings: { id: string; symbol: string; kind: ObservationKind; text: string }[];
  } | null = null,
): RunRequest => ({
  intent: "trace",
  id: newId(),
  stageKey,
  trialId: trial?.id ?? null,
  readings: trial?.readings ?? [],
  name,
  xUnit,
  ...points,
  // As the display has it: whole nanometers or seconds, and three decimals.
  decimals: { x: 0, absorbance: 3 },
  source: "instrument",
  person: "bench 2",
});

/** Phosphate of the pond: five benches read every standard, one of them a flask that was filled past its mark. */
async function pondPhosphate(db: Database, at: Date): Promise<void> {
  const random = randomStream(41);
  const change = await writer(db, at, {
    methodId: "phosphate-as-molybdenum-blue",
    title: "Phosphate of the pond",
    sample: "pond, north inlet",
    bench: "morning group",
  });
  await change(
    trace(
      "wavelength",
      "standard of 0.6 mg/L",
      "nm",
      spectrum(
        [
          [880, 95, 0.412],
          [712, 60, 0.27],
        ],
        1000,
        random,
      ),
    ),
  );
  await change(once("wavelength", "λ", "given", "880"));
  // Mg of phosphorus in a liter, and what a liter of one would read.
  const slope = 0.688;
  const shown = (milligrams: number) => 0.002 + slope * milligrams + 0.003 * random.normal();
  await change({
    intent: "enter",
    stageKey: "standards",
    source: "typed",
    rows: [
      {
        trial: null,
        readings: absorbances(
          [
            ["bench 1", 0.001],
            ["bench 3", 0.002],
            ["bench 5", 0.0],
          ],
          "A_0",
        ),
      },
    ],
  });
  const rows = ["0.00", "2.00", "4.00", "6.00", "8.00", "10.00"].map((taken) =>
    flask(
      "V_s",
      taken,
      absorbances(benches.map((person) => [person, Math.max(0, shown(Number(taken) / 10))] as const)),
    ),
  );
  // Bench 4 read the flask of 6 mL through a fingerprint, bench 2 wrote the flask of 4 mL beside that of 2 mL.
  const smudged = rows[3]?.readings.find((r) => r.person === "bench 4");
  const misplaced = rows[1]?.readings.find((r) => r.person === "bench 2");
  if (!smudged || !misplaced) throw new Error("Demo data: no reading to spoil");
  smudged.text = "0.447";
  misplaced.text = "0.276";
  await change(once("standards", "V_f", "volume.taken", "50.00"));
  await change({ intent: "enter", stageKey: "standards", source: "imported", rows });
  await change({ intent: "strike-reading", observationId: misplaced.id, reason: "wrong flask" });
  await change(once("unknown", "V_f", "volume.taken", "50.00"));
  await change(once("unknown", "c_lim", "given", "1.00"));
  const pond = 0.87;
  for (const error of [0.004, -0.003]) {
    await change({
      intent: "enter",
      stageKey: "unknown",
      source: "typed",
      rows: [
        flask(
          "V_u",
          "25.00",
          absorbances(benches.slice(0, 3).map((person) => [person, shown(pond / 2) + error] as const)),
        ),
      ],
    });
  }
}

/** A dye that fades in base of three strengths, each course followed for 200 s. */
async function dyeFading(db: Database, at: Date): Promise<void> {
  const random = randomStream(17);
  const change = await writer(db, at, {
    methodId: "fading-of-a-dye",
    title: "Fading of the tracer dye",
    sample: "tracer for the tide tank",
    bench: "bench 2",
  });
  await change(
    trace(
      "wavelength",
      "dye in water",
      "nm",
      spectrum(
        [
          [590, 26, 0.91],
          [548, 27, 0.47],
        ],
        760,
        random,
      ),
    ),
  );
  await change(once("wavelength", "λ", "given", "590"));
  await change(once("fading", "T", "temperature", "21.5"));
  for (const [i, excess] of ["0.050", "0.100", "0.200"].entries()) {
    const k = 0.124 * Number(excess) * (1 + 0.01 * random.normal());
    const x = Array.from({ length: 199 }, (_, t) => t + 2);
    const absorbance = x.map((t) => Number((rateLaw(1, 0.9, k, t) + 0.0015 * random.normal()).toFixed(3)));
    // The first cuvette was still being mixed when the lid closed.
    if (i === 0) [0.861, 0.942, 0.915].forEach((early, t) => (absorbance[t] = early));
    const id = newId();
    await change(
      trace(
        "fading",
        `kinetic run ${i + 1}`,
        "s",
        { x, absorbance },
        {
          id,
          readings: [{ id: newId(), symbol: "c_B", kind: "given", text: excess }],
        },
      ),
    );
    if (i !== 0) continue;
    await change({ ...once("fading", "A", "window.from", "6"), trial: { id, kind: "fine" } } as RunRequest);
  }
}

export async function seedAssays(
  db: Database,
  before: (days: number, minutes?: number) => Date,
): Promise<void> {
  await dyeFading(db, before(1, 120));
  await pondPhosphate(db, before(0, 170));
}

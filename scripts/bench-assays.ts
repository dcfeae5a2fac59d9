import "../core/stages/engines";
import type { Page } from "@playwright/test";
import { v7 as newId } from "uuid";
import { methods } from "../catalog/methods";
import { defaultHouseRules } from "../catalog/rules/defaults";
import { bootstrapReadOff, fitCalibration } from "../core/calibration";
import { plusMinus } from "../core/judgement";
import { compareOrders } from "../core/kinetics";
import { randomStream } from "../core/montecarlo";
import { mustHold } from "../core/result";
import { evaluateRun } from "../core/evaluate";
import type { RunRecord } from "../core/run";
import { resultQuantity } from "../core/stages";
import { simulateRun } from "../core/simulate";
import { absorberNear, cuvetteOf, SimulatedPhotometer } from "../devices";
import type { AddTrace } from "../core/change";
import { median, ms, say, timesOf } from "./bench-parts";

const phosphate = methods.find((m) => m.id === "phosphate-as-molybdenum-blue");

/** One simulated assay: so many readings of each cuvette, on a photometer of its own. */
function assay(seed: number, readings: number) {
  if (!phosphate) throw new Error("no method to measure");
  const instrument = new SimulatedPhotometer({
    seed: 7000 + seed,
    noise: 0.0015,
    strayLight: 0.0002,
    wavelengthNm: 882,
  });
  let clock = 0;
  return mustHold(
    simulateRun({
      method: phosphate,
      houseRules: defaultHouseRules,
      truth: { results: {}, amounts: { "wavelength.λ": 880 } },
      seed,
      readings,
      photometer: (a) => instrument.show(cuvetteOf(absorberNear(882), 882, a), (clock += 20)),
    }),
  );
}

/** The same assay with so many standards, each read so many times. */
const grown = (record: RunRecord, flasks: number, readings: number): RunRecord => ({
  ...record,
  stages: record.stages.map((stage) =>
    stage.key !== "standards"
      ? stage
      : {
          ...stage,
          trials: Array.from({ length: flasks }, (_, i) => {
            const trial = stage.trials[i % stage.trials.length]!;
            const again = trial.observations.filter(({ kind }) => kind === "absorbance");
            const more = Array.from({ length: readings }, (_, j) => again[j % again.length]!).map((o, j) => ({
              ...o,
              value: (Number(o.value) + 0.0002 * ((i + 3 * j) % 7)).toFixed(4),
              id: `${o.id} ${i} ${j}`,
            }));
            const others = trial.observations.filter(({ kind }) => kind !== "absorbance");
            return {
              ...trial,
              id: `${trial.id} ${i}`,
              observations: [...others.map((o) => ({ ...o, id: `${o.id} ${i}` })), ...more],
            };
          }),
        },
  ),
});

function held(count: number): number {
  let inside = 0;
  for (let seed = 1; seed <= count; seed++) {
    const { record, truths } = assay(seed, 3);
    const stage = evaluateRun(record).stages.find((s) => s.key === "unknown");
    const q = stage ? resultQuantity(stage) : null;
    if (q && Math.abs(q.value - (truths.get("unknown") ?? NaN)) <= plusMinus(q, "i95")) inside++;
  }
  return inside / count;
}

export function benchAssays(): void {
  const random = randomStream(1);
  const points = Array.from({ length: 30 }, (_, i) => ({
    x: 2 * (i % 6),
    y: 0.14 * (i % 6) + 0.003 * random.normal(),
  }));
  say(
    "line through 30 readings, median of 2,000",
    ms(median(timesOf(() => fitCalibration(points, "line"), 2000))),
    "",
  );
  const { record } = assay(1, 5);
  say(
    "evaluateRun, 36 readings of 6 standards, 2 unknowns, median of 200",
    ms(median(timesOf(() => evaluateRun(record), 200))),
    "",
  );
  for (const [flasks, readings] of [
    [25, 200],
    [100, 50],
    [100, 200],
  ] as const) {
    const whole = grown(record, flasks, readings);
    say(
      `evaluateRun, ${flasks} standards of ${readings} readings, median of 5`,
      ms(median(timesOf(() => evaluateRun(whole), 5))),
      "",
    );
  }
  const fit = mustHold(fitCalibration(points, "line"));
  const draw = () => {
    const running = bootstrapReadOff(fit, [0.31, 0.312, 0.309], { draws: 10_000, seed: 3 });
    while (!running.next().done);
  };
  say("bootstrap of an amount read off, 10,000 lines, median of 5", ms(median(timesOf(draw, 5))), "");
  const course = (n: number) => ({
    seconds: Array.from({ length: n }, (_, i) => (200 * i) / n),
    absorbance: Array.from(
      { length: n },
      (_, i) => 0.9 * Math.exp((-0.015 * 200 * i) / n) + 0.002 * random.normal(),
    ),
  });
  const [short, long] = [course(201), course(10_000)];
  say(
    "three orders fitted to 201 readings, median of 50",
    ms(median(timesOf(() => compareOrders(short), 50))),
    "",
  );
  say(
    "three orders fitted to 10,000 readings, median of 9",
    ms(median(timesOf(() => compareOrders(long), 9))),
    "",
  );
  say(
    "95 % intervals that held the truth, 1,000 simulated assays",
    `${(100 * held(1000)).toFixed(1)} %`,
    "93 to 97 %",
  );
}

/** A course of ten thousand points, as a request. */
export const longCourse = (): AddTrace => ({
  intent: "trace",
  id: newId(),
  stageKey: "fading",
  trialId: newId(),
  readings: [{ id: newId(), symbol: "c_B", kind: "given", text: "0.100" }],
  name: "long course",
  xUnit: "s",
  x: Array.from({ length: 10_000 }, (_, i) => i / 50),
  absorbance: Array.from({ length: 10_000 }, (_, i) =>
    Number((0.9 * Math.exp(-i / 5000) + 0.002 * Math.sin(i)).toFixed(4)),
  ),
  source: "imported",
  person: "",
});

/** Zooms and pans the chart of ten thousand points: from the event to the painted frame. */
export async function benchChart(page: Page, url: string, runId: string): Promise<void> {
  await page.goto(`${url}/runs/${runId}?stage=fading`, { waitUntil: "load" });
  const chart = page.getByRole("img", { name: /10000 readings/ });
  await chart.hover();
  const box = await chart.boundingBox();
  if (!box) throw new Error("no chart to measure");
  const frame = () =>
    page.evaluate(async () => {
      const began = performance.now();
      await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
      return performance.now() - began;
    });
  const times: number[] = [];
  await page.keyboard.down("Control");
  for (let i = 0; i < 20; i++) {
    const began = performance.now();
    await page.mouse.wheel(0, i < 10 ? -120 : 120);
    await frame();
    times.push(performance.now() - began);
  }
  await page.keyboard.up("Control");
  say("chart of 10,000 points, a step of zoom to the painted frame", ms(median(times)), "");
}

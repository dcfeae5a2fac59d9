import { acids } from "../catalog/constants/acids";
import { fitAcid, readCurve } from "../core/curves";
import { type Mixture, room, titrationCurve } from "../core/equilibria";
import { randomStream } from "../core/montecarlo";
import { adviceTrials } from "../core/testing/advice-trials";
import { median, ms, say, timesOf } from "./bench-parts";

/** Figures of whole curves: theory, fits, and what the advice is worth. */
export function benchCurves(): void {
  const base: Mixture = { acids: [], ions: [{ charge: 1, concentration: 0.1 }] };
  const citric = acids.find(({ key }) => key === "citric");
  if (!citric) throw new Error("No citric acid in the table");
  const flask: Mixture = { acids: [{ acid: citric, concentration: 0.02 }], ions: [] };
  const thousand = Array.from({ length: 1000 }, (_, i) => i / 25);
  const drawn = timesOf(() => titrationCurve({ flask, flaskMl: 50, titrant: base }, thousand, room), 20);
  say("1,000 points of the curve of citric acid", ms(median(drawn)), "20 ms");

  const random = randomStream(3);
  const acid = { charge: 0, steps: [{ pKa: 3.2 }, { pKa: 5.4 }] };
  const diprotic: Mixture = { acids: [{ acid, concentration: 0.02 }], ions: [] };
  const volumes = Array.from({ length: 60 }, (_, i) => i / 2);
  const setting = { ...room, pKw: 14 };
  const points = titrationCurve({ flask: diprotic, flaskMl: 50, titrant: base }, volumes, setting).map(
    ({ pH }, i) => ({ volume: volumes[i]!, value: pH + 0.01 * random.normal() }),
  );
  const fitting = { flaskMl: 50, base: 0.1, setting, uPH: 0.01, uMl: 0.01, offset: true };
  const fits = timesOf(() => fitAcid(points, fitting, { concentration: 0.021, pKas: [3, 5.6] }), 20);
  say("Fit of 60 points of a diprotic acid, four parameters", ms(median(fits)), "100 ms");
  const reading = { flaskMl: 50, titrant: 0.1, pKw: 14, uPH: 0.01, uMl: 0.01 };
  const whole = timesOf(() => readCurve(points, reading), 10);
  say("The same curve read in all ways, with two numbers of protons or three", ms(median(whole)), "–");
  const lines = timesOf(() => readCurve(points, { ...reading, fits: false }), 20);
  say("The same while it is being taken, without fits", ms(median(lines)), "–");

  const found = adviceTrials(200);
  say("Points that the advice takes, 200 acids (median)", String(found.points), "–");
  say("How far its end lies off (median)", `${found.off.toFixed(3)} mL`, "–");
  say("The farthest of them", `${found.farthest.toFixed(3)} mL`, "–");
  say("Points by equal steps of 0.5 mL (median)", String(found.equalPoints), "–");
  say("How far their end lies off (median)", `${found.equalOff.toFixed(3)} mL`, "–");
}

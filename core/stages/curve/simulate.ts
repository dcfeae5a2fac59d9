import { shownBy } from "../../curves";
import { meterOf } from "../../inputs";
import type { CurveStage } from "../../method";
import { unitOf } from "../../quantity";
import type { Observation, StageRecord } from "../../record";
import { buretteText } from "../../rules";
import { failure, type Result, success } from "../../result";
import { msg } from "../../text";
import { between, type Bench, follow, now } from "../bench/bench";
import { flask } from "../bench/photometer";
import type { CompiledStage } from "../compiled";
import { endsFor, protonsByTheory } from "./ends";
import { readerOf } from "./meters";

/** Points of one curve at most. */
const mostPoints = 90;

/** Curves of a stage that truly has the result that is said, or the presumed one: points are taken as the advice says. */
export function performCurves(
  stage: CompiledStage<CurveStage>,
  record: StageRecord,
  shared: ReadonlyMap<string, number>,
  bench: Bench,
): Result<number> {
  const { definition } = stage;
  const { key, curve, result, presumed, title } = definition;
  const { houseRules, truth } = bench.options;
  const input = definition.inputs.find((i) => i.is === "curve");
  if (!input) return failure(msg`This stage has no curve`);
  const target = (truth.results[key] ?? presumed) * unitOf(result.unit).factor;
  const reader = readerOf(input);
  const { decimals, unit } = meterOf(input);
  for (let number = 1; number <= 2; number++) {
    const { trial, truths } = flask(stage, number, {}, bench);
    const known = new Map([...shared, ...truths]);
    const molarMassOf = bench.world.molarMassOf;
    const ends = endsFor(stage, { known, target, stoichiometry: bench.compiled.stoichiometry, molarMassOf });
    if (!ends) return failure(msg`${title}: no volume gives that result`);
    const { symbol } = curve.titrant;
    const molPerL = symbol === undefined ? undefined : known.get(symbol);
    const titrant = molPerL === undefined ? curve.titrant.usual : molPerL / unitOf("mol/L").factor;
    const celsius = Number(houseRules.temperature.labC);
    const shown = shownBy(curve.theory, { flaskMl: curve.flaskMl, titrant, ends, celsius });
    const start = buretteText(between(bench, 0, 0.5), houseRules);
    const write = (kind: Observation["kind"], text: string, more: Partial<Observation> = {}) => {
      trial.observations.push({
        ...{ id: `${trial.id}/${input.symbol}/${kind}/${trial.observations.length}`, symbol: input.symbol },
        ...{ kind, text, value: text, unit: kind === "point" ? unit : "mL", source: "typed" },
        ...{ person: "simulated bench", at: now(bench), supersedes: null, reason: null },
        ...more,
      });
    };
    write("burette.initial", start);
    const points: { volume: number; value: number }[] = [];
    let reading = Number(start);
    for (let i = 0; i < mostPoints; i++) {
      const burette = buretteText(reading, houseRules);
      const value = shown(Number(burette) - Number(start)) + reader.scatter * bench.world.random.normal();
      write("point", value.toFixed(decimals), { point: { burette } });
      points.push({ volume: Number(burette) - Number(start), value: Number(value.toFixed(decimals)) });
      const found = reader.read(points, {
        ...{ flaskMl: curve.flaskMl, titrant, pKw: 14, uPH: reader.scatter, uMl: 0.01, fits: false },
      });
      const next = reader.next(points, found, {
        ...{ dropMl: 0.05, largestMl: curve.largestMl, until: curve.until ?? 0 },
      });
      if (next.do === "stop") break;
      reading += next.ml;
      if (reading > houseRules.burette.capacityMl)
        return failure(msg`${title}: the burette does not hold the whole curve`);
    }
    record.trials.push(trial);
    const all = new Map(known);
    curve.ends.forEach(({ symbol: end }, i) => all.set(end, (ends[i] ?? NaN) * unitOf("mL").factor));
    if (curve.protons !== undefined) all.set(curve.protons, protonsByTheory(curve));
    const { theory } = curve;
    if ("pKas" in theory) (curve.constants ?? []).forEach((c, i) => all.set(c, theory.pKas[i] ?? NaN));
    bench.earlier.set(key, follow(stage, all, bench));
  }
  return success(target);
}

import { type MeasuredAt, volumeFactor } from "../../measure";
import { unitOf } from "../../quantity";
import { solveForTiter } from "../../relation";
import { failure, type Result, success } from "../../result";
import { buretteText, replicatesNeeded } from "../../rules";
import { perOf } from "../../method";
import { type CompiledTitration } from "./compile";
import { type Input, quantityOfInput, volumeConditions, type Texts } from "../../inputs";
import type { TrialRecord, StageRecord } from "../../record";

import { type Bench, between, follow, observe, perform, reader } from "../bench/bench";
import { msg } from "../../text";

/** Two neighboring digits the other way round, as a hand writes what it did not hear well. */
function blundered(text: string, bench: Bench): string {
  const digits = [...text.matchAll(/\d(?=\.?\d)/g)].map((match) => match.index);
  const at = digits[Math.floor(between(bench, 0, digits.length))] ?? 0;
  const next = text.charAt(at + 1) === "." ? at + 2 : at + 1;
  const turned = [...text];
  [turned[at], turned[next]] = [text.charAt(next), text.charAt(at)];
  return turned.join("");
}

/** The readings of the burette for a titer that is truly `trueMl`, with the errors of glass, eye and hand. */
function titrate(
  input: Extract<Input, { is: "titer" }>,
  trueMl: number,
  place: MeasuredAt,
  bench: Bench,
): Result<Texts> {
  const { houseRules } = bench.options;
  const { capacityMl } = houseRules.burette;
  const { errors, world } = bench;
  const hand = errors.endPointMl * world.random.normal() + errors.dropMl * world.random.uniform();
  const delivered = trueMl + hand;
  const room = capacityMl - delivered - 0.5;
  if (room < 0) return failure(msg`The burette of ${capacityMl} mL does not hold ${delivered.toFixed(1)} mL`);
  const initial = buretteText(between(bench, 0, Math.min(2, room)), houseRules);
  // What the scale shows for this volume: the truth less the departures that belong to a reading of about this size.
  const near: Texts = {
    "burette.initial": initial,
    "burette.final": (Number(initial) + delivered).toFixed(6),
  };
  const stated = quantityOfInput(input, reader(near), place, houseRules);
  if (!stated) return failure(msg`A titer must be more than zero`);
  // The scale is read in the room, the truth holds at 20 °C.
  const departure = (world.truth(stated) - stated.value) / unitOf("mL").factor;
  const onScale = (delivered - departure) / volumeFactor(volumeConditions(houseRules));
  const final = buretteText(Number(initial) + onScale + Number(input.bias?.ml ?? 0), houseRules);
  const slips = errors.blunders > 0 && world.random.uniform() < errors.blunders;
  const written = slips ? blundered(final, bench) : final;
  const readable = Number(written) > Number(initial) && Number(written) <= capacityMl;
  return success({ "burette.initial": initial, "burette.final": readable ? written : final });
}

interface MadeTrial {
  readonly trial: TrialRecord;
  /** All symbols of the trial as they truly are. */
  readonly truths: ReadonlyMap<string, number>;
}

/** One trial of a titration whose stage truly is what it is said to be; or why it cannot be made. */
function makeTrial(
  stage: CompiledTitration,
  shared: ReadonlyMap<string, number>,
  number: number,
  bench: Bench,
): Result<MadeTrial> {
  const { definition, lines, titer } = stage;
  const { truth } = bench.options;
  const id = `${definition.key}-trial-${number}`;
  const place = { stage: definition.key, trial: id };
  const inputs = definition.inputs.filter((input) => perOf(input) === "trial");
  const { observations, truths } = perform(stage, inputs, id, place, bench);
  const target = truth.results[definition.key];
  if (target === undefined) return failure(msg`No true result is stated for ${definition.title}`);
  const solved = solveForTiter({
    relations: lines,
    stoichiometry: bench.compiled.stoichiometry,
    known: new Map([...shared, ...truths]),
    titer,
    target: definition.result.symbol,
    value: target * unitOf(definition.result.unit).factor,
    molarMassOf: bench.world.molarMassOf,
  });
  if (!solved.ok) return solved;
  const input = definition.inputs.find((i) => i.is === "titer");
  if (!input) return failure(msg`This stage has no titer`);
  const read = titrate(input, solved.value, place, bench);
  if (!read.ok) return read;
  const known = new Map([...shared, ...truths, [titer, solved.value * unitOf("mL").factor]]);
  const trial: TrialRecord = {
    id,
    number,
    label: null,
    kind: "fine",
    struck: null,
    observations: [...observations, ...observe(bench, id, input, read.value)],
  };
  return success({ trial, truths: follow(stage, known, bench) });
}

/** Trials of a true result until the set is closed. */
export function performTitration(
  stage: CompiledTitration,
  record: StageRecord,
  shared: ReadonlyMap<string, number>,
  bench: Bench,
): Result<number> {
  const { key, title, result } = stage.definition;
  const { houseRules, truth, mostTrials = 8 } = bench.options;
  const least = replicatesNeeded(houseRules.agreement);
  for (let number = 1; number <= mostTrials; number++) {
    const made = makeTrial(stage, shared, number, bench);
    if (!made.ok) return failure(msg`${title}: ${made.problem.message}`);
    record.trials.push(made.value.trial);
    bench.earlier.set(key, made.value.truths);
    if (number >= least && bench.closed(key)) break;
  }
  return success((truth.results[key] ?? NaN) * unitOf(result.unit).factor);
}

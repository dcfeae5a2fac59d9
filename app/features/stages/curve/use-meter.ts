import { useCallback, useEffect, useRef, useState } from "react";
import { shownBy } from "~/core/curves";
import { presentObservation } from "~/core/record";
import { methodOf, type RunRecord } from "~/core/run";
import { unitOf } from "~/core/quantity";
import { compiledMethod, type CurveEvaluation, type CurveStageEvaluation, endsFor } from "~/core/stages";
import type { Phrase } from "~/core/text";
import { type Clock, type InstrumentReading, type MeterActs, simulatedMeter, watched } from "~/devices";
import { hidden } from "../photometer/use-photometer";
import { curveInputOf } from "./use-curve-entry";

/** How much faster than the world the simulated meter lives: twenty seconds of waiting are over in one. */
const speed = 20;

const fastClock: Clock = {
  now: () => (performance.now() / 1000) * speed,
  every: (seconds, call) => {
    const timer = setInterval(call, (seconds * 1000) / speed);
    return () => clearInterval(timer);
  },
};

const seedOf = (text: string) => [...text].reduce((h, c) => (h * 31 + c.charCodeAt(0)) >>> 0, 11);

/**
 * What a true meter would show of the beaker in hand: an unknown near what the method presumes, by what was weighed or taken, and nobody is
 * told. Before anything is taken, as if the usual amount were.
 */
export function truthOf(
  record: RunRecord,
  { definition, key }: CurveStageEvaluation,
  curve: CurveEvaluation | null,
): (addedMl: number) => number {
  const method = compiledMethod(methodOf(record));
  const compiled = method.stages.get(key);
  const { curve: of, result, presumed } = definition;
  const known = new Map([...(curve?.symbols ?? [])].map(([symbol, q]) => [symbol, q.value]));
  // A substance has its mass, but for what it is not pure; how much of it there is may be anything near what is usual.
  const spread = of.protons === undefined ? 0.06 : 0.003;
  const target = presumed * unitOf(result.unit).factor * (1 + spread * hidden(`${record.id}${key}`));
  const ends =
    compiled && compiled.definition.kind === "curve"
      ? endsFor(
          { definition: compiled.definition, lines: compiled.lines },
          { known, target, stoichiometry: method.stoichiometry },
        )
      : null;
  const titrant = curve?.setting.titrant ?? of.titrant.usual;
  const usualEnds = of.ends.map(({ part }) => 20 * part);
  return shownBy(of.theory, {
    ...{ flaskMl: of.flaskMl, titrant, ends: ends ?? usualEnds },
    celsius: Number(record.houseRules.temperature.labC),
  });
}

/** The calibration that is written down in a run; what a meter takes that was never calibrated where there is none. */
export function calibrationIn(record: RunRecord, { key, definition }: CurveStageEvaluation) {
  const input = definition.inputs.find((one) => one.is === "meter");
  const observations = record.stages.find((s) => s.key === key)?.observations ?? [];
  const [slope, offset] = (["meter.slope", "meter.offset"] as const).map((kind) =>
    input ? presentObservation(observations, input.symbol, kind) : null,
  );
  return {
    symbol: input?.symbol ?? null,
    written: slope !== null,
    slopePercent: slope ? Number(slope.value) : 100,
    offsetMv: offset ? Number(offset.value) : 0,
  };
}

export interface Meter {
  readonly state: "off" | "connecting" | "on" | "failed";
  readonly message: Phrase;
  readonly reading: InstrumentReading | null;
  readonly act: MeterActs | null;
  /** What is shown is that of a beaker which has just changed: it is no steady reading any more. */
  readonly unsettle: () => void;
  readonly connect: () => void;
  readonly disconnect: () => void;
}

/** The simulated meter of a stage: one for all its beakers, calibrated as it is written down. */
export function useMeter(record: RunRecord, stage: CurveStageEvaluation): Meter {
  const [state, setState] = useState<Meter["state"]>("off");
  const [message, setMessage] = useState<Phrase>("");
  const [reading, setReading] = useState<InstrumentReading | null>(null);
  const [act, setAct] = useState<MeterActs | null>(null);
  const close = useRef<(() => void) | null>(null);
  const { reads } = curveInputOf(stage);
  const celsius = Number(record.houseRules.temperature.labC);

  const connect = useCallback(() => {
    setState("connecting");
    void (async () => {
      const made = await simulatedMeter({
        seed: seedOf(`${record.id}${Date.now()}`),
        reads,
        celsius,
      }).connect(fastClock);
      if (!made.ok) {
        setState("failed");
        return setMessage(made.problem.message);
      }
      // Silence is counted in our own time: a busy computer is late by seconds of the simulated one.
      const stop = watched(made.value, (next) => {
        setState(next.ok ? "on" : "failed");
        if (next.ok) setReading(next.value);
        else setMessage(next.problem.message);
      });
      close.current = () => {
        stop();
        made.value.disconnect();
      };
      setAct(made.value.act);
      setState("on");
    })();
  }, [record.id, reads, celsius]);
  const disconnect = useCallback(() => {
    close.current?.();
    close.current = null;
    setAct(null);
    setReading(null);
    setState("off");
  }, []);
  useEffect(() => () => close.current?.(), []);

  const { slopePercent, offsetMv } = calibrationIn(record, stage);
  useEffect(() => act?.calibrate({ slopePercent, offsetMv }), [act, slopePercent, offsetMv]);
  const unsettle = useCallback(() => setReading((now) => now && { ...now, stable: false }), []);
  return { state, message, reading, act, unsettle, connect, disconnect };
}

/** Puts the electrode of a meter into the beaker in hand, with what was added to it. */
export function useBeaker(
  { act, unsettle }: Meter,
  record: RunRecord,
  stage: CurveStageEvaluation,
  curve: CurveEvaluation | null,
  addedMl: number | null,
): void {
  // What was weighed and taken makes the beaker, and the symbols of a curve change with each point: only what the truth is made of counts.
  const fixed = JSON.stringify(
    curve?.record.observations.filter(({ kind }) => kind !== "point").map(({ id }) => id) ?? [],
  );
  const latest = useRef({ record, stage, curve });
  useEffect(() => {
    latest.current = { record, stage, curve };
  });
  const beaker = `${curve?.id ?? "next"} ${fixed}`;
  useEffect(() => {
    const now = latest.current;
    act?.dip(truthOf(now.record, now.stage, now.curve));
    unsettle();
  }, [act, beaker, unsettle]);
  useEffect(() => {
    if (addedMl === null || addedMl < 0) return;
    act?.added(addedMl);
    unsettle();
  }, [act, addedMl, unsettle]);
}

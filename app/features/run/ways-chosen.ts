import { useState } from "react";
import { detailsOf, type Input, isWay, waysToMeasure, withDetails } from "~/core/inputs";
import { readingsUnder } from "~/core/change";
import { dilutionOf, isAdapted, type RunRecord } from "~/core/run";
import { msg, type Phrase } from "~/core/text";
import type { Step } from "./in-order";
import { inputsOf } from "./measured-in";

/* What the amounts of a stage are measured with, while it is chosen. */

const isSame = (a: Input, b: Input): boolean => JSON.stringify(sorted(a)) === JSON.stringify(sorted(b));
const sorted = (input: Input) => Object.entries(input).sort(([a], [b]) => a.localeCompare(b));

/** What is told of readings that were taken the other way; null where none were. */
function keptUnder(record: RunRecord, stageKey: string, own: Input, chosen: Input): Phrase | null {
  const others = (record.choices ?? []).filter(
    (c) => c.stageKey !== stageKey || !("input" in c) || c.input.symbol !== own.symbol,
  );
  const after = { ...record, choices: [...others, { stageKey, input: chosen }] };
  const { kept } = readingsUnder(after, stageKey, own.symbol);
  return kept === 0
    ? null
    : msg`Readings taken the other way are kept (${kept}); they count again when it is measured so.`;
}

/** The way that is chosen for an amount, and what was typed of the piece. */
interface Chosen {
  readonly way: string;
  readonly texts: Readonly<Record<string, string>>;
}

/** An amount that is measured: as the method has it, as the run has it now, and how else it can be. */
function measuredIn(record: RunRecord, stageKey: string) {
  const chosen = (record.choices ?? []).flatMap((c) =>
    c.stageKey === stageKey && "input" in c ? [c.input] : [],
  );
  return inputsOf(record, stageKey).flatMap((own) => {
    const ways = waysToMeasure(own, record.houseRules);
    const now = chosen.find(({ symbol }) => symbol === own.symbol) ?? own;
    return ways.length > 0 ? [{ own, now, ways }] : [];
  });
}
type Measured = ReturnType<typeof measuredIn>[number];

const textsOf = (input: Input) => Object.fromEntries(detailsOf(input).map(({ key, text }) => [key, text]));

/** The input whose details are asked for: that of now where its way is kept, else that of the other way. */
function askedOf({ own, now, ways }: Measured, chosen: string): Input {
  const way = ways.find(({ key }) => key === chosen);
  if (way === undefined || isWay(way, now)) return now;
  return isWay(way, own) ? own : way.input;
}

/** What is wrong, with the amount that it is about, and the detail where it is about one. */
export interface WayProblem {
  readonly symbol: string;
  readonly key?: string;
  readonly message: Phrase;
}

/** The choice of what the amounts of a stage are measured with. */
export function useWaysChosen(record: RunRecord, stageKey: string) {
  const measured = measuredIn(record, stageKey);
  const own = record.method.stages.find(({ key }) => key === stageKey);
  const dilution = own ? dilutionOf(own) : null;
  const [undiluted, setUndiluted] = useState(() => isAdapted(record, stageKey, "undiluted"));
  const [all, setAll] = useState<Readonly<Record<string, Chosen>>>(() =>
    Object.fromEntries(
      measured.map((one) => [
        one.own.symbol,
        { way: one.ways.find((w) => isWay(w, one.now))?.key ?? "", texts: textsOf(one.now) },
      ]),
    ),
  );
  // What is not diluted is not measured out for it.
  const left = new Set(undiluted && dilution ? [dilution.taken.symbol, dilution.flask.symbol] : []);

  const amounts = measured
    .filter((one) => !left.has(one.own.symbol))
    .map((one) => {
      const { symbol } = one.own;
      const chosen = all[symbol] ?? { way: "", texts: {} };
      const asked = askedOf(one, chosen.way);
      const described = withDetails(asked, chosen.texts);
      const input = described.ok ? described.value : asked;
      const set = (to: Chosen) => setAll({ ...all, [symbol]: to });
      return {
        ...{ ...one, chosen, described, input, details: detailsOf(asked) },
        kept: keptUnder(record, stageKey, one.own, input),
        choose: (way: string) => set({ way, texts: textsOf(askedOf(one, way)) }),
        type: (key: string, text: string) => set({ ...chosen, texts: { ...chosen.texts, [key]: text } }),
      };
    });

  /** The changes that make it so, or what is wrong. */
  const steps = (): readonly Step<string>[] | WayProblem => {
    const made: Step<string>[] = [];
    if (dilution && undiluted !== isAdapted(record, stageKey, "undiluted"))
      made.push({
        at: dilution.taken.symbol,
        change: () => ({ intent: "adapt", stageKey, adapted: "undiluted", on: undiluted }),
      });
    for (const { own: theirs, now, described } of amounts) {
      const { symbol } = theirs;
      if (!described.ok) return { symbol, ...described.problem };
      const input = described.value;
      if (isSame(input, now)) continue;
      const chosen = isSame(input, theirs) ? null : input;
      made.push({ at: symbol, change: () => ({ intent: "choose-input", stageKey, symbol, input: chosen }) });
    }
    return made;
  };
  return { amounts, dilution, undiluted, setUndiluted, steps };
}

import { failure, type Result, success } from "../result";
import { durationText } from "./timer";
import { msg } from "../text";

/** Several flasks that must each stand just as long and are titrated one after the other, by one pair of hands. */
export interface StaggerRequest {
  readonly flasks: number;
  /** How long each stands, s. */
  readonly standing: number;
  /** How long one titration takes, with rinsing and filling, s. */
  readonly titration: number;
  /** How long it takes to start one, s: to add the reagent, swirl, stopper. */
  readonly starting: number;
  /** How much time there is in all, s; null where that does not matter. */
  readonly available: number | null;
}

export interface StaggeredFlask {
  readonly flask: number;
  /** When to start it, s from the first start. */
  readonly startAt: number;
  /** When its titration begins: it has stood for its time then. */
  readonly titrateAt: number;
  readonly endAt: number;
}

export interface Stagger {
  readonly flasks: readonly StaggeredFlask[];
  /** From one start to the next, s. */
  readonly every: number;
  readonly total: number;
  /** "first all starts": the last flask is started before the first is titrated; "in turn": a start between two titrations. */
  readonly how: "first all starts" | "in turn";
}

/** Whether starts and titrations of flasks at equal distances never ask for the hands at the same time. */
function handsAreFree(every: number, { flasks, standing, titration, starting }: StaggerRequest): boolean {
  const busy = Array.from({ length: flasks }, (_, i) => [
    [i * every, i * every + starting] as const,
    [i * every + starting + standing, i * every + starting + standing + titration] as const,
  ])
    .flat()
    .sort((a, b) => a[0] - b[0]);
  return busy.every(([from], i) => i === 0 || from >= (busy[i - 1]?.[1] ?? 0) - 1e-9);
}

function laidOut(every: number, request: StaggerRequest): Stagger {
  const { standing, titration, starting } = request;
  const flasks = Array.from({ length: request.flasks }, (_, i): StaggeredFlask => {
    const startAt = i * every;
    const titrateAt = startAt + starting + standing;
    return { flask: i + 1, startAt, titrateAt, endAt: titrateAt + titration };
  });
  const last = flasks.at(-1);
  const first = flasks[0];
  return {
    flasks,
    every,
    total: last?.endAt ?? 0,
    how: last && first && last.startAt + starting <= first.titrateAt + 1e-9 ? "first all starts" : "in turn",
  };
}

/**
 * The shortest plan in which flasks start at equal distances, each stands for exactly its time, none waits for the burette,
 * and nobody needs three hands: starts and titrations never overlap. Distances are tried in steps of five seconds from the
 * shortest possible one; with a distance of the whole (standing and titration) one after the other it always works.
 */
function shortest(request: StaggerRequest): Stagger {
  const { flasks, standing, titration, starting } = request;
  const least = Math.max(titration, starting);
  const most = starting + standing + titration;
  for (let every = flasks === 1 ? most : Math.ceil(least / 5) * 5; every < most; every += 5) {
    if (handsAreFree(every, request)) return laidOut(every, request);
  }
  return laidOut(most, request);
}

/**
 * When to start each of several standing flasks so that none waits. Fails, with the reason and the nearest plan that can be
 * done, where the time does not suffice; and for numbers that cannot be.
 */
export function planStagger(request: StaggerRequest): Result<Stagger> {
  const { flasks, standing, titration, starting, available } = request;
  if (!Number.isInteger(flasks) || flasks < 1 || flasks > 24) return failure(msg`From 1 to 24 flasks`);
  if (!(standing > 0)) return failure(msg`Say how long each flask must stand`);
  if (!(titration > 0)) return failure(msg`Say how long one titration takes`);
  if (!(starting >= 0)) return failure(msg`The time to start a flask cannot be negative`);
  const plan = shortest(request);
  if (available === null || plan.total <= available) return success(plan);
  const needs = msg`${flasks === 1 ? msg`One flask needs` : msg`${flasks} flasks need`} ${durationText(plan.total)}, and there are only ${durationText(available)}.`;
  for (let fewer = flasks - 1; fewer >= 1; fewer--) {
    const smaller = shortest({ ...request, flasks: fewer });
    if (smaller.total > available) continue;
    return failure(
      msg`${needs} ${fewer === 1 ? msg`One flask` : msg`${fewer} flasks`} can be done, in ${durationText(smaller.total)}.`,
    );
  }
  return failure(
    msg`${needs} Not even one fits: it stands ${durationText(standing)} and takes ${durationText(starting + titration)} of work.`,
  );
}

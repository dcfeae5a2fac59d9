import { type RefObject, useCallback, useEffect, useMemo, useReducer, useRef, useState } from "react";
import type { RunRequest } from "~/protocol/requests";
import type { RunState, RunStep } from "~/protocol/answers";
import { canWait, withWaiting } from "~/protocol/waiting";
import type { UnsentChange } from "../live/browser-database";
import { keep, onSent, somethingWaits, useOutbox } from "../live/outbox";
import { isTaken, type ChangeOutcome, postChange } from "../live/post";
import { device } from "../live/device";
import { sameEra } from "../live/era";
import { keepSeen, seenRun } from "../live/seen-runs";
import { useLive } from "../live/stream";
import { clockOffset } from "../live/timers";
import { mayBeOld, taken, takenFirst } from "../live/taken";
import { pressOver } from "../ui/press";
import { msg, type Phrase } from "~/core/text";

export type Send = (request: RunRequest) => Promise<ChangeOutcome>;

export interface LiveRun extends RunState {
  readonly send: Send;
  /** What came of a change that nobody waits for, where it was not made. */
  readonly trouble: Phrase | null;
  /** What of this run is still in this browser alone. */
  readonly kept: readonly UnsentChange[];
}

/** Changes made by one press, without a dialog that tells how they ended. */
const silent: readonly RunRequest["intent"][] = [
  "mark",
  "restore",
  "undo",
  "redo",
  "start-timer",
  "begin-timer",
  "end-timer",
  "faded",
  "choose",
  "put-away",
  "bring-back",
];

/** A run whose changes were not heard is asked for again as long as it was not told, ms. */
const missedAgainMs = 3000;

const waits: ChangeOutcome = {
  status: "waiting",
  message: msg`No answer from the server. Kept in this browser and sent when the server is back.`,
};

const keptNowhere: ChangeOutcome = {
  status: "unreachable",
  message: msg`Not saved: the server does not answer and this browser cannot store anything. Your reading is still in the field; press Enter to try again.`,
};

/** Keeps a change in this browser, where the browser lets it. */
async function keepHere(...change: Parameters<typeof keep>): Promise<ChangeOutcome> {
  try {
    await keep(...change);
    return waits;
  } catch {
    return keptNowhere;
  }
}

/**
 * The run as the server last told it: by the loader, by the answer to each change, or since another device changed it; and on
 * top of that what waits in this browser. Changes are sent one after the other, in the order in which they were made.
 */
export function useRun(loaded: RunState): LiveRun {
  const runId = loaded.record.id;
  const [seen, setSeen] = useState(loaded);
  const [now, take] = useReducer(taken, loaded, takenFirst);
  const { state } = now;
  const missed = mayBeOld(now);
  if (seen !== loaded) {
    setSeen(loaded);
    take(loaded);
  }
  const [trouble, setTrouble] = useState<Phrase | null>(null);
  useSeenRun(state, take);

  const refresh = useCallback(async () => {
    try {
      const response = await fetch(`/runs/${runId}/state`, { headers: { "X-Device": device } });
      // Too much was asked at once, say: until it is told, what is shown may be old.
      if (!response.ok && response.status !== 404) take("unsure");
      if (!response.ok || !sameEra(response)) return;
      const whole = (await response.json()) as RunState;
      await pressOver();
      take(whole);
    } catch {
      // Out of reach: the screen stays as it is, and asks again when the stream is back.
    }
  }, [runId]);
  useEffect(() => {
    if (!missed) return;
    void refresh();
    const again = setInterval(() => void refresh(), missedAgainMs);
    return () => clearInterval(again);
  }, [missed, refresh]);
  useLive((event) => {
    if (event === "connected") void refresh();
    else if (event.runId === runId) {
      const { step } = event;
      if (step) void pressOver().then(() => take(step));
      else void refresh();
    }
  });
  useEffect(
    () =>
      onSent((of, answer) => {
        if (of !== runId || answer.status !== "done") return;
        if (answer.update) take(answer.update);
        setTrouble(null);
      }),
    [runId],
  );

  const revision = useRef(state.revision);
  useEffect(() => {
    revision.current = state.revision;
  }, [state]);
  const send = useSend({ runId, revision, take, setTrouble, refresh });

  const outbox = useOutbox();
  const kept = useMemo(() => outbox.filter((k) => k.runId === runId), [outbox, runId]);
  const record = useMemo(() => {
    const waiting = kept.filter((k) => k.refused === null);
    return waiting.length === 0 ? state.record : withWaiting(state.record, waiting, clockOffset());
  }, [state.record, kept]);
  return { ...state, record, send, trouble, kept };
}

/**
 * Keeps the run in this browser as it was last told, and takes what was told after the page was made: one that was loaded out of
 * reach is as old as it was when it was opened.
 */
function useSeenRun(state: RunState, take: (next: RunState) => void): void {
  const runId = state.record.id;
  useEffect(() => {
    void seenRun(runId).then((seen) => seen && take(seen));
  }, [runId, take]);
  useEffect(() => {
    // A run with courses or spectra is large: it is kept once nothing more comes.
    const large = state.record.stages.some(({ traces = [] }) => traces.length > 0);
    const later = setTimeout(() => void keepSeen(state), large ? 2000 : 0);
    return () => clearTimeout(later);
  }, [state]);
}

interface SendingParts {
  readonly runId: string;
  readonly revision: RefObject<number>;
  readonly take: (next: RunState | RunStep) => void;
  readonly setTrouble: (trouble: Phrase | null) => void;
  readonly refresh: () => Promise<void>;
}

/** Sends one change after the other; what cannot reach the server is kept in this browser. */
function useSend({ runId, revision, take, setTrouble, refresh }: SendingParts): Send {
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  return useCallback<Send>(
    (request) => {
      const make = async (): Promise<ChangeOutcome> => {
        if (canWait(request) && somethingWaits(runId)) return keepHere(runId, request);
        const posted = await postChange(runId, request, revision.current);
        if (posted.status === "done") {
          if (posted.update) take(posted.update);
          setTrouble(null);
          return posted;
        }
        if (posted.status === "unreachable" && canWait(request)) {
          // Why, where the server could tell: its disk is full.
          if (posted.byServer) setTrouble(posted.message);
          return keepHere(runId, request);
        }
        // It is tried again from there, and set aside if that does not help: nothing else waits for it then.
        if (posted.status === "failed" && canWait(request)) {
          const here = await keepHere(runId, request);
          return here === waits ? waits : posted;
        }
        if (
          posted.status === "refused" &&
          posted.present &&
          request.intent === "observe" &&
          request.supersedes === null
        ) {
          // Two readings for one field: this one is kept too, until someone says which it is.
          const here = await keepHere(runId, request, { refused: posted.message, standing: posted.present });
          await refresh();
          return here === waits ? waits : posted;
        }
        return posted;
      };
      const attempt = async () => {
        const outcome = await make();
        if (!isTaken(outcome) && silent.includes(request.intent)) setTrouble(outcome.message);
        return outcome;
      };
      const answer = queue.current.then(attempt);
      queue.current = answer;
      return answer;
    },
    [runId, revision, take, setTrouble, refresh],
  );
}

import { useCallback, useRef, useState } from "react";
import type { RunRequest } from "~/formats/requests";
import type { RunState } from "~/formats/answers";
import { type Outcome, postChange } from "./changes";

export type Send = (request: RunRequest) => Promise<Outcome>;

export interface LiveRun extends RunState {
  readonly send: Send;
  /** What came of a change that nobody waits for, where it was not made. */
  readonly trouble: string | null;
}

/** Changes made by one press, without a dialog that tells how they ended. */
const silent: readonly RunRequest["intent"][] = ["mark", "restore", "undo"];

/**
 * The run as the server last told it: first by the loader, then by the answer to each change. Changes are sent one after
 * the other, in the order in which they were made.
 */
export function useRun(loaded: RunState): LiveRun {
  const [seen, setSeen] = useState(loaded);
  const [state, setState] = useState(loaded);
  if (seen !== loaded) {
    setSeen(loaded);
    setState(loaded);
  }
  const [trouble, setTrouble] = useState<string | null>(null);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const runId = loaded.record.id;
  const send = useCallback<Send>(
    (request) => {
      const answer = queue.current.then(async () => {
        const said = await postChange(runId, request);
        if (said.status === "done" && said.state) setState(said.state);
        if (said.status === "done" || silent.includes(request.intent))
          setTrouble(said.status === "done" ? null : said.message);
        return said;
      });
      queue.current = answer;
      return answer;
    },
    [runId],
  );
  return { ...state, send, trouble };
}

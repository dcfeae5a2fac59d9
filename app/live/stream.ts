import { useEffect, useEffectEvent } from "react";
import type { LiveMessage, RunChanged } from "~/protocol/answers";
import { device } from "./device";
import { setReached } from "./reach";

/** What is heard: a change that another device made, or that the server can be reached (again), so that all may have changed. */
export type LiveEvent = RunChanged | "connected";

const name = "steady-bead.live";
const listeners = new Set<(event: LiveEvent) => void>();
let begun = false;

/** What one tab hears and tells the others: beside that, that the server cannot be reached any more. */
type SharedEvent = LiveMessage | "connected" | "lost";

function notify(shared: SharedEvent): void {
  if (shared === "lost") return setReached(false);
  setReached(true);
  // The lab was exchanged: nothing that this page shows is sure. What was being typed is kept in the browser.
  if (shared !== "connected" && "reload" in shared) return window.location.reload();
  const event: LiveEvent = shared;
  if (event !== "connected" && event.device === device && !event.timers) return;
  listeners.forEach((listener) => listener(event));
}

/** Listens to the server and passes on what it says; gives what ends that. */
function listen(pass: (event: SharedEvent) => void): () => void {
  let source: EventSource;
  let again: ReturnType<typeof setTimeout> | undefined;
  const connect = () => {
    source = new EventSource(`/live?device=${device}`);
    source.onopen = () => pass("connected");
    source.onmessage = (event: MessageEvent<string>) => pass(JSON.parse(event.data) as LiveMessage);
    // The browser tries again by itself, unless the server refused for good.
    source.onerror = () => {
      pass("lost");
      if (source.readyState === EventSource.CLOSED) again = setTimeout(connect, 2000);
    };
  };
  connect();
  return () => {
    clearTimeout(again);
    source.close();
  };
}

/**
 * A browser keeps few connections to one server, and a stream holds one for good: of all tabs one listens and tells the
 * others, and when it closes the next one does.
 */
function listenForAll(): void {
  const others = new BroadcastChannel(name);
  let listens = false;
  others.onmessage = (event: MessageEvent<SharedEvent>) => notify(event.data);
  void navigator.locks.request(name, () => {
    listens = true;
    listen((event) => {
      notify(event);
      others.postMessage(event);
    });
    return new Promise(() => {});
  });
  // Another one does: this tab asks once for what was told before it was there.
  setTimeout(() => !listens && listeners.forEach((listener) => listener("connected")), 300);
}

/** Where tabs cannot agree on one (only https or the machine itself lets them), each listens while it is looked at. */
function listenWhileSeen(): void {
  let end: (() => void) | null = null;
  const turn = () => {
    if (document.visibilityState === "hidden") {
      end?.();
      end = null;
    } else end ??= listen(notify);
  };
  document.addEventListener("visibilitychange", turn);
  turn();
}

function begin(): void {
  if (begun) return;
  begun = true;
  if ("locks" in navigator) listenForAll();
  else listenWhileSeen();
}

/** Calls for each change that other devices make, while the component stands. */
export function useLive(listener: (event: LiveEvent) => void): void {
  const latest = useEffectEvent(listener);
  useEffect(() => onLive((event) => latest(event)), []);
}

/** Hears of changes outside of any component; gives what ends that. */
export function onLive(listener: (event: LiveEvent) => void): () => void {
  listeners.add(listener);
  begin();
  return () => void listeners.delete(listener);
}

import { EventEmitter } from "node:events";
import type { LiveMessage } from "../protocol/answers";

/** Everybody who listens for changes, kept on the global object so that a reloaded module in development finds them again. */
const holder = globalThis as { steadyBeadListeners?: EventEmitter };
const listeners = (holder.steadyBeadListeners ??= new EventEmitter().setMaxListeners(0));

/** Tells all open screens that a run has changed; after the change is safely written. */
export const announce = (message: LiveMessage): void => void listeners.emit("message", message);

/** Hears of each change until it is told to stop. */
export function listen(listener: (message: LiveMessage) => void): () => void {
  listeners.on("message", listener);
  return () => listeners.off("message", listener);
}

/** How many streams are open now. */
export const listenersCount = (): number => listeners.listenerCount("message");

import type { RequestHandler } from "express";
import { isStream } from "../http/stream-path";

/** Requests that are being answered, and whether new ones wait: while the database is exchanged nobody may have it in hand. */
const holder = globalThis as { steadyBeadPause?: { under: number; paused: string | null } };
const state = (holder.steadyBeadPause ??= { under: 0, paused: null });

/** Answers 503 while the lab is being exchanged; browsers keep what they have and try again. */
export const whileOpen: RequestHandler = (request, response, next) => {
  if (isStream(request.path)) return next();
  if (state.paused !== null) {
    response.status(503).set("Retry-After", "2").json({ message: state.paused });
    return;
  }
  state.under++;
  response.once("close", () => state.under--);
  next();
};

const patienceMs = 15_000;

/** Does something while no request is being answered, except for `own` of them, which asked for it. */
export async function paused<T>(words: string, own: number, work: () => Promise<T>): Promise<T> {
  if (state.paused !== null) throw new Error(state.paused);
  state.paused = words;
  try {
    const until = Date.now() + patienceMs;
    while (state.under > own && Date.now() < until) await new Promise((resolve) => setTimeout(resolve, 20));
    if (state.under > own) throw new Error("Requests are still being answered. Try again in a moment");
    return await work();
  } finally {
    state.paused = null;
  }
}

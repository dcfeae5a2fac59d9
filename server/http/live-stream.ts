import type { RequestHandler } from "express";
import type { LiveMessage } from "../../protocol/answers";
import { listen } from "../live";

/** So that a connection that has died is noticed, ms. */
const beatMs = 15_000;
/** A screen that does not take what it is sent is let go of, bytes: it asks for everything when it comes back. */
const mostUntaken = 1024 * 1024;

/** The text of each message, written once for all screens. */
const lines = new WeakMap<LiveMessage, string>();
function lineOf(message: LiveMessage): string {
  const line = lines.get(message) ?? `data: ${JSON.stringify(message)}\n\n`;
  lines.set(message, line);
  return line;
}

/**
 * A stream of changes for open screens: one message each, a beat in between. It ends when the screen goes away. Written to the
 * connection itself, since what stands between keeps something of each message for as long as a stream is open.
 */
export const liveStream: RequestHandler = (_request, response) => {
  response.writeHead(200, {
    "Content-Type": "text/event-stream",
    // Nothing on the way may hold it back to pack it tighter.
    "Cache-Control": "no-store, no-transform",
  });
  const send = (line: string) => {
    if (response.writableLength > mostUntaken) response.destroy();
    else response.write(line);
  };
  send("retry: 1000\n\n");
  const stop = listen((message) => send(lineOf(message)));
  const beat = setInterval(() => send(": here\n\n"), beatMs);
  response.once("close", () => {
    stop();
    clearInterval(beat);
  });
};

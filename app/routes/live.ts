import { listen } from "~/server/live";
import type { Route } from "./+types/live";

/** So that a connection that has died is noticed, ms. */
const beatMs = 15_000;

/** A stream of changes for open screens: one message each, a beat in between. It ends when the screen goes away. */
export function loader({ request }: Route.LoaderArgs) {
  const text = new TextEncoder();
  let end = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (line: string) => controller.enqueue(text.encode(line));
      const stop = listen((message) => send(`data: ${JSON.stringify(message)}\n\n`));
      const beat = setInterval(() => send(": here\n\n"), beatMs);
      send("retry: 1000\n\n");
      end = () => {
        stop();
        clearInterval(beat);
      };
      request.signal.addEventListener("abort", () => {
        end();
        try {
          controller.close();
        } catch {
          // The reader was faster.
        }
      });
    },
    cancel: () => end(),
  });
  return new Response(stream, {
    headers: {
      "Content-Type": "text/event-stream",
      // Nothing on the way may hold it back to pack it tighter.
      "Cache-Control": "no-store, no-transform",
    },
  });
}

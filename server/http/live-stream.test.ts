import { afterEach, beforeEach, expect, test } from "@jest/globals";
import { once } from "node:events";
import { createServer, type Server } from "node:http";
import { type AddressInfo, connect } from "node:net";
import express from "express";
import type { LiveMessage, RunChanged } from "~/protocol/answers";
import { announce, listenersCount } from "../live";
import { liveStream } from "./live-stream";

let server: Server;
let port: number;
beforeEach(async () => {
  server = createServer(express().get("/live", liveStream));
  server.listen(0, "127.0.0.1");
  await once(server, "listening");
  ({ port } = server.address() as AddressInfo);
});
afterEach(async () => {
  server.closeAllConnections();
  server.close();
  await once(server, "close");
});

const change = (description: string): RunChanged => ({
  runId: "01a22652-b6ea-7000-8000-073433c53844",
  timers: false,
  device: "tablet",
  step: { from: 3, patch: [{ op: "replace", path: "/undo/description", value: description }] },
});

/** What a screen hears until it has heard so many messages. */
async function heardBy(signal: AbortSignal, count: number): Promise<LiveMessage[]> {
  const answer = await fetch(`http://127.0.0.1:${port}/live`, { signal });
  expect(answer.headers.get("content-type")).toBe("text/event-stream");
  expect(answer.headers.get("cache-control")).toContain("no-transform");
  const received: LiveMessage[] = [];
  let rest = "";
  for await (const part of answer.body!.pipeThrough(new TextDecoderStream())) {
    const events = (rest + part).split("\n\n");
    rest = events.pop() ?? "";
    received.push(
      ...events.flatMap((event) =>
        event.startsWith("data: ") ? [JSON.parse(event.slice(6)) as LiveMessage] : [],
      ),
    );
    if (received.length >= count) break;
  }
  return received;
}

/** Until so many streams are open. */
const listening = async (count: number) => {
  while (listenersCount() !== count) await new Promise((resolve) => setTimeout(resolve, 5));
};

test("all screens hear each change whole and in order, and one that goes away is let go of", async () => {
  const before = listenersCount();
  const ending = new AbortController();
  const screens = [1, 2, 3].map(() => heardBy(ending.signal, 3));
  await listening(before + 3);
  // Line breaks and letters of more than one byte in what people typed do not break a message.
  const sent = ["0.5106 g", "“Rinse”\n\ndata: {}", "± 0.02 mL, Ä"].map(change);
  sent.forEach(announce);
  for (const received of await Promise.all(screens)) expect(received).toEqual(sent);
  ending.abort();
  await listening(before);
});

test("a screen that does not take what it is sent is let go of, and holds up no other", async () => {
  const before = listenersCount();
  const slow = connect(port, "127.0.0.1");
  slow.on("error", () => undefined);
  slow.pause();
  slow.write(`GET /live HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n`);
  await listening(before + 1);
  const ending = new AbortController();
  const quick = heardBy(ending.signal, 400);
  await listening(before + 2);
  const large = change("x".repeat(50_000));
  for (let i = 0; i < 400; i++) {
    announce(large);
    // As much as a lively class tells, not all in one moment.
    await new Promise((resolve) => setImmediate(resolve));
  }
  expect(await quick).toHaveLength(400);
  ending.abort();
  await listening(before);
  slow.destroy();
});

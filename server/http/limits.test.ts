import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { expect, test } from "@jest/globals";
import express from "express";
import { limits } from "./limits";

/** Serves behind the limits and asks by the path and the device. */
async function behindLimits(routes: (app: express.Express) => void, use: (url: string) => Promise<void>) {
  const app = express();
  app.use(...limits(60_000));
  routes(app);
  const server = createServer(app);
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  try {
    await use(`http://127.0.0.1:${(server.address() as AddressInfo).port}`);
  } finally {
    server.closeAllConnections();
    server.close();
  }
}

test("a stream counts while it is open, with a slash behind it too", async () => {
  await behindLimits(
    (app) => app.get(/^\/live/, (_request, response) => void response.write("open")),
    async (url) => {
      const ending = new AbortController();
      const open = (path: string) => fetch(`${url}${path}?device=one`, { signal: ending.signal });
      const opened = [];
      for (const path of ["/live", "/live/", "/live", "/live/"]) opened.push((await open(path)).status);
      expect(opened).toEqual([200, 200, 200, 200]);
      expect((await open("/live/")).status).toBe(429);
      expect((await open("/live")).status).toBe(429);
      ending.abort();
    },
  );
});

/* Requests of one device within one window; the window is a minute here, so that no slow machine runs out of it. */
test("a device that sends more than a hundred requests in one window waits, and holds up no other", async () => {
  await behindLimits(
    (app) => app.get("/", (_request, response) => void response.end("here")),
    async (url) => {
      const ask = async (device: string) => {
        const answer = await fetch(url, { headers: { "X-Device": device } });
        return [answer.status, answer.headers.get("retry-after"), await answer.text()] as const;
      };
      for (let i = 0; i < 100; i++) expect((await ask("eager"))[0]).toBe(200);
      expect(await ask("eager")).toEqual([
        429,
        "1",
        expect.stringMatching(/Too many requests in one second/),
      ]);
      expect((await ask("patient"))[0]).toBe(200);
    },
  );
});

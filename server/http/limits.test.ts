import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { expect, test } from "@jest/globals";
import express from "express";
import { limits } from "./limits";

/* Requests of one device within one window; the window is a minute here, so that no slow machine runs out of it. */
test("a device that sends more than a hundred requests in one window waits, and holds up no other", async () => {
  const app = express();
  app.use(...limits(60_000));
  app.get("/", (_request, response) => void response.end("here"));
  const server = createServer(app);
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
  const ask = async (device: string) => {
    const answer = await fetch(url, { headers: { "X-Device": device } });
    return [answer.status, answer.headers.get("retry-after"), await answer.text()] as const;
  };
  try {
    for (let i = 0; i < 100; i++) expect((await ask("eager"))[0]).toBe(200);
    expect(await ask("eager")).toEqual([429, "1", expect.stringMatching(/Too many requests in one second/)]);
    expect((await ask("patient"))[0]).toBe(200);
  } finally {
    server.close();
  }
});

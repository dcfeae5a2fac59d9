import type { Request, RequestHandler } from "express";
import { ipKeyGenerator, rateLimit } from "express-rate-limit";
import { isStream } from "./stream-path";

const megabyte = 1024 * 1024;

/** Bytes that are taken at once: of a request, and of one that brings a file. */
const mostBytes = 2 * megabyte;
const mostBytesOfFile = 65 * megabyte;

const bringsFile = (path: string) => path.split(".")[0]?.endsWith("/import") === true;

/** Refuses a body that is too long, by the length it announces: Node holds it to that. */
const bodyLimit: RequestHandler = (request, response, next) => {
  if (request.method === "GET" || request.method === "HEAD") return next();
  const most = bringsFile(request.path) ? mostBytesOfFile : mostBytes;
  const announced = request.headers["content-length"];
  const length = Number(announced ?? 0);
  if (announced === undefined && request.headers["transfer-encoding"] !== undefined) {
    response
      .status(411)
      .json({ status: "malformed", message: "Say how long it is: Content-Length is missing" });
  } else if (!(length <= most)) {
    response
      .status(413)
      .set("Connection", "close")
      .json({ status: "malformed", message: `At most ${most / megabyte} MB are taken at once` });
  } else next();
};

/** Refuses addresses that hold NUL, or that are no text at all. */
const soundAddress: RequestHandler = (request, response, next) => {
  try {
    if (!decodeURIComponent(request.originalUrl.replaceAll("+", " ")).includes("\0")) return next();
  } catch {
    // Told below.
  }
  response.status(400).type("text/plain").send("This address cannot be read.");
};

/** The device that sends, as it says itself; several may share an address. */
const deviceOf = (request: Request) => {
  const device = request.headers["x-device"];
  return typeof device === "string" && /^[\w-]{1,64}$/.test(device) ? device : "";
};
const addressOf = (request: Request) => ipKeyGenerator(request.ip ?? "");

/** Requests a second: for one device, and for all behind one address, which may be a class. */
const perDevice = 100;
const perAddress = 1000;

const inEachWindow = (windowMs: number, limit: number, keyGenerator: (request: Request) => string) =>
  rateLimit({
    windowMs,
    limit,
    keyGenerator,
    standardHeaders: false,
    legacyHeaders: false,
    handler: (_request, response) =>
      void response
        .status(429)
        .set("Retry-After", "1")
        .json({ status: "refused", message: "Too many requests in one second: it is tried again" }),
  });

/** Live streams that stay open: of one device, and for one address. A class needs one for each bench. */
const streamsPerDevice = 4;
const streamsPerAddress = 200;

/** Counts streams while they are open and refuses those beyond the limit. */
function streamLimit(): RequestHandler {
  const open = new Map<string, number>();
  const add = (key: string, by: number) => {
    const now = (open.get(key) ?? 0) + by;
    if (now > 0) open.set(key, now);
    else open.delete(key);
  };
  return (request, response, next) => {
    if (!isStream(request.path)) return next();
    const { device } = request.query;
    const address = `address ${addressOf(request)}`;
    const keys = [address, `device ${request.ip} ${typeof device === "string" ? device.slice(0, 64) : ""}`];
    const full = keys.some(
      (key) => (open.get(key) ?? 0) >= (key === address ? streamsPerAddress : streamsPerDevice),
    );
    if (full) return void response.status(429).set("Retry-After", "2").end();
    keys.forEach((key) => add(key, 1));
    response.once("close", () => keys.forEach((key) => add(key, -1)));
    next();
  };
}

/** What is asked of every request before it is answered. */
export const limits = (windowMs = 1000): RequestHandler[] => [
  soundAddress,
  bodyLimit,
  inEachWindow(windowMs, perAddress, addressOf),
  inEachWindow(windowMs, perDevice, (request) => `${addressOf(request)} ${deviceOf(request)}`),
  streamLimit(),
];

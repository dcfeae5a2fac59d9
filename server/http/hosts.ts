import { isIP } from "node:net";
import { networkInterfaces } from "node:os";
import type { IncomingHttpHeaders } from "node:http";
import type { RequestHandler } from "express";

/** Where the server listens. */
export interface Listening {
  readonly host: string;
  readonly port: number;
}

const loopbackNames: ReadonlySet<string> = new Set(["localhost", "127.0.0.1", "::1"]);
const everyAddress: ReadonlySet<string> = new Set(["0.0.0.0", "::", ""]);

/** True where nobody but this machine reaches the server. */
export const isLoopback = (host: string): boolean =>
  loopbackNames.has(host) || /^127\.\d+\.\d+\.\d+$/.test(host);

/** The name in a Host header, without its port and without the brackets of an IPv6 address; null where it is none. */
function nameIn(header: string | undefined): string | null {
  const match = /^(?:\[([0-9a-f:.]+)\]|([a-z0-9._-]+))(?::\d{1,5})?$/i.exec(header ?? "");
  return (match?.[1] ?? match?.[2] ?? "").toLowerCase() || null;
}

/** The names under which this server may be asked: others are a name that was pointed here by somebody else. */
export function allowedHosts(
  { host }: Listening,
  extra = process.env.ALLOWED_HOSTS ?? "",
): ReadonlySet<string> {
  const named = extra.split(",").map((name) => name.trim().toLowerCase());
  // A literal address cannot be pointed elsewhere.
  const bound = everyAddress.has(host)
    ? Object.values(networkInterfaces()).flatMap((all) => (all ?? []).map(({ address }) => address))
    : [host.toLowerCase()];
  return new Set([...loopbackNames, ...bound, ...named].filter((name) => name !== ""));
}

/** What is wrong with where a request says it comes from, as a status and a sentence; null where it may go on. */
export function foreign(
  method: string,
  headers: IncomingHttpHeaders,
  allowed: ReadonlySet<string>,
): { readonly status: number; readonly message: string } | null {
  const name = nameIn(headers.host);
  if (name === null || !allowed.has(name)) {
    const address = name !== null && isIP(name) === 0 ? "; ALLOWED_HOSTS names further ones" : "";
    return { status: 421, message: `This server is not asked under that name${address}` };
  }
  if (method === "GET" || method === "HEAD") return null;
  const { origin } = headers;
  const site = headers["sec-fetch-site"];
  const own =
    origin === undefined || origin === `http://${headers.host}` || origin === `https://${headers.host}`;
  // Every browser says one of the two; tools at the terminal say neither.
  const strange = site !== undefined && site !== "same-origin" && site !== "none";
  return own && !strange
    ? null
    : { status: 403, message: "Changes are taken from this server's own pages only" };
}

/**
 * Why the server must not listen there, in words: without a passphrase everybody who reaches it could do everything. Null on this machine
 * alone, and where people sign in.
 */
export const openingProblem = ({ host }: Listening, signsIn: boolean): string | null =>
  isLoopback(host) || signsIn
    ? null
    : `HOST=${host} would open Steady Bead to everybody on that network, and no passphrase is set: whoever reaches it could read and change ` +
      "everything. Set one with bin/passphrase, or on the screen Lab, Access, of this machine; then everybody signs in. Leave HOST unset to serve " +
      "this machine alone.";

/** True where others than this machine reach the server. */
export const isOpen = (host = process.env.HOST ?? "127.0.0.1"): boolean => !isLoopback(host);

/** Refuses what does not come from this server's own pages, before anything else looks at it. */
export function ownPagesOnly(listening: Listening): RequestHandler {
  const allowed = allowedHosts(listening);
  return (request, response, next) => {
    const wrong = foreign(request.method, request.headers, allowed);
    if (wrong) response.status(wrong.status).json({ status: "refused", message: wrong.message });
    else next();
  };
}

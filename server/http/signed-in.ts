import type { IncomingMessage } from "node:http";
import type { RequestHandler, Response } from "express";
import { msg } from "../../core/text";
import { viewerOf } from "../access/door";
import type { Viewer } from "../access/viewer";
import { database, dataFolder } from "../lab/current";

/** Where people sign in: the one page for those who have not. */
export const signInPath = "/sign-in";

const viewers = new WeakMap<IncomingMessage, Viewer | null>();

/** Who sends a request; null where they have not signed in. */
export function viewerOfHttp(request: IncomingMessage): Viewer | null {
  const viewer = viewers.get(request);
  if (viewer === undefined) throw new Error("Nobody has asked who sends this request");
  return viewer;
}

const viewerNow = async (request: IncomingMessage) =>
  viewerOf({ db: await database(), folder: dataFolder() }, request.headers.cookie);

/** Finds out who sends each request. */
export const recognized: RequestHandler = (request, _response, next) => {
  viewerNow(request).then((viewer) => {
    viewers.set(request, viewer);
    next();
  }, next);
};

const refuse = (response: Response) =>
  response
    .status(401)
    .json({ status: "refused", message: msg`Nobody is signed in here any more: sign in again to go on` });

/** A stream is looked after this often, ms: so long it may go on after a session has ended. */
const lookEveryMs = 10_000;

/** Lets those have a stream who are signed in, and for as long as they are. */
export const whileSignedIn: RequestHandler = (request, response, next) => {
  if (!viewerOfHttp(request)) return void refuse(response);
  const look = setInterval(() => {
    // A database that is just being exchanged answers later.
    viewerNow(request).then(
      (viewer) => void (viewer ?? response.destroy()),
      () => undefined,
    );
  }, lookEveryMs);
  response.once("close", () => clearInterval(look));
  next();
};

/** True for a page, or for what a page asks for itself with, which leads to the page where people sign in. */
const isForPage = (path: string, accept: string): boolean =>
  path === signInPath || path.endsWith(".data") || accept.includes("text/html");

/** Answers programs and screens that are open of somebody who is not signed in; pages lead to where they can sign in. */
export const refuseStrangers: RequestHandler = (request, response, next) => {
  if (viewerOfHttp(request) || isForPage(request.path, request.headers.accept ?? "")) return next();
  refuse(response);
};

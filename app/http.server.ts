import { createRequestHandler } from "@react-router/express";
import compression from "compression";
import express, { type ErrorRequestHandler, type RequestHandler } from "express";
import { RouterContextProvider } from "react-router";
import * as build from "virtual:react-router/server-build";
import { answer } from "~/server/backup/inspect";
import { closeDatabase, database, dataFolder, startDatabase } from "~/server/lab/current";
import { noRoom } from "~/server/database/storage";
import { nonceOf, safeHeaders } from "~/server/http/headers";
import { accessOf } from "~/server/access/access-file";
import { type Listening, openingProblem as openingProblemOf, ownPagesOnly } from "~/server/http/hosts";
import { recognized, refuseStrangers, viewerOfHttp, whileSignedIn } from "~/server/http/signed-in";
import { limits } from "~/server/http/limits";
import { journalOf } from "~/server/journal/recorded";
import { eraHeader } from "./live/era";
import { liveStream } from "~/server/http/live-stream";
import { keepBackups, look } from "~/server/maintenance/health";
import { keepStatistics } from "~/server/maintenance/statistics";
import { whileOpen } from "~/server/maintenance/pause";
import { acceptToken, maintenance } from "~/server/maintenance/routes";
import { announceServer, forgetServer } from "~/server/maintenance/token";
import { guarded } from "./access/guarded.server";
import { addressOfRequest, nonceOfRequest, viewerOfRequest } from "./request-context";
import { msg } from "~/core/text";

/** Why the server must not listen there, in words; null where it may. */
export const openingProblem = (listening: Listening) =>
  openingProblemOf(listening, accessOf(dataFolder()) !== null);
export { keepMemoryBy } from "~/server/maintenance/memory";

/** Answers about a backup, in a process of its own: see `server/backup/inspect.ts`. */
export const inspectBackup = answer;

/** What is done in threads beside the server, by the names that these are begun with: see `server/threads/thread.ts`. */
export const threadWorks = {
  report: async () => (await import("./features/report/pdf/asked.server")).writeReport,
  table: async () => (await import("~/server/import/read-table")).readPart,
};

let ends: readonly (() => void)[] = [];

/**
 * Opens the database before the first request, looks whether it is whole, and sees to its backups and statistics; tools at the terminal are
 * answered at `url`.
 */
export async function start(url: string): Promise<void> {
  const { recovered } = await startDatabase();
  for (const what of recovered) console.error(what);
  await look(20);
  acceptToken(announceServer(dataFolder(), url));
  ends = [keepBackups(), keepStatistics()];
}

/** Gives the folder back at the end. */
export async function stop(): Promise<void> {
  for (const end of ends) end();
  acceptToken(null);
  forgetServer(dataFolder());
  await closeDatabase();
}

/** What stands before everything else that is served, files too: whose pages may ask, and what pages may do. */
export const front = (listening: Listening, { policy = true } = {}): RequestHandler[] => [
  ownPagesOnly(listening),
  ...(policy ? safeHeaders() : []),
];

/** Looking at what is there needs no room; writing is not begun without it, nor where the journal takes nothing more. */
const roomToWrite: RequestHandler = (request, response, next) => {
  if (request.method === "GET" || request.method === "HEAD") return next();
  database().then((db) => {
    const trouble = noRoom(dataFolder()) ?? journalOf(db)?.trouble;
    if (trouble) response.status(507).json({ message: trouble.message });
    else next();
  }, next);
};

/** Names the lab that answers, so that pages of one that was exchanged notice. */
const tellEra: RequestHandler = (_request, response, next) => {
  database().then((db) => {
    response.setHeader(eraHeader, journalOf(db)?.id ?? "");
    next();
  }, next);
};

/** The last resort: a sentence for whoever asked, the details for the log. */
const failed: ErrorRequestHandler = (error, _request, response, next) => {
  console.error(error);
  if (response.headersSent) next(error);
  else
    response
      .status(500)
      .type("text/plain")
      .send(msg`The server failed on this request. What was saved is safe.`);
};

export const app = express();
app.disable("x-powered-by");
app.use(...limits());
app.use(whileOpen);
app.use("/maintenance", maintenance());
app.use(recognized);
app.get("/live", whileSignedIn, liveStream);
app.use(refuseStrangers);
app.use(compression());
app.use(tellEra);
app.use(roomToWrite);
app.use(
  createRequestHandler({
    build: guarded(build),
    getLoadContext: (request, response) => {
      const context = new RouterContextProvider();
      context.set(nonceOfRequest, nonceOf(response));
      context.set(addressOfRequest, request.ip ?? "");
      context.set(viewerOfRequest, viewerOfHttp(request));
      return context;
    },
  }),
);
app.use(failed);

import { createRequestHandler } from "@react-router/express";
import compression from "compression";
import express from "express";
import * as build from "virtual:react-router/server-build";
import { closeDatabase, dataFolder, startDatabase } from "~/server/database/current";
import { noRoom } from "~/server/database/storage";

/** Opens the database before the first request, and gives the folder back at the end. */
export const start = startDatabase;
export const stop = closeDatabase;

export const app = express();
app.disable("x-powered-by");
app.use(compression());
app.use((request, response, next) => {
  // Looking at what is there needs no room; writing is not begun without it.
  const full = request.method === "GET" || request.method === "HEAD" ? null : noRoom(dataFolder());
  if (full) response.status(507).json({ message: full.message });
  else next();
});
app.use(createRequestHandler({ build }));

import { createRequestHandler } from "@react-router/express";
import compression from "compression";
import express from "express";
import * as build from "virtual:react-router/server-build";
import { closeDatabase, startDatabase } from "~/server/database/current";

export { FolderInUseError } from "~/server/database/lock";

/** Opens the database before the first request, and gives the folder back at the end. */
export const start = startDatabase;
export const stop = closeDatabase;

export const app = express();
app.disable("x-powered-by");
app.use(compression());
app.use(createRequestHandler({ build }));

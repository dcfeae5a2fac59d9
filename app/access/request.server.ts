import type { RouterContextProvider } from "react-router";
import type { From, Lab } from "~/server/access/door";
import { database, dataFolder } from "~/server/lab/current";
import { addressOfRequest } from "../request-context";

export const labHere = async (): Promise<Lab> => ({ db: await database(), folder: dataFolder() });

export const fromOf = (request: Request, context: Readonly<RouterContextProvider>): From => ({
  address: context.get(addressOfRequest),
  browser: request.headers.get("User-Agent") ?? "",
});

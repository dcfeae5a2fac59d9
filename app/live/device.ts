import { v4 as newId } from "uuid";

/** What this screen is called by the server, so that it is not told of its own changes. New with each load. */
export const device = newId();

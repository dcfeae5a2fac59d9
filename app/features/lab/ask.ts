import type { LabRequest } from "~/protocol/lab";

/** Asks the server to do something with the lab as a whole. */
export type Ask = (request: LabRequest) => void;

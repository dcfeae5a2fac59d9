import { mostPoints } from "~/core/record";
import { valid as validRunRequest } from "./compiled/run-request";
import { valid as validStartRun } from "./compiled/start-run";
import type { RunRequest, StartRun } from "./request-schemas";
import { checker } from "../formats/validate";

export type * from "./request-schemas";

export const checkStartRun = checker<StartRun>(validStartRun);
export const checkRunRequest = checker<RunRequest>(validRunRequest, 2 * mostPoints + 1000);

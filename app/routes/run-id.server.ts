import { data } from "react-router";
import { validate } from "uuid";

/** The run's id from the address, or the 404 page. */
export function runIdFrom(params: { runId: string }): string {
  if (!validate(params.runId)) throw data("There is no such run.", { status: 404 });
  return params.runId;
}

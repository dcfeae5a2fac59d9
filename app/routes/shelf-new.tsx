import { data, redirect } from "react-router";
import { checkShelfRequest } from "~/protocol/shelf";
import { database } from "~/server/lab/current";
import { currentHouseRules } from "~/server/queries/house-rules";
import { listShelf } from "~/server/queries/shelf";
import { putAll } from "~/server/commands/shelf";
import { NewBottlePage } from "../features/shelf/new-bottle-page";
import type { Route } from "./+types/shelf-new";
import { jsonBody } from "./body.server";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`New bottle`);

export async function loader() {
  const db = await database();
  return {
    bottles: await listShelf(db),
    rules: (await currentHouseRules(db)).data,
    today: new Date().toISOString().slice(0, 10),
  };
}

/** A series has as many standards as a rack holds flasks, and no more. */
const mostAtOnce = 60;

/** Puts one bottle, or a series of them, on the shelf. */
export async function action({ request }: Route.ActionArgs) {
  const body = await jsonBody(request);
  const wanted: unknown[] = Array.isArray(body) ? body : [body];
  if (wanted.length > mostAtOnce)
    return data(
      { problems: { form: `At most ${mostAtOnce} bottles are put on the shelf at once` } },
      { status: 400 },
    );
  const requests = [];
  for (const one of wanted.map(checkShelfRequest)) {
    if ("problems" in one) return data(one, { status: 400 });
    requests.push(one.value);
  }
  const put = await putAll(await database(), requests);
  if ("problems" in put) return data(put, { status: 400 });
  return redirect(requests.length > 1 ? "/shelf" : `/shelf/${put.id}`);
}

export default function ShelfNew({ loaderData }: Route.ComponentProps) {
  return <NewBottlePage {...loaderData} />;
}

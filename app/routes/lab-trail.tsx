import { database } from "~/server/lab/current";
import { labTrail } from "~/server/queries/lab-trail";
import { LabTrailPage } from "../features/lab/lab-trail-page";
import type { Route } from "./+types/lab-trail";
import { trailAsked } from "./trail-asked.server";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Trail of the lab`);

/** Lines on one page. */
const limit = 100;

export async function loader({ request }: Route.LoaderArgs) {
  const { query, about, words, before } = trailAsked(request);
  const lines = await labTrail(await database(), { words, about, before, limit: limit + 1 });
  const shown = lines.slice(0, limit);
  return {
    lines: shown,
    query,
    about: about ?? "",
    older: lines.length > limit ? (shown.at(-1)?.seq ?? null) : null,
  };
}

export default function LabTrail({ loaderData }: Route.ComponentProps) {
  return <LabTrailPage {...loaderData} />;
}

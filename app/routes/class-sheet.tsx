import { msg } from "~/core/text";
import { seriesTable } from "~/core/evaluate";
import { fileWithResults } from "~/formats/results/stated";
import { linksHead } from "~/formats/proof/head";
import { database } from "~/server/lab/current";
import { labFingerprint } from "~/server/lab/signer";
import { labWords } from "~/server/queries/in-words";
import { ClassSheetPage } from "../features/history/class-sheet-page";
import { pageTitle } from "../words/page-title";
import type { Route } from "./+types/class-sheet";
import { recordsOf, runIdsIn } from "./chosen-runs.server";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Class sheet`);

export async function loader({ request }: Route.LoaderArgs) {
  const ids = runIdsIn(new URL(request.url).searchParams.get("runs") ?? "");
  const words = await labWords(await database());
  const stored = await recordsOf(ids);
  if (stored.length === 0) throw new Response("None of these runs is there.", { status: 404 });
  const records = stored.map(words.record);
  // Results stand beside each other where they are of one method, in one version and way alike.
  const methods = [...new Set(records.map(({ method }) => method.id))];
  return {
    groups: methods.map((id) => {
      const own = records.filter(({ method }) => method.id === id);
      return { method: own[0]?.method.title ?? "", table: seriesTable(own, "") };
    }),
    heads: stored.map((record) => ({ title: record.title, head: linksHead(fileWithResults(record)).head })),
    labKey: labFingerprint(),
  };
}

export default function ClassSheet({ loaderData }: Route.ComponentProps) {
  return <ClassSheetPage {...loaderData} />;
}

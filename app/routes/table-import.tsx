import { msg } from "~/core/text";
import { tableStages } from "~/formats/table/columns";
import type { TableStage } from "~/protocol/table-import";
import { database } from "~/server/lab/current";
import { labWords } from "~/server/queries/in-words";
import { listMethods } from "~/server/queries/methods";
import { TablePage } from "../features/history/table-import/table-page";
import { pageTitle } from "../words/page-title";
import type { Route } from "./+types/table-import";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Import a table`);

export async function loader(): Promise<{ readonly stages: readonly TableStage[] }> {
  const db = await database();
  const words = await labWords(db);
  const stages = (await listMethods(db))
    .filter(({ retiredAt }) => retiredAt === null)
    .flatMap(({ id, data }): TableStage[] => {
      const method = words.method(data);
      return tableStages(method).map(({ key, title }) => ({
        ...{ methodId: id, stageKey: key, method: method.title, stage: title },
      }));
    });
  return { stages: stages.toSorted((a, b) => a.method.localeCompare(b.method)) };
}

export default function TableImport({ loaderData }: Route.ComponentProps) {
  return <TablePage stages={loaderData.stages} />;
}

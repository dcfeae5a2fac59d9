import { redirect } from "react-router";
import { archiveOf } from "~/formats/archive/write";
import { fileWithResults } from "~/formats/results/stated";
import { resultsCsv, resultsXlsx } from "~/formats/results/table";
import { database } from "~/server/lab/current";
import { signer, signingLab } from "~/server/lab/signer";
import { partsOfLab } from "~/server/queries/whole-lab";
import type { Route } from "./+types/history-export";
import { formTexts } from "./body.server";
import { recordsOf, runIdsIn } from "./chosen-runs.server";

type Body = string | Uint8Array<ArrayBuffer>;

const formats: Readonly<
  Record<
    string,
    { readonly name: string; readonly type: string; readonly write: (ids: string[]) => Promise<Body> }
  >
> = {
  csv: {
    ...{ name: "results.csv", type: "text/csv; charset=utf-8" },
    write: async (ids) => resultsCsv((await recordsOf(ids)).map(fileWithResults)),
  },
  xlsx: {
    name: "results.xlsx",
    type: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    write: async (ids) => resultsXlsx((await recordsOf(ids)).map(fileWithResults)),
  },
  archive: {
    ...{ name: "runs.zip", type: "application/zip" },
    write: async (ids) => {
      const [db, now] = [await database(), new Date()];
      return archiveOf(await partsOfLab(db, await signer(db, now), ids), await signingLab(db), now);
    },
  },
};

/** Chosen runs as one file. */
export async function action({ params, request }: Route.ActionArgs) {
  const format = Object.hasOwn(formats, params.format) ? formats[params.format] : undefined;
  if (!format) return new Response("There is no such format.", { status: 404 });
  const { runs = "" } = await formTexts(request);
  return new Response(await format.write(runIdsIn(runs)), {
    headers: {
      "Content-Type": format.type,
      "Content-Disposition": `attachment; filename="${format.name}"`,
      "Cache-Control": "no-store",
    },
  });
}

/** There is nothing to look at here. */
export function loader() {
  return redirect("/history");
}

import { exportName } from "~/formats/exports";
import { labOf } from "~/server/commands/lab";
import { database } from "~/server/lab/current";
import { currentHouseRules } from "~/server/queries/house-rules";
import type { Route } from "./+types/class-sheet-pdf";
import { chosenSheet } from "./chosen-runs.server";
import { pdfAnswer, printedAs } from "./pdf-answer.server";

/** Several runs on one sheet as PDF: `runs` names them, `paper` is A4 or Letter. */
export async function loader({ request }: Route.LoaderArgs) {
  const db = await database();
  return pdfAnswer(exportName("class", { key: "sheet", ending: "pdf" }), {
    of: { sheet: await chosenSheet(request) },
    letterhead: (await labOf(db))?.letterhead ?? "",
    ...printedAs(new URL(request.url).searchParams),
    words: (await currentHouseRules(db)).data.words,
  });
}

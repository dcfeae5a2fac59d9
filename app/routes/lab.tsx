import { data } from "react-router";
import { checkLabRequest, type LabAnswer, type LabRequest } from "~/protocol/lab";
import { BackupError } from "~/server/backup/make";
import { replacedWords, RestoreError } from "~/server/backup/restore";
import { database } from "~/server/lab/current";
import { restoreOneRun, restoreOpenLab } from "~/server/maintenance/exchange";
import { backUp, labView, look } from "~/server/maintenance/health";
import { saveLetterhead, setClockRight } from "~/server/commands/lab";
import { LabPage } from "../features/lab/lab-page";
import { addressOfRequest } from "../request-context";
import type { Route } from "./+types/lab";
import { jsonBody } from "./body.server";
import { msg, inEnglish } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Lab`);

export const loader = () => labView();

const done = (message: string): Partial<LabAnswer> => ({ done: message });

/** Does what was asked of the lab, and says what came of it. */
async function carryOut(request: LabRequest, from: string): Promise<Partial<LabAnswer>> {
  switch (request.intent) {
    case "backup": {
      const { verified } = await backUp("by hand");
      return done(
        `Backed up. The copy was opened, and ${verified?.runs ?? 0} runs were computed again from it.`,
      );
    }
    case "check": {
      const { runs, findings } = await look("all");
      const serious = findings.filter(({ kind }) => kind !== "differs").length;
      const looked = `${runs} runs were read and computed again`;
      if (serious === 0) return done(`${looked}; no problems found.`);
      return {
        problem: `${looked}; ${serious === 1 ? "one finding is" : `${serious} findings are`} listed below.`,
      };
    }
    case "restore":
      return done(`Restored. ${replacedWords(await restoreOpenLab(request.name, 1, request.person.trim()))}`);
    case "restore-run":
      return done(
        `The run "${await restoreOneRun(request.name, request.runId, request.person.trim())}" is back.`,
      );
    case "clock": {
      const db = await database();
      await setClockRight(db, request.person.trim(), from, new Date());
      return done("Timers and times go by the clock as it stands now.");
    }
    case "letterhead": {
      const text = request.text.trim();
      await saveLetterhead(await database(), { text, person: request.person.trim() }, from, new Date());
      return done(
        text === "" ? "Reports have no header now." : "Saved: it stands on every report from now on.",
      );
    }
  }
}

export async function action({ request, context }: Route.ActionArgs) {
  const checked = checkLabRequest(await jsonBody(request));
  const answer = (fields: Partial<LabAnswer>): LabAnswer => ({ done: null, problem: null, ...fields });
  if (!checked.ok) return data(answer({ problem: inEnglish(checked.problem.message) }), { status: 400 });
  try {
    return answer(await carryOut(checked.value, context.get(addressOfRequest)));
  } catch (error) {
    if (!(error instanceof BackupError) && !(error instanceof RestoreError)) throw error;
    return data(answer({ problem: error.message }), { status: 422 });
  }
}

export default function Lab({ loaderData }: Route.ComponentProps) {
  return <LabPage {...loaderData} />;
}

import { data } from "react-router";
import { msg, type Phrase } from "~/core/text";
import { type Incoming, type IncomingRun, readIncoming } from "~/formats/archive/read";
import { differenceWords } from "~/formats/results/stated";
import { sayWho } from "~/protocol/answers";
import type { ImportAnswer, IncomingRunView, IncomingView } from "~/protocol/incoming";
import { importStatusOf } from "~/server/import/import-status";
import { importRecords } from "~/server/import/import-records";
import { database } from "~/server/lab/current";
import { ImportPage } from "../features/history/import-page";
import { addressOfRequest } from "../request-context";
import { pageTitle } from "../words/page-title";
import type { Route } from "./+types/history-import";
import { formWithFile } from "./body.server";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Import`);

const refused = (message: Phrase) => data<ImportAnswer>({ status: "refused", message }, { status: 400 });

async function runView({ record, signed, findings, differences }: IncomingRun): Promise<IncomingRunView> {
  const status = await importStatusOf(await database(), record);
  const { id, title, sample, method } = record;
  return {
    ...{ id, title, sample, signed, method: method.title, state: status.state },
    why: status.state === "refused" ? status.why : null,
    findings: findings.map(({ message }) => message),
    differences: differences.map((difference) => differenceWords(difference, record)),
  };
}

async function viewOf(file: string, incoming: Incoming): Promise<IncomingView> {
  const runs: IncomingRunView[] = [];
  for (const run of incoming.runs) runs.push(await runView(run));
  return {
    ...{ file, runs, findings: incoming.findings, methods: incoming.methods.length },
    bottles: incoming.shelf?.bottles.length ?? 0,
    unusable: incoming.unusable.map(({ name, problems }) => ({
      name,
      problems: problems
        .slice(0, 5)
        .map(({ path, message }) => (path === "the whole" ? message : msg`${path}: ${message}`)),
    })),
  };
}

/** Looks at a file, or takes from it the runs that are named. Looking changes nothing; taking is all or nothing. */
export async function action({ request, context }: Route.ActionArgs) {
  const { texts, file } = await formWithFile(request, "file");
  if (!file) return refused(msg`Choose a file`);
  const bytes = new Uint8Array(await file.arrayBuffer());
  const read = await readIncoming(file.name, bytes);
  if (!read.ok) return refused(read.problem.message);
  const incoming = read.value;
  if (texts.intent !== "take")
    return data<ImportAnswer>({ status: "looked", view: await viewOf(file.name, incoming) });
  const person = (texts.person ?? "").trim().slice(0, 120);
  if (person === "") return refused(sayWho);
  const chosen = new Set((texts.runs ?? "").split(","));
  const { methods, shelf } = incoming;
  const runs = incoming.runs.map(({ record }) => record).filter(({ id }) => chosen.has(id));
  const asked = { file: file.name.slice(0, 200), person, from: context.get(addressOfRequest) };
  try {
    const taken = await importRecords(await database(), { ...asked, runs, methods, shelf });
    return data<ImportAnswer>({ ...taken, status: "taken", runs: taken.runs.length });
  } catch (error) {
    console.error(`The file ${file.name} was not imported:`, error);
    return refused(msg`Nothing was imported: the database refused the contents of ${file.name}`);
  }
}

export default function HistoryImport() {
  return <ImportPage />;
}

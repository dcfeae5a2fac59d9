import { inEnglish, msg, type Phrase } from "~/core/text";
import { isEncoding } from "~/formats/table/encodings";
import { type Sheet, sheetOfCsv, sheetOfText, sheetOfWorkbook } from "~/formats/table/sheet";
import { sayWho } from "~/protocol/answers";
import { mostImported } from "~/protocol/incoming";
import { checkMapping, type TableLine } from "~/protocol/table-import";
import {
  importTable,
  lookAtTable,
  openedTable,
  tableTargets,
  type Working,
} from "~/server/import/import-table";
import { expectTable } from "~/server/import/read-table";
import { database } from "~/server/lab/current";
import { findMethod } from "~/server/queries/methods";
import { addressOfRequest } from "../request-context";
import type { Route } from "./+types/table-work";
import { formWithFile } from "./body.server";

/** Whoever asked is gone: nothing is written. */
class Stopped extends Error {}

/** An answer of a line for each step, sent as it comes; `work` is stopped once nobody listens any more. */
function inLines(work: (say: (line: TableLine) => void, working: Working) => Promise<void>): Response {
  const encoder = new TextEncoder();
  let listening = true;
  const body = new ReadableStream<Uint8Array>({
    async start(controller) {
      const say = (line: TableLine) => {
        if (listening) controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
      };
      let told = 0;
      const working: Working = async (what, done, of) => {
        if (Date.now() - told > 150) {
          told = Date.now();
          say({ status: "working", what, done, of });
          // Others have their turn, and a stop is heard.
          await new Promise((resolve) => setImmediate(resolve));
        }
        if (!listening) throw new Stopped();
      };
      try {
        await work(say, working);
      } catch (error) {
        if (!(error instanceof Stopped)) {
          console.error("A table was not imported:", error);
          say({ status: "refused", message: msg`Nothing was imported: the database refused the table` });
        }
      }
      if (listening) controller.close();
    },
    cancel() {
      listening = false;
    },
  });
  return new Response(body, {
    headers: { "Content-Type": "application/x-ndjson", "Cache-Control": "no-store" },
  });
}

const sheetOf = async (file: File | null, pasted: string, encoding: string | undefined) => {
  if (!file) return sheetOfText(pasted);
  const bytes = new Uint8Array(await file.arrayBuffer());
  // A workbook is a ZIP.
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return sheetOfWorkbook(bytes);
  return sheetOfCsv(bytes, isEncoding(encoding) ? encoding : null);
};

const noMethod = msg`There is no such method`;

type Say = (line: TableLine) => void;

/** What a request is about, read from its form. */
interface Asked {
  readonly texts: Readonly<Record<string, string>>;
  readonly file: File | null;
  readonly from: string | null;
}

/** What a text says as JSON; undefined where it is none. */
function jsonIn(text = ""): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

/** Looks at a table as its columns are said to be, or imports its runs. */
async function workOn(sheet: Sheet, { texts, file, from }: Asked, say: Say, working: Working): Promise<void> {
  const refuse = (message: Phrase) => say({ status: "refused", message });
  const mapping = checkMapping(jsonIn(texts.mapping));
  if (!mapping.ok) return refuse(mapping.problem.message);
  const db = await database();
  const method = await findMethod(db, mapping.value.methodId);
  if (!method) return refuse(noMethod);
  const person = (texts.person ?? "").trim().slice(0, 120);
  const asked = { sheet, mapping: mapping.value, method, person };
  if (texts.intent !== "take") {
    const looked = await lookAtTable(db, asked, new Date(), working);
    return looked.ok ? say({ status: "looked", table: looked.value }) : refuse(looked.problem.message);
  }
  if (person === "") return refuse(sayWho);
  const name = (file?.name ?? "").slice(0, 200) || inEnglish(msg`a pasted table`);
  const taken = await importTable(db, { ...asked, file: name, from }, new Date(), working);
  return taken.ok ? say({ status: "taken", ...taken.value }) : refuse(taken.problem);
}

/** Opens a table, tells what its columns can stand for, looks at it as runs, or imports these. */
export async function action({ request, context }: Route.ActionArgs) {
  const { texts, file } = await formWithFile(request, "file");
  const asked: Asked = { texts, file, from: context.get(addressOfRequest) };
  return inLines(async (say, working) => {
    if (file && file.size > mostImported)
      return say({ status: "refused", message: msg`This file is too large for a table` });
    const sheet = await sheetOf(file, texts.text ?? "", texts.encoding);
    if (!sheet.ok) return say({ status: "refused", ...sheet.problem });
    if (texts.intent === "open") {
      expectTable(sheet.value);
      return say({ status: "opened", table: openedTable(sheet.value) });
    }
    if (texts.intent !== "targets") return workOn(sheet.value, asked, say, working);
    const db = await database();
    const method = await findMethod(db, texts.method ?? "");
    return say(
      method
        ? await tableTargets(db, sheet.value, method, texts.stage ?? "")
        : { status: "refused", message: noMethod },
    );
  });
}

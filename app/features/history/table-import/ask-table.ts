import type { TableLine } from "~/protocol/table-import";

/** A table to be worked on: a file, or what was pasted. */
export interface TableSource {
  readonly file: File | null;
  readonly text: string;
  readonly encoding: string;
}

/**
 * Asks the server to work on a table, and hands on each line of its answer as it comes. Gives the last one; null where it was stopped or
 * the server is out of reach.
 */
export async function askTable(
  source: TableSource,
  asked: Readonly<Record<string, string>>,
  signal: AbortSignal,
  told: (line: TableLine) => void,
): Promise<TableLine | null> {
  const form = new FormData();
  for (const [name, text] of Object.entries(asked)) form.set(name, text);
  if (source.file) form.set("file", source.file);
  else form.set("text", source.text);
  if (source.encoding !== "") form.set("encoding", source.encoding);
  try {
    const response = await fetch("/history/import/table/work", { method: "POST", body: form, signal });
    if (!response.ok || !response.body) return null;
    return await readLines(response.body, told);
  } catch {
    return null;
  }
}

async function readLines(
  body: ReadableStream<Uint8Array>,
  told: (line: TableLine) => void,
): Promise<TableLine | null> {
  const reader = body.pipeThrough(new TextDecoderStream() as TransformStream<Uint8Array, string>).getReader();
  let rest = "";
  let last: TableLine | null = null;
  for (;;) {
    const { done, value } = await reader.read();
    const lines = (rest + (value ?? "")).split("\n");
    rest = done ? "" : (lines.pop() ?? "");
    for (const line of lines.filter((text) => text !== "")) {
      last = JSON.parse(line) as TableLine;
      told(last);
    }
    if (done) return last?.status === "working" ? null : last;
  }
}

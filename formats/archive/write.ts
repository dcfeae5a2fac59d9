import type { HouseRules } from "~/core/rules";
import type { Method } from "~/core/method";
import { fileOfMethod, type RunFile } from "../concluded";
import type { Signer } from "../proof/sign";
import { manifestName, manifestOf } from "./manifest";
import type { ShelfFile } from "./schema";
import { zipped } from "./zip";

/** All that an archive holds. */
export interface ArchiveParts {
  /** Signed. */
  readonly runs: readonly RunFile[];
  /** Methods of the lab's own. */
  readonly methods: readonly Method[];
  readonly houseRules: HouseRules;
  readonly shelf: ShelfFile;
  /** The results of all runs as a table. */
  readonly results: string;
  /** What was done in the lab, as a table. */
  readonly trail: string;
}

const readMe = `What this archive holds
=======================

runs/*.json          each run: every reading as it was typed, the method, the house rules, the
                     results, and a chain of SHA-256 digests signed by the lab
runs.csv             the results of all runs, a line each
methods/*.json       the lab's own methods
house-rules.json     the house rules in force
shelf.json           bottles and jars with all concentrations that they ever had
trail.csv            who did what, when and why
manifest.json        the SHA-256 of each of these files, signed by the lab

All files are UTF-8 text. The JSON files follow the published schemas. bin/verify tells whether
the archive is as it was written, and which reading is not. bin/recompute computes a run again.
`;

const bytesOf = (text: string) => new TextEncoder().encode(text);
const json = (value: unknown) => bytesOf(`${JSON.stringify(value, null, 1)}\n`);

/** A method's file: its id holds letters, digits and hyphens alone. */
const methodPath = ({ id, version }: Method) => `methods/${id}-v${version}.json`;

/** The whole lab as one ZIP archive of open files, with what each of them is, signed by the lab. */
export async function archiveOf(
  parts: ArchiveParts,
  signer: Signer,
  at: Date,
): Promise<Uint8Array<ArrayBuffer>> {
  const entries = new Map<string, Uint8Array>([
    ["README.txt", bytesOf(readMe)],
    ["runs.csv", bytesOf(parts.results)],
    ["trail.csv", bytesOf(parts.trail)],
    ["house-rules.json", json(parts.houseRules)],
    ["shelf.json", json(parts.shelf)],
    ...parts.methods.map((method) => [methodPath(method), json(fileOfMethod(method))] as const),
    ...parts.runs.map((run) => [`runs/${run.id}.json`, json(run)] as const),
  ]);
  return zipped(new Map([[manifestName, json(manifestOf(entries, signer, at))], ...entries]));
}

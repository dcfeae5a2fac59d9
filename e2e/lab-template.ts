import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { AppServer, quickStart } from "../scripts/app-server";

/** Where the folder of a new lab lies, for as long as the tests run. */
const place = "STEADY_BEAD_E2E_TEMPLATE";

/** A server for a minute or two. */
export const shortLived = (folder: string, port: number) =>
  new AppServer(folder, port, "inherit", {}, quickStart);

/** Makes one lab, of which each file of tests gets a copy: making one takes twice the time of a start. */
export default async function makeTemplate(): Promise<() => void> {
  const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-template-"));
  const server = shortLived(folder, 4169);
  await server.start();
  await server.stop();
  process.env[place] = folder;
  return () => rmSync(folder, { recursive: true, force: true });
}

/** A folder with a new lab in it. What a server remembers of labs it opened stays behind. */
export function newLabFolder(): string {
  const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-e2e-"));
  const template = process.env[place];
  if (template !== undefined)
    cpSync(template, folder, {
      recursive: true,
      filter: (file) => !["labs.json", "server.pid", "server.lock"].includes(path.basename(file)),
    });
  return folder;
}

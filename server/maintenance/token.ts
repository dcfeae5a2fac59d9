import { randomBytes, timingSafeEqual } from "node:crypto";
import { rmSync } from "node:fs";
import path from "node:path";
import { readJson } from "../database/durable-file";
import { writePrivately } from "../lab/lab-folder";

/** How a tool at the terminal finds the server of a data folder: who can read the folder may ask it. */
export interface Running {
  readonly url: string;
  readonly token: string;
  readonly pid: number;
}

const file = (folder: string) => path.join(folder, "server.json");

/** Says where this server is to be asked, until it ends. */
export function announceServer(folder: string, url: string): string {
  const token = randomBytes(24).toString("base64url");
  writePrivately(file(folder), JSON.stringify({ url, token, pid: process.pid } satisfies Running));
  return token;
}

export const forgetServer = (folder: string): void => rmSync(file(folder), { force: true });

/** The server that runs on a folder; null where there is none. */
export function runningServer(folder: string): Running | null {
  const found = readJson<Running>(file(folder));
  if (!found?.pid) return null;
  try {
    process.kill(found.pid, 0);
    return found;
  } catch {
    return null;
  }
}

export function isToken(header: string | undefined, token: string | null): boolean {
  const [given, own] = [Buffer.from(header ?? ""), Buffer.from(`Bearer ${token ?? ""}`)];
  return token !== null && given.length === own.length && timingSafeEqual(given, own);
}

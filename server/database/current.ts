import path from "node:path";
import { type OpenDatabase, openDatabase } from "./connection";
import type { Database } from "./types";

/** The server's one database, kept on the global object so that a reloaded module in development finds it again. */
const holder = globalThis as { steadyBeadDatabase?: Promise<OpenDatabase> };

export const dataFolder = () => path.resolve(process.env.DATA_DIR ?? "data/main");

export function startDatabase(): Promise<OpenDatabase> {
  holder.steadyBeadDatabase ??= openDatabase(dataFolder());
  return holder.steadyBeadDatabase;
}

export async function database(): Promise<Database> {
  return (await startDatabase()).db;
}

export async function closeDatabase(): Promise<void> {
  const open = await holder.steadyBeadDatabase?.catch(() => undefined);
  holder.steadyBeadDatabase = undefined;
  await open?.close();
}

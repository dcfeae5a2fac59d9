import path from "node:path";
import { type OpenDatabase, openDatabase } from "./open-database";
import type { Database } from "../database/types";

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

/**
 * Does something with the data folder while nobody has it open, and opens it again afterwards, whatever came of it. Who asks for the
 * database meanwhile waits for the one that is opened then.
 */
export async function withDatabaseClosed<T>(work: () => Promise<T>): Promise<T> {
  const before = await startDatabase();
  let settle: (opened: Promise<OpenDatabase>) => void = () => undefined;
  const after = new Promise<OpenDatabase>((resolve) => (settle = resolve));
  holder.steadyBeadDatabase = after;
  try {
    await before.close();
    return await work();
  } finally {
    settle(openDatabase(dataFolder()));
    // Where it cannot be opened, the next one who asks tries again.
    await after.catch((error: unknown) => {
      holder.steadyBeadDatabase = undefined;
      throw error;
    });
  }
}

export async function closeDatabase(): Promise<void> {
  const open = await holder.steadyBeadDatabase?.catch(() => undefined);
  holder.steadyBeadDatabase = undefined;
  await open?.close();
}

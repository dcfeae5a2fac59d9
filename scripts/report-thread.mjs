// A thread of the built server that writes reports as PDF: asked with an id, it answers with the same.
import path from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import { parentPort } from "node:worker_threads";

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), "..");
const { writeReport } = await import(pathToFileURL(path.join(root, "build/server/index.js")).href);

parentPort?.on("message", async ({ id, asked }) => {
  try {
    const body = await writeReport(asked);
    parentPort.postMessage({ id, body }, [body.buffer]);
  } catch (error) {
    parentPort.postMessage({ id, problem: error instanceof Error ? error.message : String(error) });
  }
});

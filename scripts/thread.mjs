// A thread of the built server that does one kind of work: asked with an id, it answers with the same, and says in between how far it is.
import path from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import { parentPort, workerData } from "node:worker_threads";

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), "..");
const works = (await import(pathToFileURL(path.join(root, "build/server/index.js")).href)).threadWorks;
const work = await works[workerData]();

parentPort?.on("message", async ({ id, asked }) => {
  const say = (what) => parentPort.postMessage({ id, ...what });
  try {
    say({ answer: await work(asked, (progress) => say({ progress })) });
  } catch (error) {
    say({ problem: error instanceof Error ? error.message : String(error) });
  }
});

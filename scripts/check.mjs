// The quick look while one works: types, lint and layers, each with what it remembers, and the unit tests beside what was changed.
import { execFileSync, spawn } from "node:child_process";

const cache = "node_modules/.cache";

/** Rooms of what differs from the last commit: their tests are run, all others by bin/test. */
const changed = execFileSync("git", ["status", "--porcelain", "-uall"], { encoding: "utf8" })
  .split("\n")
  .map((line) => line.slice(3).split(" -> ").at(-1) ?? "")
  .filter((file) => /\.tsx?$/.test(file));
const rooms = [...new Set(changed.map((file) => `${file.split("/").slice(0, -1).slice(0, 3).join("/")}/`))];
const steps = [
  ["types", ["npx", "tsc", "--noEmit", "--incremental", "--tsBuildInfoFile", `${cache}/tsc.json`]],
  ["lint", ["npx", "eslint", ".", "--max-warnings", "0", "--cache", "--cache-location", `${cache}/eslint`]],
  ["layers", ["npm", "run", "--silent", "layers"]],
  ...(rooms.length === 0
    ? []
    : [["tests", ["npm", "run", "--silent", "test:unit", "--", "--passWithNoTests", "--silent", ...rooms]]]),
];

const run = ([name, [command, ...args]]) =>
  new Promise((resolve) => {
    const began = Date.now();
    const env = { ...process.env, NODE_OPTIONS: "" };
    const child = spawn(command, args, { env, stdio: ["ignore", "pipe", "pipe"] });
    let said = "";
    for (const stream of [child.stdout, child.stderr]) stream.on("data", (text) => (said += text));
    child.on("close", (code) => resolve({ name, code, said, seconds: (Date.now() - began) / 1000 }));
  });

const began = Date.now();
// Types first: a lint by types without them tells little.
await run(["routes", ["npx", "react-router", "typegen"]]);
const done = [];
for (const pair of [steps.slice(0, 2), steps.slice(2)]) done.push(...(await Promise.all(pair.map(run))));
for (const { name, code, said, seconds } of done) {
  console.log(`${code === 0 ? "ok    " : "FAILED"} ${name}, ${seconds.toFixed(1)} s`);
  if (code !== 0) console.log(said);
}
console.log(`${((Date.now() - began) / 1000).toFixed(1)} s in all`);
process.exit(done.every(({ code }) => code === 0) ? 0 : 1);

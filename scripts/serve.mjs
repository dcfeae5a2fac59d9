// Serves the application: the built one, or with --dev the sources through Vite. HOST, PORT and DATA_DIR override.
import { readFileSync } from "node:fs";
import { createServer } from "node:http";
import { createServer as createSecureServer } from "node:https";
import path from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import v8 from "node:v8";
import express from "express";

/**
 * Keeps memory small: garbage is collected before the heap has grown by an eighth of what is in use, and what is left is moved together.
 * Left to itself the heap grows severalfold on a machine with much memory, and that of a server that is open all day with it.
 */
function keepMemorySmall(small) {
  v8.setFlagsFromString(`--heap-growing-percent=${small ? 12 : 0}`);
  v8.setFlagsFromString(small ? "--compact-on-every-full-gc" : "--no-compact-on-every-full-gc");
}
keepMemorySmall(true);
// The check of a whole record is one large function. As bytecode it is quick enough; made into machine code it takes a megabyte, again and
// again as it meets records of other shapes.
v8.setFlagsFromString("--max-optimized-bytecode-size=16384");

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), "..");
process.chdir(root);
const development = process.argv.includes("--dev");
process.env.NODE_ENV ??= development ? "development" : "production";
const host = process.env.HOST ?? "127.0.0.1";
const port = Number(process.env.PORT ?? 4100);

const front = express();
front.disable("x-powered-by");

/** Key and certificate for https, where TLS_CERT and TLS_KEY name their files. */
function certificate() {
  const { TLS_CERT, TLS_KEY } = process.env;
  if (!TLS_CERT && !TLS_KEY) return null;
  if (!TLS_CERT || !TLS_KEY) throw new Error("TLS_CERT and TLS_KEY go together: one of them is missing.");
  const read = (name, file) => {
    try {
      return readFileSync(file);
    } catch (error) {
      throw new Error(`${name} cannot be read: ${error.message}`, { cause: error });
    }
  };
  return { cert: read("TLS_CERT", TLS_CERT), key: read("TLS_KEY", TLS_KEY) };
}

async function built() {
  const server = await import(pathToFileURL(path.join(root, "build/server/index.js")).href);
  front.use(...server.front({ host, port }));
  const client = path.join(root, "build/client");
  front.use("/assets", express.static(path.join(client, "assets"), { immutable: true, maxAge: "1y" }));
  front.use(express.static(client, { maxAge: "1h" }));
  front.use(server.app);
  return server;
}

async function fromSources() {
  const { createServer: createVite } = await import("vite");
  const vite = await createVite({ server: { middlewareMode: true } });
  // The development server writes scripts into its pages, so there is no policy for them.
  const { front: before } = await vite.ssrLoadModule("./app/http.server.ts");
  front.use(...before({ host, port }, { policy: false }));
  front.use(vite.middlewares);
  front.use(async (request, response, next) => {
    try {
      const { app } = await vite.ssrLoadModule("./app/http.server.ts");
      await app(request, response, next);
    } catch (error) {
      if (error instanceof Error) vite.ssrFixStacktrace(error);
      next(error);
    }
  });
  return vite.ssrLoadModule("./app/http.server.ts");
}

try {
  const began = performance.now();
  const server = await (development ? fromSources() : built());
  server.keepMemoryBy(keepMemorySmall);
  const refused = server.openingProblem({ host, port });
  if (refused) {
    console.error(refused);
    process.exit(1);
  }
  const reached = ["0.0.0.0", "::"].includes(host) ? "127.0.0.1" : host;
  const tls = certificate();
  const url = `${tls ? "https" : "http"}://${reached.includes(":") ? `[${reached}]` : reached}:${port}`;
  await server.start(url);
  const listening = tls ? createSecureServer(tls, front) : createServer(front);
  // A bench that reads something every few seconds keeps its connection. After the five seconds that are usual its next reading would often
  // meet one that is just being closed.
  listening.keepAliveTimeout = 75_000;
  listening.once("error", (error) => {
    console.error(`Cannot listen on ${host}:${port}: ${error.message}`);
    void server.stop().then(() => process.exit(1));
  });
  listening.listen(port, host, () => {
    const seconds = ((performance.now() - began) / 1000).toFixed(1);
    console.log(`Steady Bead is ready at ${url} (started in ${seconds} s, Ctrl-C stops it)`);
  });
  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    listening.close();
    listening.closeAllConnections();
    await server.stop();
    process.exit(0);
  };
  process.on("SIGINT", stop);
  process.on("SIGTERM", stop);
} catch (error) {
  // These are for the person at the terminal; anything else is a fault of the program.
  const told = [
    "FolderInUseError",
    "StorageError",
    "LabFolderError",
    "BackupError",
    "AccessFileError",
  ].includes(error?.name);
  console.error(told ? error.message : error);
  process.exit(1);
}

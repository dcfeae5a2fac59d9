import { type ChildProcess, spawn } from "node:child_process";
import path from "node:path";

/**
 * Flags for a server of a minute or two: the database's code is compiled once and not optimized, which is half of what a start costs.
 */
export const quickStart = ["--liftoff-only"] as const;

/** The built application on a database folder of its own, as a person at a terminal would start and stop it. */
export class AppServer {
  private child: ChildProcess | null = null;

  constructor(
    readonly folder: string,
    readonly port: number,
    /** Where what it says of failures goes. */
    private readonly log: "inherit" | "ignore" = "inherit",
    private readonly env: Readonly<Record<string, string>> = {},
    /** Of the engine that runs it. */
    private readonly flags: readonly string[] = [],
  ) {}

  get url() {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Of its process, while it runs. */
  get pid(): number | undefined {
    return this.child?.pid;
  }

  async start(): Promise<void> {
    const child = spawn(process.execPath, [...this.flags, "scripts/serve.mjs"], {
      env: {
        ...process.env,
        DATA_DIR: this.folder,
        PORT: String(this.port),
        HOST: "127.0.0.1",
        NODE_ENV: "production",
        // What it remembers of labs it opened is for this machine's own.
        STEADY_BEAD_LABS: path.join(this.folder, "labs.json"),
        ...this.env,
      },
      stdio: ["ignore", "pipe", this.log],
    });
    this.child = child;
    await new Promise<void>((resolve, reject) => {
      child.once("exit", (code) => reject(new Error(`The server ended with ${code}`)));
      child.stdout.on("data", (text: Buffer) => {
        if (text.toString().includes("is ready at")) resolve();
      });
    });
  }

  /** Ctrl-C; resolves with the exit code. */
  async stop(signal: NodeJS.Signals = "SIGINT"): Promise<number | null> {
    const child = this.child;
    if (!child) return null;
    this.child = null;
    if (child.exitCode !== null || child.signalCode !== null) return child.exitCode;
    const ended = new Promise<number | null>((resolve) => child.once("exit", (code) => resolve(code)));
    child.kill(signal);
    return ended;
  }
}

/** Begins a run as the form of the bench does, and returns its id. */
export async function beginRun(
  url: string,
  methodId: string,
  title: string,
  { sample = "", bench = "bench 1" } = {},
): Promise<string> {
  const answer = await fetch(`${url}/?index`, {
    method: "POST",
    body: new URLSearchParams({ intent: "start", methodId, title, sample, bench }),
    redirect: "manual",
    // A form is taken from this server's own pages only.
    headers: { Origin: url },
  });
  const runId = answer.headers.get("location")?.split("/").at(-1);
  if (!runId) throw new Error(`No run of ${methodId} was begun: ${answer.status}`);
  return runId;
}

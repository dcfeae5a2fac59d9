import path from "node:path";
import { Worker } from "node:worker_threads";
import type { ReportAsked } from "./asked.server";

type Body = Uint8Array<ArrayBuffer>;

/** What the thread answers. */
interface Answer {
  readonly id: number;
  readonly body?: Body;
  readonly problem?: string;
}

interface Waiting {
  readonly resolve: (body: Body) => void;
  readonly reject: (error: Error) => void;
}

/** A thread that nobody has asked for so long ends. */
const idleMs = 30_000;

/** The thread that writes reports, begun when one is wanted: the server goes on saving readings meanwhile. */
class ReportThread {
  private readonly waiting = new Map<number, Waiting>();
  private worker: Worker | null = null;
  private last = 0;
  private idle: NodeJS.Timeout | undefined;

  write(asked: ReportAsked): Promise<Body> {
    const worker = this.begun();
    const id = ++this.last;
    return new Promise<Body>((resolve, reject) => {
      this.waiting.set(id, { resolve, reject });
      worker.postMessage({ id, asked });
    });
  }

  private begun(): Worker {
    clearTimeout(this.idle);
    this.worker ??= this.begin();
    return this.worker;
  }

  private begin(): Worker {
    const worker = new Worker(path.resolve("scripts/report-thread.mjs"));
    worker.unref();
    worker.on("message", (answer: Answer) => this.answered(answer));
    worker.on("error", (error) =>
      this.ended(worker, error instanceof Error ? error : new Error(String(error))),
    );
    worker.on("exit", () => this.ended(worker, new Error("The thread that writes reports ended")));
    return worker;
  }

  private answered({ id, body, problem }: Answer): void {
    const asker = this.waiting.get(id);
    this.waiting.delete(id);
    if (body) asker?.resolve(body);
    else asker?.reject(new Error(problem));
    if (this.waiting.size > 0) return;
    this.idle = setTimeout(() => void this.worker?.terminate(), idleMs);
    this.idle.unref();
  }

  private ended(worker: Worker, error: Error): void {
    if (this.worker !== worker) return;
    this.worker = null;
    for (const { reject } of this.waiting.values()) reject(error);
    this.waiting.clear();
  }
}

const thread = new ReportThread();

/** Writes a report as PDF: the built server in a thread beside it, what runs from the sources in its own. */
export async function reportBeside(asked: ReportAsked): Promise<Body> {
  if (import.meta.url.includes("/build/server/")) return thread.write(asked);
  const { writeReport } = await import("./asked.server");
  return writeReport(asked);
}

import path from "node:path";
import { Worker } from "node:worker_threads";

/* Threads of the built server, for work that would keep it from saving readings. */

/** What a thread says: how far it is, what came of it, or why nothing did. */
interface Said {
  readonly id: number;
  readonly progress?: unknown;
  readonly answer?: unknown;
  readonly problem?: string;
}

interface Waiting {
  readonly resolve: (answer: unknown) => void;
  readonly reject: (error: Error) => void;
  readonly onProgress: (progress: unknown) => void;
}

/** True in the built server; from the sources there are no threads, and the same work is done in their own. */
export const hasThreads = (): boolean => import.meta.url.includes("/build/server/");

/**
 * A thread that does one kind of work of `threadWorks` in `app/http.server.ts`. It begins when it is first asked, and ends when nobody has asked
 * for `idleMs`. What is asked and answered is plain data. `Asked`, `Progress` and `Answer` are those of its work.
 */
export class Thread<Asked, Answer, Progress = never> {
  private readonly waiting = new Map<number, Waiting>();
  private worker: Worker | null = null;
  private last = 0;
  private idle: NodeJS.Timeout | undefined;

  constructor(
    private readonly work: string,
    private readonly idleMs: number,
  ) {}

  /** Does some work. Throws what the work threw, or that the thread has ended. */
  ask(asked: Asked, onProgress: (progress: Progress) => void = () => {}): Promise<Answer> {
    const worker = this.begun();
    clearTimeout(this.idle);
    const id = ++this.last;
    return new Promise<Answer>((resolve, reject) => {
      this.waiting.set(id, {
        ...{ reject, resolve: (answer) => resolve(answer as Answer) },
        onProgress: (progress) => onProgress(progress as Progress),
      });
      worker.postMessage({ id, asked });
    });
  }

  /** Begins it ahead of what it will be asked: it takes about a second to be ready. */
  begin(): void {
    this.begun();
    if (this.waiting.size === 0) this.endWhenIdle();
  }

  private end(): void {
    const { worker } = this;
    if (!worker) return;
    this.ended(worker, new Error("The thread was stopped"));
    void worker.terminate();
  }

  private begun(): Worker {
    if (this.worker) return this.worker;
    const worker = new Worker(path.resolve("scripts/thread.mjs"), { workerData: this.work });
    worker.unref();
    worker.on("message", (said: Said) => this.heard(said));
    worker.on("error", (error) =>
      this.ended(worker, error instanceof Error ? error : new Error(String(error))),
    );
    worker.on("exit", () => this.ended(worker, new Error(`The thread for ${this.work} ended`)));
    this.worker = worker;
    return worker;
  }

  private heard({ id, progress, answer, problem }: Said): void {
    const asker = this.waiting.get(id);
    if (progress !== undefined) return asker?.onProgress(progress);
    this.waiting.delete(id);
    if (problem === undefined) asker?.resolve(answer);
    else asker?.reject(new Error(problem));
    if (this.waiting.size === 0) this.endWhenIdle();
  }

  private endWhenIdle(): void {
    clearTimeout(this.idle);
    this.idle = setTimeout(() => this.end(), this.idleMs).unref();
  }

  private ended(worker: Worker, error: Error): void {
    if (this.worker !== worker) return;
    this.worker = null;
    clearTimeout(this.idle);
    for (const { reject } of this.waiting.values()) reject(error);
    this.waiting.clear();
  }
}

import { closeSync, fdatasync, ftruncateSync, openSync, writeSync } from "node:fs";
import { promisify } from "node:util";
import { v4 } from "uuid";
import { Bug } from "../../core/result";
import { StorageError } from "../database/storage";
import { type Head, type Line, beginning, sealed } from "./line";
import {
  type Base,
  type Header,
  type Mark,
  readJournal,
  removeSegments,
  type Segment,
  type StoredJournal,
  writeSegment,
} from "./segments";

const flushed = promisify(fdatasync);

/**
 * The journal of a lab: every accepted command, in order, on the disk before anyone is told that it was saved. The database
 * beside it is not flushed by itself, and is brought up to the journal after a power cut.
 */
export class Journal {
  /** The last line that was written. */
  head: Head;
  /** The line that is being replayed; null while commands come from people. */
  replayed: Line | null = null;
  private segments: Segment[];
  private readonly handles: { file: number; bytes: number };
  /** The last line that is on the disk. */
  private safe: number;
  private flushing: Promise<void> | null = null;
  /** How often a line was taken back: its number is given once more, and a flush of before says nothing of the new one. */
  private takenBack = 0;
  private turn: Promise<unknown> = Promise.resolve();
  private broken: unknown = null;

  private constructor(
    private readonly folder: string,
    readonly id: string,
    readonly base: Base | null,
    private readonly lab: string,
    { segments, head }: Pick<StoredJournal, "segments" | "head">,
  ) {
    const last = segments.at(-1);
    if (!last) throw new Bug("A journal has a file");
    this.segments = [...segments];
    this.head = head;
    this.safe = head.seq;
    const file = openSync(last.file, "r+");
    ftruncateSync(file, last.bytes);
    this.handles = { file, bytes: last.bytes };
  }

  /** Begins a new journal in a folder that has none. */
  static begin(folder: string, lab: string, base: Base | null): Journal {
    const begun = new Date().toISOString();
    const header = { format: "steady-bead/journal", formatVersion: 1, journal: v4(), lab, begun } as const;
    writeSegment(folder, { ...header, after: beginning, base });
    const journal = Journal.open(folder);
    if (!journal) throw new Bug("The journal was not written");
    return journal;
  }

  /** The journal of a folder, to be written on; null where there is none. */
  static open(folder: string, stored = readJournal(folder)): Journal | null {
    return (
      stored && new Journal(folder, stored.id, stored.base, stored.segments[0]?.header.lab ?? "", stored)
    );
  }

  /** Behind this line everything is there. */
  get after(): number {
    return this.segments[0]?.header.after.seq ?? 0;
  }

  /** Why nothing more is accepted; null where all is well. */
  get trouble(): StorageError | null {
    if (this.broken === null) return null;
    return new StorageError(
      "The journal could not be written to the disk, so nothing more is saved. Look at the disk, and start the server again; readings " +
        "wait in the browser until then.",
      { cause: this.broken },
    );
  }

  /** How far it has come. */
  get mark(): Mark {
    return { journal: this.id, ...this.head };
  }

  /** One after the other: the order of lines is that of the commits. */
  inTurn<T>(work: () => Promise<T>): Promise<T> {
    const done = this.turn.then(work);
    this.turn = done.catch(() => undefined);
    return done;
  }

  /** The line that a command would be. */
  next(kind: string, data: unknown, at: Date): ReturnType<typeof sealed> {
    const { trouble } = this;
    if (trouble) throw trouble;
    const { seq, check } = this.head;
    const entry = { seq: seq + 1, id: v4(), at: at.toISOString(), kind, data };
    return sealed({ ...entry, flushed: this.safe, before: check });
  }

  /** Writes a line; it is on the disk once `onDisk` says so. Returns how to take it back while nothing follows it. */
  append({ line, text }: ReturnType<typeof sealed>): () => void {
    const [before, { file, bytes }] = [this.head, this.handles];
    const takeBack = () => {
      try {
        ftruncateSync(file, bytes);
        this.handles.bytes = bytes;
        this.head = before;
        this.takenBack++;
        this.safe = Math.min(this.safe, before.seq);
      } catch (error) {
        this.broken = error;
      }
    };
    const data = Buffer.from(text);
    try {
      for (let done = 0; done < data.length;)
        done += writeSync(file, data, done, data.length - done, bytes + done);
    } catch (error) {
      takeBack();
      throw error;
    }
    this.handles.bytes = bytes + data.length;
    this.head = line;
    return takeBack;
  }

  /** Once a line is on the disk; all that wait together share one flush. */
  async onDisk(seq: number): Promise<void> {
    while (this.safe < seq) {
      this.flushing ??= this.flush();
      await this.flushing;
    }
  }

  private async flush(): Promise<void> {
    // Lines that come in this turn of the loop go with this flush.
    await new Promise((resolve) => setImmediate(resolve));
    const [upTo, takenBack] = [this.head.seq, this.takenBack];
    try {
      await flushed(this.handles.file);
      if (takenBack === this.takenBack) this.safe = Math.max(this.safe, upTo);
    } catch (error) {
      // After a flush that failed nobody knows what is on the disk.
      this.broken = error;
      throw error;
    } finally {
      this.flushing = null;
    }
  }

  /** Begins a new file, so that the ones before can be cut away once a backup holds what is in them. */
  async rotate(): Promise<void> {
    await this.inTurn(async () => {
      const last = this.segments.at(-1);
      if (last && last.header.after.seq === this.head.seq) return;
      await this.onDisk(this.head.seq);
      const header: Header = {
        format: "steady-bead/journal",
        formatVersion: 1,
        ...{ journal: this.id, lab: this.lab, begun: new Date().toISOString(), after: this.head },
      };
      const file = writeSegment(this.folder, header);
      closeSync(this.handles.file);
      this.handles.file = openSync(file, "r+");
      this.handles.bytes = Buffer.byteLength(`${JSON.stringify(header)}\n`);
      this.segments.push({ file, header, lines: [], bytes: this.handles.bytes });
    });
  }

  /** Takes away files that hold nothing but lines up to this one. */
  cut(upTo: number): void {
    const kept = this.segments.findLastIndex(({ header }) => header.after.seq <= upTo);
    removeSegments(this.segments.slice(0, Math.max(0, kept)));
    this.segments = this.segments.slice(Math.max(0, kept));
  }

  async close(): Promise<void> {
    await this.inTurn(() => this.onDisk(this.head.seq));
    closeSync(this.handles.file);
  }
}

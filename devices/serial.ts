import { failure, type Result, success } from "~/core/result";
import {
  type Clock,
  type InstrumentConnection,
  type Instrument,
  type InstrumentReading,
  wallClock,
} from "./instrument";
import { msg, type Phrase } from "~/core/text";

/** As much of a serial port as is needed: the browser's own has this shape, and so has a simulated one. */
export interface SerialPortLike {
  readonly open: (options: { baudRate: number }) => Promise<void>;
  readonly close: () => Promise<void>;
  readonly readable: ReadableStream<Uint8Array> | null;
}

/** How a line of a real instrument is read, as the person sets it. */
export interface LinePattern {
  /**
   * The line as the instrument sends it, with {value} where the number stands. {any} stands for whatever may come there,
   * {stable:S} for a mark that is there only when the reading stands still. A space is any number of spaces.
   */
  readonly line: string;
  readonly unit: string;
}

interface Understood {
  readonly value: string;
  readonly stable: boolean;
}

const literal = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, "\\$&").replace(/\s+/g, "\\s*");

/** Makes a reader of lines from a pattern, or says what is wrong with it. A line that does not fit is null. */
export function lineReader({ line }: LinePattern): Result<(text: string) => Understood | null> {
  const marks = [...line.matchAll(/\{([^{}]*)\}/g)];
  const values = marks.filter((m) => m[1] === "value").length;
  if (line.trim() === "")
    return failure(msg`Write a line as the instrument sends it, with ${"{value}"} for the number`);
  if (values !== 1) {
    return failure(
      values === 0
        ? msg`There is no ${"{value}"} in the pattern: put it where the number stands`
        : msg`${"{value}"} may be used only once`,
    );
  }
  const odd = marks.find(([, name = ""]) => name !== "value" && name !== "any" && !/^stable:.+$/.test(name));
  if (odd) return failure(msg`${odd[0]} is not known: use ${"{value}"}, ${"{any}"} or ${"{stable:S}"}`);
  if (/[{}]/.test(line.replace(/\{[^{}]*\}/g, ""))) return failure(msg`A brace is not closed`);
  if (marks.filter((m) => m[1]?.startsWith("stable:")).length > 1)
    return failure(msg`${"{stable:…}"} may be used only once`);
  let source = "";
  let at = 0;
  for (const mark of marks) {
    source += literal(line.slice(at, mark.index));
    const name = mark[1] ?? "";
    if (name === "value") source += "(?<value>[+-]?\\s*\\d+(?:[.,]\\d+)?)";
    else if (name === "any") source += ".*?";
    else source += `(?<stable>${literal(name.slice("stable:".length))})?`;
    at = mark.index + mark[0].length;
  }
  source += literal(line.slice(at));
  const pattern = new RegExp(`^\\s*${source}\\s*$`);
  const marksStable = marks.some((m) => m[1]?.startsWith("stable:"));
  return success((text) => {
    const found = pattern.exec(text)?.groups;
    if (!found?.value) return null;
    const value = found.value.replace(/\s+/g, "").replace(",", ".").replace(/^\+/, "");
    return { value, stable: !marksStable || found.stable !== undefined };
  });
}

/** Lines longer than this are no lines: a wrong speed makes one endless line of noise. */
const longestLine = 400;

/**
 * A real instrument on a serial port, read line by line by the person's pattern. Where the pattern has no mark for it, a
 * reading is stable once three lines in a row say the same.
 */
export function serialInstrument(
  name: Phrase,
  port: () => Promise<SerialPortLike>,
  pattern: LinePattern,
  baudRate: number,
): Instrument {
  return {
    id: "serial",
    name,
    unit: pattern.unit,
    connect: async (clock: Clock = wallClock): Promise<Result<InstrumentConnection>> => {
      const made = lineReader(pattern);
      if (!made.ok) return made;
      let opened: SerialPortLike;
      try {
        opened = await port();
        await opened.open({ baudRate });
      } catch {
        return failure(msg`${name} cannot be opened: is another program using it, or was no port chosen?`);
      }
      if (!opened.readable) {
        return failure(msg`${name} cannot be read`);
      }
      return success(connected(name, opened, opened.readable, made.value, pattern, clock));
    },
  };
}

function connected(
  name: Phrase,
  port: SerialPortLike,
  readable: ReadableStream<Uint8Array>,
  read: (text: string) => Understood | null,
  { line, unit }: LinePattern,
  clock: Clock,
): InstrumentConnection {
  const start = clock.now();
  const reader = readable.getReader();
  const listeners = new Set<(reading: Result<InstrumentReading>) => void>();
  const notify = (reading: Result<InstrumentReading>) => listeners.forEach((listener) => listener(reading));
  const marked = line.includes("{stable:");
  let [open, rest, last, same] = [true, "", "", 0];

  const receive = (text: string) => {
    if (text.trim() === "") return;
    const found = read(text);
    if (!found)
      return notify(
        failure(msg`${name} sent "${text.trim().slice(0, 40)}", which does not fit the pattern "${line}"`),
      );
    same = found.value === last ? same + 1 : 1;
    last = found.value;
    const stable = marked ? found.stable : same >= 3;
    const value = Number(found.value);
    notify(success({ seconds: clock.now() - start, value, text: found.value, unit, stable }));
  };
  const close = async () => {
    open = false;
    await reader.cancel().catch(() => undefined);
    reader.releaseLock();
    await port.close().catch(() => undefined);
  };
  void (async () => {
    const text = new TextDecoder();
    try {
      for (;;) {
        const { value, done } = await reader.read();
        if (done || !open) break;
        rest += text.decode(value, { stream: true });
        const lines = rest.split(/[\r\n]+/);
        rest = lines.pop() ?? "";
        lines.forEach(receive);
        if (rest.length > longestLine) {
          rest = "";
          notify(failure(msg`${name} sends no lines that can be read: is the speed right?`));
        }
      }
    } catch {
      // The cable was pulled: told below.
    }
    if (!open) return;
    open = false;
    notify(failure(msg`${name} is not connected any more: look at its cable`));
  })();
  return {
    connected: () => open,
    stream: (listener) => {
      if (!open) listener(failure(msg`${name} is not connected any more: look at its cable`));
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    disconnect: () => void close(),
  };
}

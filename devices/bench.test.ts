import { describe, expect, test } from "@jest/globals";
import { mustHold, type Result } from "~/core/result";
import {
  lineReader,
  type InstrumentReading,
  serialInstrument,
  type SerialPortLike,
  simulatedBalance,
  simulatedBurette,
  simulatedThermometer,
  watched,
} from ".";
import { handClock } from "./tests/hand-clock";
import { inEnglish } from "~/core/text";
import { plain } from "~/core/testing/plain";

const listening = () => {
  const received: (InstrumentReading | string)[] = [];
  const listener = (r: Result<InstrumentReading>) =>
    received.push(r.ok ? r.value : inEnglish(r.problem.message));
  return { received, listener, last: () => received.at(-1) };
};

describe("the simulated balance", () => {
  const connected = async (change = {}) => {
    const hand = handClock();
    const made = mustHold(
      await simulatedBalance({
        seed: 5,
        readabilityG: 0.0001,
        noiseSteps: 0,
        driftGPerHour: 0,
        ...change,
      }).connect(hand.clock),
    );
    const ear = listening();
    made.stream(ear.listener);
    return { ...hand, ...ear, made };
  };

  test("swings to rest before it is steady, and shows its load to its readability; tared, the difference", async () => {
    const { made, advance, last, received } = await connected();
    made.act.load(10.51043);
    advance(0.25);
    expect(last()).toMatchObject({ stable: false });
    advance(8);
    expect(last()).toMatchObject({ text: "10.5104", unit: "g", stable: true });
    expect(received.filter((r) => typeof r !== "string" && !r.stable).length).toBeGreaterThan(10);
    made.act.tare();
    made.act.load(11);
    advance(8);
    expect(last()).toMatchObject({ text: "0.4896", stable: true });
  });

  test("drifts by what it was told, scatters alike for one seed, and is blind beyond its capacity", async () => {
    const { advance, last, made } = await connected({ driftGPerHour: 0.002 });
    advance(3600);
    expect(last()).toMatchObject({ text: "0.0020" });
    made.act.load(500);
    advance(5);
    expect(last()).toMatchObject({ text: "–––", stable: false });
    const scattered = async () => {
      const one = await connected({ noiseSteps: 2 });
      one.advance(5);
      return one.received.map((r) => (typeof r === "string" ? r : r.text));
    };
    expect(await scattered()).toEqual(await scattered());
    expect(new Set(await scattered()).size).toBeGreaterThan(2);
  });
});

describe("the simulated burette", () => {
  test("runs, drops, counts its drops, and is steady only when the wall has run down", async () => {
    const { clock, advance } = handClock();
    const made = mustHold(
      await simulatedBurette({ seed: 8, capacityMl: 50, resolutionMl: 0.01, flowMlPerSecond: 0.5 }).connect(
        clock,
      ),
    );
    const { listener, last } = listening();
    made.stream(listener);
    made.act.open();
    advance(40);
    made.act.close();
    advance(0.4);
    expect(last()).toMatchObject({ stable: false });
    advance(4);
    expect(last()).toMatchObject({ text: "20.00", stable: true });
    const before = made.act.drops();
    for (let i = 0; i < 20; i++) made.act.drop();
    advance(4);
    expect(made.act.drops() - before).toBe(20);
    // Twenty drops are about a milliliter: each is within some percent of 0.05 mL.
    expect((last() as InstrumentReading).value).toBeGreaterThan(20.9);
    expect((last() as InstrumentReading).value).toBeLessThan(21.1);
    made.act.refill();
    advance(4);
    expect(last()).toMatchObject({ text: "0.00" });
    made.act.open();
    advance(300);
    expect((last() as InstrumentReading).value).toBe(50);
  });
});

test("the simulated thermometer cools by Newton's law towards the room, and can be heated again", async () => {
  const { clock, advance } = handClock();
  const made = mustHold(
    await simulatedThermometer({ seed: 2, startC: 80, roomC: 20, coolingSeconds: 600 }).connect(clock),
  );
  const { listener, last } = listening();
  made.stream(listener);
  advance(600);
  // 20 + 60/e = 42.07
  expect((last() as InstrumentReading).value).toBeCloseTo(20 + 60 / Math.E, 0);
  advance(6000);
  expect((last() as InstrumentReading).value).toBeCloseTo(20, 0);
  made.act.heat(70);
  advance(1);
  expect(last()).toMatchObject({ stable: false });
  advance(3);
  expect((last() as InstrumentReading).value).toBeCloseTo(69.7, 0);
});

describe("what goes wrong", () => {
  const faulty = async (kind: "garbage" | "freeze" | "unplug") => {
    const hand = handClock();
    const instrument = simulatedBalance({ seed: 1, readabilityG: 0.01, fault: { kind, afterSeconds: 10 } });
    const made = mustHold(await instrument.connect(hand.clock));
    const ear = listening();
    watched(made, ear.listener, hand.clock);
    hand.advance(9);
    expect(ear.last()).toMatchObject({ unit: "g" });
    hand.advance(10);
    return { ...hand, ...ear, made, instrument };
  };

  test("garbage is told, and the stream goes on", async () => {
    const { last, made } = await faulty("garbage");
    expect(last()).toBe('Simulated balance sent "?#~0" and no number');
    expect(made.connected()).toBe(true);
  });

  test("silence is told once, by the watch", async () => {
    const { received, advance, made } = await faulty("freeze");
    const silent = () => received.filter((r) => typeof r === "string");
    expect(silent()).toEqual([expect.stringMatching(/No reading for 4 s: is the instrument frozen/)]);
    advance(60);
    expect(silent()).toHaveLength(1);
    expect(made.connected()).toBe(true);
  });

  test("a pulled cable ends it, and it can be connected again", async () => {
    const { last, made, instrument, timers } = await faulty("unplug");
    expect(last()).toMatch(/not connected any more: look at its cable/);
    expect(made.connected()).toBe(false);
    expect(timers()).toBe(1);
    expect((await instrument.connect(handClock().clock)).ok).toBe(true);
  });
});

/** A serial port that one writes to by hand. */
function portOf() {
  let controller: ReadableStreamDefaultController<Uint8Array> | null = null;
  const calls: string[] = [];
  const port: SerialPortLike = {
    open: ({ baudRate }) => {
      calls.push(`open ${baudRate}`);
      return Promise.resolve();
    },
    close: () => {
      calls.push("close");
      return Promise.resolve();
    },
    readable: new ReadableStream<Uint8Array>({
      start: (c) => {
        controller = c;
      },
    }),
  };
  const send = async (text: string) => {
    controller?.enqueue(new TextEncoder().encode(text));
    await new Promise((resolve) => setImmediate(resolve));
  };
  const pull = async () => {
    controller?.error(new Error("gone"));
    await new Promise((resolve) => setImmediate(resolve));
  };
  return { port, send, pull, calls };
}

describe("a real instrument over a serial port", () => {
  const connect = async (line: string) => {
    const made = portOf();
    const instrument = serialInstrument(
      "The balance",
      () => Promise.resolve(made.port),
      { line, unit: "g" },
      9600,
    );
    const connection = mustHold(await instrument.connect(handClock().clock));
    const ear = listening();
    connection.stream(ear.listener);
    return { ...made, ...ear, connection };
  };

  test("is read line by line, however the bytes come, with its mark for a steady reading", async () => {
    const { send, received, calls } = await connect("{stable:S} {value} g");
    await send("S   10.2");
    await send("345 g\r\n    10.23");
    await send("51 g\nS -0,0004 g\r\n");
    expect(received).toMatchObject([
      { text: "10.2345", value: 10.2345, unit: "g", stable: true },
      { text: "10.2351", stable: false },
      { text: "-0.0004", value: -0.0004, stable: true },
    ]);
    expect(calls).toEqual(["open 9600"]);
  });

  test("without a mark, three equal lines are steady", async () => {
    const { send, received } = await connect("{any}{value} mL");
    await send("VOL 24.30 mL\nVOL 24.35 mL\nVOL 24.35 mL\nVOL 24.35 mL\n");
    expect(received.map((r) => typeof r !== "string" && r.stable)).toEqual([false, false, false, true]);
  });

  test("garbage is told with what came, noise without lines is told as a wrong speed, and it goes on", async () => {
    const { send, received, connection } = await connect("{value} g");
    await send("ERR 7\n");
    await send("x".repeat(500));
    await send("\n12.5 g\n");
    expect(received).toMatchObject([
      'The balance sent "ERR 7", which does not fit the pattern "{value} g"',
      "The balance sends no lines that can be read: is the speed right?",
      { text: "12.5" },
    ]);
    expect(connection.connected()).toBe(true);
  });

  test("a pulled cable is told and ends it; put away, the port is closed", async () => {
    const first = await connect("{value} g");
    await first.pull();
    expect(first.last()).toMatch(/not connected any more/);
    expect(first.connection.connected()).toBe(false);
    const second = await connect("{value} g");
    second.connection.disconnect();
    await new Promise((resolve) => setImmediate(resolve));
    expect(second.calls).toEqual(["open 9600", "close"]);
  });

  test("a port that cannot be opened is reported", async () => {
    const busy = { ...portOf().port, open: () => Promise.reject(new Error("busy")) };
    const instrument = serialInstrument(
      "The balance",
      () => Promise.resolve(busy),
      { line: "{value}", unit: "g" },
      9600,
    );
    expect(plain(await instrument.connect())).toMatchObject({
      ok: false,
      problem: { message: expect.stringMatching(/cannot be opened/) },
    });
  });

  test.each([
    ["", /Write a line as the instrument sends it/],
    ["g", /no \{value\} in the pattern/],
    ["{value} {value}", /only once/],
    ["{weight} {value}", /\{weight\} is not known/],
    ["{value} {g", /brace is not closed/],
    ["{stable:S}{stable:T}{value}", /only once/],
  ])("the pattern %j is refused in words", (line, words) => {
    const made = lineReader({ line, unit: "g" });
    expect(plain(made.ok ? "" : made.problem.message)).toMatch(words);
  });

  test("signs of a pattern are taken as they are written", () => {
    const read = mustHold(lineReader({ line: "+{value} (net) $", unit: "g" }));
    expect(read("+ 1.50 (net) $")).toEqual({ value: "1.50", stable: true });
    expect(read("1.50 net")).toBeNull();
  });
});

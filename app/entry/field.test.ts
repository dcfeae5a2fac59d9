import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Check } from "~/core/measure";
import {
  type Draft,
  type Facts,
  type FieldEvent,
  isOpen,
  reopened,
  type Sending,
  stateOf,
  step,
} from "./field";
import { msg } from "~/core/text";
import { plain } from "~/core/testing/plain";

const nothing: Facts = { offered: null, stands: null };
let ids = 0;
const newId = () => `id ${++ids}`;
const confirm = (text: string, more: Partial<Extract<FieldEvent, { on: "confirm" }>> = {}): FieldEvent => ({
  ...{ on: "confirm", text, problem: null, ask: null, newId },
  ...more,
});
const slip: Check = { severity: "caution", message: "Just 1.00 mL off? Is 15.80 meant?", proposal: "15.80" };

/** What a row of events makes of an empty field, and all that it sent. */
function after(...events: readonly FieldEvent[]) {
  return events.reduce<{ draft: Draft | null; sent: readonly Sending[] }>(
    ({ draft, sent }, event) => {
      const next = step(draft, event);
      return { draft: next.draft, sent: [...sent, ...next.send] };
    },
    { draft: null, sent: [] },
  );
}

describe("one field", () => {
  test("is empty, offered, typed, sending, and saved once the run says so", () => {
    expect(plain(stateOf(null, nothing))).toEqual({ is: "empty", text: "" });
    expect(plain(stateOf(null, { ...nothing, offered: "25.00" }))).toEqual({ is: "offered", text: "25.00" });
    const { draft } = after({ on: "type", text: "20.0" });
    expect(plain(stateOf(draft, { ...nothing, offered: "25.00" }))).toEqual({ is: "typed", text: "20.0" });
    const sent = after({ on: "type", text: "20.00" }, confirm("20.00"));
    expect(sent.sent).toEqual([{ id: expect.any(String), text: "20.00", again: false }]);
    expect(plain(stateOf(sent.draft, nothing))).toEqual({ is: "sending", text: "20.00" });
    // What is on its way stays as it was sent.
    expect(step(sent.draft, { on: "type", text: "21.00" }).draft).toBe(sent.draft);
    const id = sent.sent[0]!.id;
    expect(step(sent.draft, { on: "answer", id, answer: { status: "taken" } }).draft).toBeNull();
    const stands = { id, text: "20.00", waits: false };
    expect(plain(stateOf(null, { ...nothing, stands }))).toMatchObject({ is: "saved", text: "20.00" });
    expect(stateOf(null, { ...nothing, stands: { ...stands, waits: true } }).is).toBe("waiting");
  });

  test("an offered value that was cleared stays empty, and one that is confirmed is sent as it is", () => {
    const offered = { ...nothing, offered: "0.00" };
    expect(plain(stateOf(after({ on: "type", text: "" }).draft, offered))).toEqual({ is: "empty", text: "" });
    expect(after(confirm("0.00")).sent).toMatchObject([{ text: "0.00" }]);
  });

  test("a likely slip is asked about once; Enter again keeps it, = writes what was meant, and the question goes", () => {
    const asked = after({ on: "type", text: "16.80" }, confirm("16.80", { ask: slip }));
    expect(asked.sent).toEqual([]);
    expect(stateOf(asked.draft, nothing)).toEqual({
      ...{ is: "asked", text: "16.80" },
      note: { message: msg`${slip.message} Enter again keeps ${"16.80"}.`, proposal: "15.80" },
    });
    const kept = step(asked.draft, confirm("16.80", { ask: slip }));
    expect(kept.send).toMatchObject([{ text: "16.80" }]);
    // Refused for another reason, it is not asked about again.
    const back = step(kept.draft, {
      ...{ on: "answer", id: kept.send[0]!.id },
      answer: { status: "refused", message: "The server does not answer" },
    });
    expect(plain(stateOf(back.draft, nothing))).toMatchObject({ is: "refused", text: "16.80" });
    expect(step(back.draft, confirm("16.80", { ask: slip })).send).toEqual(kept.send);
    const meant = step(asked.draft, { on: "type", text: "15.80" }).draft;
    expect(plain(stateOf(meant, nothing))).toEqual({ is: "typed", text: "15.80" });
    // Another text that looks like a slip is asked about anew.
    const other = step(meant, confirm("15.81", { ask: slip }));
    expect(stateOf(other.draft, nothing).is).toBe("asked");
  });

  test("what cannot be is refused and stays in the field", () => {
    const problem: Check = {
      severity: "stop",
      message: "Read it to the hundredth: 25.60?",
      proposal: "25.60",
    };
    const { draft, sent } = after({ on: "type", text: "25.6" }, confirm("25.6", { problem }));
    expect(sent).toEqual([]);
    const { message, proposal } = problem;
    expect(stateOf(draft, nothing)).toEqual({
      is: "refused",
      text: "25.6",
      note: { message, proposal },
    });
    expect(isOpen(stateOf(draft, nothing))).toBe(true);
  });

  test("read twice: the first is put away, the second compared; of two that differ one is chosen", () => {
    const compare = (a: string, b: string) => (Math.abs(Number(a) - Number(b)) > 0.03 ? "They differ" : null);
    const first = after({ on: "type", text: "12.30" }, confirm("12.30", { compare }));
    expect(first.sent).toEqual([]);
    expect(plain(stateOf(first.draft, nothing))).toEqual({ is: "first of two", text: "" });
    const close = step(first.draft, confirm("12.32", { compare }));
    expect(close.send).toMatchObject([
      { text: "12.30", again: false },
      { text: "12.32", again: true },
    ]);
    const far = step(first.draft, confirm("12.50", { compare }));
    expect(plain(stateOf(far.draft, nothing))).toMatchObject({
      ...{ is: "asked", text: "12.50" },
      note: { message: "They differ", choices: ["12.30", "12.50"] },
    });
    const settled = step(far.draft, { on: "settle", text: "12.50", newId });
    expect(settled.send).toMatchObject([
      { text: "12.50", again: false },
      { text: "12.30", again: true },
    ]);
    expect(step(far.draft, { on: "settle", text: "99", newId }).send).toEqual([]);
  });

  test("another device's reading stands, and what was typed here is still told", () => {
    const { draft } = after({ on: "type", text: "24.11" });
    const stands = { id: "there", text: "24.01", waits: false };
    expect(plain(stateOf(draft, { ...nothing, stands }))).toMatchObject({
      ...{ is: "saved", text: "24.01", typedMeanwhile: "24.11" },
    });
    expect(plain(stateOf(after({ on: "type", text: "24.01" }).draft, { ...nothing, stands }))).toMatchObject({
      typedMeanwhile: null,
    });
    expect(step(draft, { on: "drop" }).draft).toBeNull();
  });
});

/** How the network and the browser's storage take what is sent. */
const ways = ["arrives", "kept here", "arrives, answer lost", "lost", "arrives, lost here"] as const;
type Way = (typeof ways)[number];

/** A server, a browser and a person around one field. */
class Bench {
  draft: Draft | null = null;
  readonly server: { id: string; text: string; here: boolean; takenBack: boolean }[] = [];
  outbox: Sending[] = [];
  /** Readings that another one stood in the way of: somebody is asked which it is. */
  readonly rivals: Sending[] = [];
  readonly everSent: Sending[] = [];
  /** Ids of readings that were told to be unsaved, and that the person then typed over, or settled otherwise. */
  readonly typedOver = new Set<string>();
  private answers: { id: string; taken: boolean }[] = [];
  private seq = 0;
  private lastSent: { readonly text: string; readonly id: string; readonly typedSince: boolean } | null =
    null;

  constructor(private readonly twice: boolean) {}

  get facts(): Facts {
    const there = this.server.findLast((r) => !r.takenBack);
    const waits = this.outbox.find((r) => !r.again);
    const stands = there ?? waits;
    return { offered: "25.00", stands: stands ? { ...stands, waits: !there } : null };
  }
  get state() {
    return stateOf(this.draft, this.facts);
  }
  private act(event: FieldEvent, way: Way) {
    const { draft, send } = step(this.draft, event);
    // It is kept as JSON, as the browser keeps it.
    this.draft = JSON.parse(JSON.stringify(draft)) as Draft | null;
    for (const reading of send) this.send(reading, way);
  }
  private send(reading: Sending, way: Way) {
    const { text, id, again } = reading;
    if (!again) {
      if (this.lastSent && !this.lastSent.typedSince && this.lastSent.text === text)
        expect(id).toBe(this.lastSent.id);
      this.lastSent = { text, id, typedSince: false };
    }
    this.everSent.push(reading);
    if (way.startsWith("arrives")) this.receive(reading);
    if (way === "kept here" || way === "arrives, answer lost") this.outbox.push(reading);
    this.answers.push({ id, taken: way !== "lost" && way !== "arrives, lost here" });
  }
  private receive(reading: Sending) {
    if (reading.again || this.server.some(({ id }) => id === reading.id)) return;
    if (this.rivals.some(({ id }) => id === reading.id)) return;
    if (this.server.some((r) => !r.takenBack)) this.rivals.push(reading);
    else this.server.push({ ...reading, here: true, takenBack: false });
  }
  type(text: string) {
    const before = this.state;
    // A field that holds a reading cannot be typed in.
    if (before.is === "saved" || before.is === "waiting") return;
    this.act({ on: "type", text }, "arrives");
    if (before.is === "sending") expect(plain(this.state)).toEqual(before);
    else {
      expect(this.state.text).toBe(text);
      for (const sent of this.everSent) if (sent.text === before.text) this.typedOver.add(sent.id);
      if (this.lastSent && this.lastSent.text !== text)
        this.lastSent = { ...this.lastSent, typedSince: true };
    }
  }
  enter(ask: boolean, way: Way) {
    const { is, text } = this.state;
    if (is === "saved" || is === "waiting" || text === "") return;
    const compare = (a: string, b: string) => (a === b ? null : "They differ");
    this.act(
      {
        ...{ on: "confirm", text, problem: null, ask: ask ? slip : null },
        ...(this.twice && text !== this.facts.offered ? { compare } : {}),
        newId: () => `here ${++this.seq}`,
      },
      way,
    );
  }
  settle(second: boolean, way: Way) {
    const { state } = this;
    const choice = state.is === "asked" ? state.note.choices?.at(second ? -1 : 0) : undefined;
    if (choice === undefined) return;
    for (const sent of this.everSent) if (sent.text !== choice) this.typedOver.add(sent.id);
    this.act({ on: "settle", text: choice, newId: () => `here ${++this.seq}` }, way);
  }
  answer(sentBack = false) {
    const next = this.answers.shift();
    if (!next) return;
    // What comes after a reading that was taken is another reading, whatever its text.
    if (next.taken) this.lastSent = null;
    const lost = sentBack
      ? ({ status: "released" } as const)
      : ({ status: "refused", message: "no answer" } as const);
    const answer = next.taken ? ({ status: "taken" } as const) : lost;
    this.act({ on: "answer", id: next.id, answer }, "arrives");
  }
  flush() {
    for (const reading of this.outbox) this.receive(reading);
    this.outbox = [];
  }
  elsewhere() {
    if (this.server.some((r) => !r.takenBack)) return;
    this.server.push({ id: `there ${++this.seq}`, text: "24.99", here: false, takenBack: false });
  }
  undo() {
    const last = this.server.findLast((r) => !r.takenBack);
    if (last) last.takenBack = true;
  }
  reload() {
    this.answers = [];
    if (this.draft) this.draft = reopened(this.draft);
  }
}

describe("whatever happens around it", () => {
  const event = fc.oneof(
    {
      weight: 4,
      arbitrary: fc
        .constantFrom("1", "12", "12.3", "12.30", "12.40", "")
        .map((text) => ({ do: "type", text }) as const),
    },
    {
      weight: 5,
      arbitrary: fc.record({
        do: fc.constant("enter" as const),
        ask: fc.boolean(),
        way: fc.constantFrom(...ways),
      }),
    },
    fc.record({ do: fc.constant("settle" as const), second: fc.boolean(), way: fc.constantFrom(...ways) }),
    { weight: 3, arbitrary: fc.record({ do: fc.constant("answer" as const), sentBack: fc.boolean() }) },
    fc
      .constantFrom(...(["flush", "elsewhere", "undo", "reload"] as const))
      .map((what) => ({ do: what }) as const),
  );

  test("nothing typed is lost and nothing is doubled, however keys, answers, outages and other devices come together", () => {
    let sentInAll = 0;
    fc.assert(
      fc.property(fc.array(event, { maxLength: 60, size: "max" }), fc.boolean(), (events, twice) => {
        const bench = new Bench(twice);
        for (const happens of events) {
          const before = bench.state;
          switch (happens.do) {
            case "type":
              bench.type(happens.text);
              break;
            case "enter":
              bench.enter(happens.ask, happens.way);
              break;
            case "settle":
              bench.settle(happens.second, happens.way);
              break;
            default:
              if (happens.do === "answer") bench.answer(happens.sentBack);
              else bench[happens.do]();
              // What a person typed is still there, in its field or beside the reading that came from elsewhere.
              if (before.is === "typed" || before.is === "asked" || before.is === "refused") {
                const now = bench.state;
                const shown = "typedMeanwhile" in now ? (now.typedMeanwhile ?? now.text) : now.text;
                expect(shown).toBe(before.text);
              }
          }
        }
        while (JSON.stringify(bench.draft).includes('"onTheWay":true')) bench.answer();
        bench.flush();
        for (const { id, text, again } of bench.everSent) {
          const safe =
            bench.server.some((r) => r.id === id) ||
            bench.rivals.some((r) => r.id === id) ||
            bench.draft?.text === text ||
            bench.draft?.first === text;
          if (!again && !bench.typedOver.has(id)) expect([text, safe]).toEqual([text, true]);
        }
        const all = bench.server.map(({ id }) => id);
        expect(new Set(all).size).toBe(all.length);
        expect(bench.rivals.filter(({ id }) => all.includes(id))).toEqual([]);
        sentInAll += bench.everSent.length;
      }),
      { numRuns: 3000 },
    );
    expect(sentInAll).toBeGreaterThan(3000);
  });
});

import { describe, expect, test } from "@jest/globals";
import { renderToString } from "react-dom/server";
import { MemoryRouter } from "react-router";
import { flask, runRecord } from "~/core/testing/build-record";
import { baseByPhthalateThenAcid } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { methods } from "~/catalog/methods";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { evaluateRun } from "~/core/evaluate";
import type { TitrationEvaluation } from "~/core/stages";
import { type TitrationStage, trialFields } from "~/core/method";
import { timerState } from "~/core/timing";
import { plausibleLoadG } from "~/devices/pan-load";
import type { TrailLine } from "~/formats/trail";
import type { UnsentChange } from "../../live/browser-database";
import { ColorRibbon } from "../../ui/color-ribbon";
import { RunProvider } from "../../entry/run-context";
import { british } from "~/words/british";
import { addCatalog } from "../../words/catalogs";
import { TextProvider } from "../../words/text";
import { RulesPreview } from "../house-rules/rules-preview";
import { TrailPage } from "../trail/trail-page";
import { ReagentsAhead } from "../stages/titration/ahead";
import { conditionWords } from "../stages/shared/conditions";
import { timeOfFlask } from "../stages/titration/flask-bar";
import { KeptPanel } from "./kept-panel";
import { MaybeMarks } from "../stages/titration/maybe-marks";
import { AgreementPanel } from "../stages/shared/panels";
import { plain } from "~/core/testing/plain";

addCatalog("en-GB", british);

const text = (html: string) =>
  html
    .replace(/<style[^>]*>.*?<\/style>/gs, "")
    .replace(/<!-- -->/g, "")
    .replace(/<[^>]+>/g, " ")
    .replace(/&quot;/g, '"')
    .replace(/&#x27;/g, "'")
    .replace(/\u00a0|\s+/g, " ");

const record = runRecord([
  flask("2.6106", "2.1000", "0.00", "25.00"),
  flask("2.5901", "2.1000", "0.00", "24.01"),
]);

const kept = (change: Partial<UnsentChange>): UnsentChange => ({
  seq: 1,
  runId: "run",
  at: 0,
  refused: null,
  standing: null,
  request: {
    intent: "observe",
    id: "x",
    stageKey: "standardize",
    trial: { id: record.stages[0]!.trials[1]!.id, kind: "fine" },
    symbol: "V",
    kind: "burette.final",
    text: "24.11",
    supersedes: null,
    reason: null,
  },
  ...change,
});
const send = () => Promise.resolve({ status: "done", update: null } as const);
const panel = (all: readonly UnsentChange[]) =>
  text(
    renderToString(
      <RunProvider run={{ record, send, kept: all, trouble: null, undo: null, redo: null, revision: 1 }}>
        <KeptPanel />
      </RunProvider>,
    ),
  );

describe("what is kept in the browser", () => {
  test("is told with what it is; nothing kept, nothing told", () => {
    expect(panel([])).toBe("");
    expect(panel([kept({})])).toContain("One change is waiting for the server.");
    expect(panel([kept({})])).toContain("Final reading of trial 2, 24.11");
    const many = Array.from({ length: 9 }, (_, seq) => kept({ seq }));
    expect(panel(many)).toMatch(/9 changes are waiting .* and 3 more/);
  });

  test("two readings of one field stand beside each other, and one is asked for", () => {
    const standing = { id: "y", text: "24.01", person: "bench 2", at: "2026-11-26T09:00:00.000Z" };
    const shown = panel([kept({ refused: "This was read as 24.01 meanwhile", standing })]);
    expect(shown).toMatch(/Final reading of trial 2 was read twice\. 24\.01 by bench 2,/);
    expect(shown).toMatch(/24\.11 here\. Which one is it\? It is 24\.01 It is 24\.11/);
  });

  test("one that was not taken says why, and can be sent again or let go", () => {
    const shown = panel([kept({ refused: "This run is finished: reopen it to change it" })]);
    expect(shown).toMatch(
      /24\.11, was not accepted: This run is finished: reopen it .* Send it again Discard it/,
    );
  });
});

test("a simulated pan carries about what the method weighs, the same for the same flask", () => {
  const stage = baseByPhthalateThenAcid.stages[0] as TitrationStage;
  const [boat] = trialFields(stage, defaultHouseRules);
  const load = (kind: "mass.before" | "mass.after" | "mass.tared", of: string) =>
    plausibleLoadG(stage, { ...boat!, kind }, of);
  for (const id of ["a", "b", "c"]) {
    const weighed = load("mass.before", id) - load("mass.after", id);
    // 0.4 to 0.8 g of phthalate, by difference.
    expect(weighed).toBeGreaterThan(0.4);
    expect(weighed).toBeLessThan(0.8);
    expect(load("mass.tared", id)).toBeCloseTo(weighed, 9);
  }
  expect(load("mass.before", "a")).toBe(load("mass.before", "a"));
  expect(load("mass.before", "a")).not.toBe(load("mass.before", "b"));
});

test("a flask says how it stands in time, before and after its turn", () => {
  const planned = { plannedAt: "2026-11-26T09:10:00Z", startedAt: null };
  const running = { plannedAt: null, startedAt: "2026-11-26T09:00:00Z" };
  const at = (timer: typeof planned | typeof running, time: string) =>
    timeOfFlask(
      timerState({ seconds: 900, counts: "for", endedAt: null, ...timer }, Date.parse(`2026-11-26T${time}Z`)),
    );
  expect(plain(at(planned, "09:08:50"))).toBe("in 1:10");
  expect(plain(at(planned, "09:13:12"))).toBe("start it");
  expect(plain(at(running, "09:09:10"))).toBe("5:50");
  expect(plain(at(running, "09:15:12"))).toBe("over by 0:12");
});

test("marks that may be the end tell why they were none, and which one stands", () => {
  const marks = [
    { id: "a", text: "24.90", reason: null, at: "", person: "" },
    { id: "b", text: "25.00", reason: "faded after 12 s", at: "", person: "" },
  ];
  const shown = text(renderToString(<MaybeMarks marks={marks} end="25.00" onChoose={() => undefined} />));
  expect(shown).toMatch(/24\.90 possible That was the end point 25\.00 faded after 12 s ✓ the end point/);
});

test("reagents: what now, and what only at the last moment", () => {
  const brine = methods.find((m) => m.id === "sulfur-dioxide")!;
  const stage = brine.stages.find((s): s is TitrationStage => s.kind === "titration")!;
  const shown = text(renderToString(<ReagentsAhead reagents={stage.reagents ?? []} />));
  expect(shown).toMatch(/Add now sodium hydroxide.*At the last moment starch.*sulfuric acid, 25 %, 15 mL/);
  expect(plain((stage.conditions ?? []).map(conditionWords))).toEqual([
    "exactly 15 min: let it stand, stoppered: frees the bound sulfite",
    "within 1 min: titrate at once after the acid",
  ]);
});

test("the ribbon marks the step that one should see now", () => {
  const { ribbon } = baseByPhthalateThenAcid.stages[0] as TitrationStage;
  const html = renderToString(<ColorRibbon steps={ribbon} now={1} />);
  expect(html.match(/aria-current="step"/g)).toHaveLength(1);
  expect(text(html)).toContain(`▸ now ${ribbon[1]?.looks}`);
});

test("house rules show their effect on open runs, or that there is none", () => {
  const strict = {
    ...defaultHouseRules,
    agreement: { rule: "n-within", replicates: 2, withinMl: "0.10" } as const,
  };
  const shown = (rules: typeof defaultHouseRules | null, runs = [record]) =>
    text(
      renderToString(
        <RulesPreview runs={runs} chosen={runs[0] ?? null} onChoose={() => undefined} rules={rules} />,
      ),
    );
  expect(shown(strict)).toMatch(/Standardize the base .*Go on: Titrate the acid/);
  expect(shown(defaultHouseRules)).toContain("Nothing in Rinse acid would change.");
  expect(shown(null)).toContain("Fix the marked fields first.");
  expect(shown(strict, [])).toContain("With a run in progress");
});

const line = (change: Partial<TrailLine>): TrailLine => ({
  ...{
    id: "1",
    at: "2026-11-26T09:00:00.000Z",
    received: "2026-11-26T09:00:00.000Z",
    person: "bench 3",
    what: "final reading",
    where: "trial 1",
  },
  ...{ from: null, to: "25.00 mL", why: null, undone: null },
  ...change,
});
const trail = (lines: readonly TrailLine[]) =>
  text(
    renderToString(
      <MemoryRouter>
        <TrailPage id="r" title="Rinse acid" sample="R-1" bench="bench 3" lines={lines} />
      </MemoryRouter>,
    ),
  );

test("the trail shows each line with what it was undone by; an empty one says what will stand there", () => {
  const undone = line({
    id: "2",
    what: "trial 1 struck out",
    why: "overshot",
    undone: { at: null, person: "Imre" },
  });
  expect(trail([undone, line({})])).toMatch(/trial 1 struck out undone by Imre .* overshot .* final reading/);
  expect(trail([])).toContain("The first reading will appear here.");
});

describe("the words of the lab", () => {
  const british = { titer: "titre", volume: "cm³" } as const;

  test("are said in whatever the program says; what people typed stays as they typed it", () => {
    const first = record.stages[0]!;
    const named = {
      ...record,
      stages: [
        {
          ...first,
          trials: first.trials.map((t, i) => (i === 0 ? { ...t, label: "Titer of tank B/L 4" } : t)),
        },
        ...record.stages.slice(1),
      ],
    };
    const stage = evaluateRun(named).stages[0] as TitrationEvaluation;
    const html = (words: { titer: "titer" | "titre"; volume: "mL" | "cm³" }) =>
      renderToString(
        <TextProvider words={words}>
          <AgreementPanel stage={stage} />
        </TextProvider>,
      );
    const plain = html({ titer: "titer", volume: "mL" });
    expect(text(plain)).toMatch(/titer, mL, per 0\.50 g .* House rule: three within 0\.10 mL/);
    const shown = html(british);
    expect(text(shown)).toMatch(/titre, cm³, per 0\.50 g .* House rule: three within 0\.10 cm³/);
    // Those who listen hear the same.
    expect(shown).toContain('aria-label="titre, cm³, per 0.50 g.');
    expect(shown).toContain("Titer of tank B/L 4");
    expect(shown.replaceAll("Titer of tank B/L 4", "")).not.toMatch(/\bmL\b|\btiter\b/i);
  });
});

import { describe, expect, test } from "@jest/globals";
import { renderToStaticMarkup } from "react-dom/server";
import { createMemoryRouter, RouterProvider } from "react-router";
import { methods } from "~/catalog/methods";
import { type Typed, typedRun, type TypedStage } from "~/core/testing/typed-run";
import type { CalibrationEvaluation, RateEvaluation, UnknownEvaluation } from "~/core/stages";
import { evaluateRun } from "~/core/evaluate";
import type { RunRecord } from "~/core/run";
import { RunProvider } from "../../../entry/run-context";
import type { LiveRun } from "../../../entry/use-run";
import { CalibrationStageView } from "../calibration/calibration-stage";
import { lineOption } from "./line-option";
import { courseOption, transformedOption } from "../rate/rate-option";
import { RateStageView } from "../rate/rate-stage";
import { localized, plainWords } from "../../../words/text";
import { spectrumOption } from "./spectrum-option";
import { tintOf } from "./tint";
import { UnknownStageView } from "../unknown/unknown-stage";

const say = localized(plainWords);

const method = (id: string) => methods.find((m) => m.id === id)!;

const entities: Readonly<Record<string, string>> = {
  "&#x27;": "'",
  "&quot;": '"',
  "&amp;": "&",
  "&lt;": "<",
  "&gt;": ">",
};

/** What one reads of a screen, without its marks. */
function wordsOf(record: RunRecord, screen: React.ReactElement): string {
  const element = <RunProvider run={live(record)}>{screen}</RunProvider>;
  const router = createMemoryRouter([{ path: "/", element }]);
  return renderToStaticMarkup(<RouterProvider router={router} />)
    .replace(/<style[^>]*>.*?<\/style>/gs, "")
    .replace(/<[^>]+>/g, " ")
    .replace(/&[#\w]+;/g, (e) => entities[e] ?? e)
    .replace(/\s+/g, " ");
}

const live = (record: RunRecord): LiveRun => ({
  record,
  undo: null,
  redo: null,
  revision: 0,
  kept: [],
  trouble: null,
  send: () => Promise.resolve({ status: "done", update: null }),
});

const standards = (rows: Readonly<Record<string, string>>): Typed[] =>
  Object.entries(rows).map(([ml, shown]) => ({ "V_s:volume.taken": ml, "A:absorbance": shown }));

const all = {
  "0.00": "0.002",
  "2.00": "0.141",
  "4.00": "0.282",
  "6.00": "0.418",
  "8.00": "0.561",
  "10.00": "0.699",
};

function assay(stages: Readonly<Record<string, TypedStage>>) {
  const record = typedRun(method("phosphate-as-molybdenum-blue"), {
    wavelength: { once: { "λ:given": "880" } },
    standards: {},
    unknown: {},
    ...stages,
  });
  const evaluation = evaluateRun(record);
  const line = evaluation.stages.find((s) => s.kind === "calibration") as CalibrationEvaluation;
  const unknown = evaluation.stages.find((s) => s.kind === "unknown") as UnknownEvaluation;
  return { record, evaluation, line, unknown };
}

const standardsScreen = (
  stages: Readonly<Record<string, TypedStage>>,
  status: RunRecord["status"] = "open",
) => {
  const { record, evaluation, line } = assay(stages);
  return wordsOf({ ...record, status }, <CalibrationStageView stage={line} evaluation={evaluation} />);
};

describe("the screen of the standards", () => {
  test("begins with the blank, lists the flasks to come, and promises the line", () => {
    const words = standardsScreen({});
    expect(words).toContain("Zero the instrument on the blank, and read it.");
    for (const taken of ["0.00 mL", "2.00 mL", "10.00 mL"]) expect(words).toContain(taken);
    expect(words).toContain("The line appears with the first standards.");
    expect(words).not.toContain("Go on:");
  });

  test("asks for the next flask, and says what a line still needs", () => {
    const words = standardsScreen({
      standards: {
        once: { "A_0:absorbance": "0.001" },
        trials: standards({ "0.00": "0.002", "2.00": "0.141" }),
      },
    });
    expect(words).toContain("Flask with 4.00 mL");
    expect(words).toContain("Next: the flask with 4.00 mL. Rinse the cuvette with it, wipe it, read it.");
    expect(words).toContain("A straight line needs at least 3 different standards: there are 2.");
  });

  test("shows the line in numbers, the limits by name, and leaves R² without a say", () => {
    const words = standardsScreen({
      standards: { once: { "A_0:absorbance": "0.001 0.002 0.000" }, trials: standards(all) },
    });
    expect(words).toMatch(/Slope 0\.69\d+ per mg\/L, standard error 0\.00\d+/);
    expect(words).toMatch(/Detection and quantitation limits \(from the line\)/);
    expect(words).toMatch(/Detection and quantitation limits \(from the blanks\)/);
    expect(words).toContain("R² (no proof of linearity)");
    expect(words).toContain("Go on: Read the unknown");
  });

  test("rings a reading off the line, offers what the data would rather have, and strikes nothing by itself", () => {
    const bent = Object.fromEntries(
      [0, 2, 4, 6, 8, 10].map((v) => {
        const a = 0.12 * v - 0.005 * v * v;
        return [v.toFixed(2), `${(a - 0.001).toFixed(3)} ${(a + 0.001).toFixed(3)}`];
      }),
    );
    const words = standardsScreen({ standards: { trials: standards(bent) } });
    expect(words).toMatch(/The line flattens toward the top/);
    expect(words).toContain("Fit a quadratic");
    const off = standardsScreen({
      standards: { trials: standards({ ...all, "6.00": "0.418 0.419 0.520" }) },
    });
    expect(off).toContain("Circled: farther from the line than chance explains");
    expect(off).toContain("0.520");
  });

  test("of a finished run has nothing to type into and nothing to change", () => {
    const words = standardsScreen({ standards: { trials: standards(all) } }, "finished");
    for (const gone of ["Read by", "Another flask", "A class’s readings", "strike"])
      expect(words).not.toContain(gone);
    expect(words).toContain("0.418");
  });
});

describe("the screen of the unknown", () => {
  const screen = (stages: Readonly<Record<string, TypedStage>>) => {
    const { record, evaluation, unknown } = assay(stages);
    return wordsOf(record, <UnknownStageView stage={unknown} evaluation={evaluation} />);
  };

  test("shows what was read off, the result with its ± and causes, and the verdict against the limit", () => {
    const words = screen({
      standards: { trials: standards(all) },
      unknown: {
        once: { "c_lim:given": "1.20" },
        trials: [{ "V_u:volume.taken": "25.00", "A:absorbance": "0.312 0.314" }],
      },
    });
    expect(words).toMatch(/Flask 1 25\.00 mL/);
    expect(words).toMatch(/→ 0\.44\d+ mg\/L/);
    expect(words).toMatch(/Phosphorus in the sample 0\.8\d+ ± 0\.0\d+ mg\/L/);
    expect(words).toMatch(/from one flask, ± is k = 2\. .*Calibration line/);
    expect(words).toContain("clearly below the limit");
    expect(words).toContain("Check of the ±");
  });

  test("says that there is no line yet, and keeps what was read", () => {
    const words = screen({ unknown: { trials: [{ "V_u:volume.taken": "25.00", "A:absorbance": "0.312" }] } });
    expect(words).toContain("Read the standards has no line yet.");
    expect(words).toContain("0.312");
    expect(words).not.toContain("Check of the ±");
  });
});

describe("the chart of a line", () => {
  interface Series {
    readonly type: string;
    readonly name?: string;
    readonly data: readonly unknown[];
    readonly xAxisIndex?: number;
  }
  const seriesOf = (option: object) => (option as { series: Series[] }).series;
  const { line, unknown } = assay({
    standards: { trials: standards({ ...all, "6.00": "0.418 0.419 0.520" }) },
    unknown: { trials: [{ "V_u:volume.taken": "25.00", "A:absorbance": "0.312" }] },
  });
  const series = seriesOf(lineOption(line, unknown, say));
  const named = (name: string) => series.filter((s) => s.name === name);

  test("holds every reading once above and its residual once beneath", () => {
    const [points, residuals] = named("bench 2");
    expect([points?.data.length, residuals?.data.length]).toEqual([8, 8]);
    expect(residuals?.xAxisIndex).toBe(1);
  });

  test("draws the line between two bands, the wider one that of a further reading", () => {
    const width = (name: string) => (named(name)[1]?.data[30] as [number, number])[1];
    expect(width("95 % prediction interval")).toBeGreaterThan(width("95 % confidence band"));
    const drawn = named("line")[0]?.data as [number, number][];
    const fit = line.line!.fit;
    for (const [x, y] of [drawn[0]!, drawn[30]!, drawn.at(-1)!]) expect(y).toBeCloseTo(fit.valueAt(x), 12);
  });

  test("reads the unknown off with drop lines from both axes, and rings what is off", () => {
    const [drop] = named("unknown");
    const { x, y } = unknown.trials[0]!.off!;
    expect(drop?.data).toEqual([
      [0, y],
      [x, y],
      [x, 0],
    ]);
    expect(named("off the line")[0]?.data).toHaveLength(1);
  });

  test("crosses what was struck out or left out, and draws no line through nothing", () => {
    const without = assay({ standards: { trials: standards(all), choices: { zero: "out" } } });
    expect(seriesOf(lineOption(without.line, null, say)).find((s) => s.name === "left out")?.data).toEqual([
      [0, 0.002],
    ]);
    const two = assay({ standards: { trials: standards({ "2.00": "0.141", "4.00": "0.282" }) } });
    expect(seriesOf(lineOption(two.line, null, say)).some((s) => s.name === "line")).toBe(false);
  });

  test("tints weak standards pale and the strongest in full", () => {
    expect(tintOf("#24408f", 1)).toBe("rgb(36, 64, 143)");
    const channel = (part: number) => Number(/rgb\((\d+)/.exec(tintOf("#24408f", part))?.[1]);
    expect([channel(0) > channel(0.5), channel(0.5) > channel(1)]).toEqual([true, true]);
  });
});

describe("the screen of a rate", () => {
  const seconds = Array.from({ length: 150 }, (_, t) => t);
  const course = (k: number) => ({
    x: seconds,
    absorbance: seconds.map((t) => Number((0.9 * Math.exp(-k * t) + 0.001 * Math.sin(2.5 * t)).toFixed(3))),
  });
  const rate = (stage: TypedStage) => {
    const record = typedRun(method("fading-of-a-dye"), {
      wavelength: { once: { "λ:given": "590" } },
      fading: { once: { "T:temperature": "21.0" }, ...stage },
    });
    const evaluation = evaluateRun(record);
    const found = evaluation.stages.find((s) => s.kind === "rate") as RateEvaluation;
    return { record, evaluation, stage: found };
  };
  const screen = (stage: TypedStage) => wordsOf(rate(stage).record, <RateStageView {...rate(stage)} />);

  test("begins with a new course: what to type, and how it is taken", () => {
    const words = screen({});
    expect(words).toContain("New kinetic run, at 590 nm");
    expect(words).toContain("Hydroxide in the cuvette, mol/L");
    expect(words).toContain("Mix, put the cuvette in, and take the absorbance each second.");
  });

  test("sets three orders side by side, the taken one marked, each with its r, evidence, k and half-life", () => {
    const words = screen({ trials: [{ "c_B:given": "0.100" }], courses: [course(0.012)] });
    expect(words).toContain("Zero order");
    expect(words).toContain("First order, taken");
    expect(words).toContain("Use second order");
    expect(words.match(/half-life/g)).toHaveLength(3);
    expect(words).toMatch(/relative likelihood > 99\.9 %/);
    expect(words).toContain("A second run with a different excess gives the order in the excess reagent");
  });

  test("finds the order in the excess reagent from two kinetic runs", () => {
    const words = screen({
      trials: [{ "c_B:given": "0.100" }, { "c_B:given": "0.200" }],
      courses: [course(0.012), course(0.024)],
    });
    expect(words).toContain("so 1; two runs cannot tell how surely.");
    expect(words).toMatch(/mean of 2 kinetic runs/);
  });

  test("draws what lies outside the window apart, and the straight plot from inside it alone", () => {
    const { stage } = rate({
      trials: [{ "c_B:given": "0.100", "A:window.from": "20", "A:window.to": "99" }],
      courses: [course(0.012)],
    });
    const [drawn] = stage.trials;
    const counts = (option: object) =>
      (option as { series: { data: unknown[] }[] }).series.map((s) => s.data.length);
    expect(counts(courseOption(drawn!, 1, say)).slice(0, 2)).toEqual([80, 70]);
    expect(counts(transformedOption(drawn!, 1, say))).toEqual([80, 2, 80]);
  });
});

test("A spectrum is drawn with the wavelength chosen and the part of the visible band that it covers", () => {
  const option = spectrumOption(
    [{ name: "scan", x: [450, 500, 550], absorbance: [0.1, 0.3, 0.2] }],
    500,
    say,
  ) as {
    series: { name?: string; markLine?: { data: unknown }; markArea?: { data: { xAxis: number }[][] } }[];
  };
  expect(option.series[0]?.markLine?.data).toEqual([{ xAxis: 500 }]);
  const band = option.series.at(-1)?.markArea?.data ?? [];
  expect([band[0]?.[0]?.xAxis, band.at(-1)?.[1]?.xAxis]).toEqual([450, 550]);
});

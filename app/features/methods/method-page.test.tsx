import { plain } from "~/core/testing/plain";
import { describe, expect, test } from "@jest/globals";
import { renderToStaticMarkup } from "react-dom/server";
import { createMemoryRouter, RouterProvider } from "react-router";
import { offered as methods } from "~/catalog/methods";
import { stepsOf } from "~/core/inputs";
import { inEnglish } from "~/core/text";
import { generalCautions } from "~/catalog/parts/safety";
import { prettyEquation } from "~/core/chemistry";
import type { Method } from "~/core/method";
import { MethodPage, type OtherWay } from "./method-page";
import { type MethodLine, MethodsPage } from "./methods-page";

function markup(element: React.ReactElement): string {
  const router = createMemoryRouter([{ path: "/", element }]);
  return renderToStaticMarkup(<RouterProvider router={router} />);
}

const entities: Readonly<Record<string, string>> = {
  "&#x27;": "'",
  "&quot;": '"',
  "&amp;": "&",
  "&lt;": "<",
  "&gt;": ">",
};
/** What one reads, without the marks: MathML and drawings left out. */
const words = (html: string): string =>
  html
    .replace(/<span class="katex">.*?<\/span><\/span><\/span>/gs, " ")
    .replace(/<[^>]+>/g, "")
    .replace(/&[#\w]+;/g, (e) => entities[e] ?? e)
    .replace(/\s+/g, " ");

const page = (
  method: Method,
  otherWays: readonly OtherWay[] = [],
  versions: readonly number[] = [method.version],
) =>
  markup(
    <MethodPage
      dropMl={0.05}
      method={method}
      begins={null}
      own={false}
      otherWays={otherWays}
      versions={versions}
      runs={0}
      retired={false}
    />,
  );

describe.each(methods.map((m) => [m.id, m] as const))("the page of %s", (_id, method) => {
  const html = page(method);
  const text = words(html);

  test("keeps back nothing that can hurt, nor what to wear, nor where it goes", () => {
    for (const line of [
      ...method.hazards,
      ...method.protection,
      ...method.waste,
      ...method.glassware,
      ...generalCautions.map(plain),
    ])
      expect(text).toContain(line);
  });

  test("shows each stage whole: colors, reagents and when, steps, cautions", () => {
    for (const stage of method.stages) {
      const shown = [
        stage.title,
        ...stepsOf(stage.steps, stage.inputs).map(inEnglish),
        ...stage.cautions,
        ...(stage.reagents ?? []).flatMap(({ name, amount, when }) => [name, amount, when]),
        ...(stage.conditions ?? []).map(({ what }) => what),
        ...(stage.kind === "titration"
          ? [
              stage.indicator,
              stage.persistence,
              ...stage.ribbon.flatMap(({ looks, do: act }) => [looks, act]),
            ]
          : []),
      ];
      for (const line of shown) expect(text).toContain(line);
    }
  });

  test("sets its equations in type, with words for those who listen", () => {
    for (const { equation } of method.equations)
      expect(html).toContain(`aria-label="${prettyEquation(equation)}"`);
    expect(html).not.toContain("katex-error");
  });
});

describe("a method of which there are several", () => {
  const [method] = methods;
  if (!method) throw new Error("no method");

  test("names the other ways, and what is different", () => {
    const text = words(page(method, [{ id: "other", title: "The other school", differs: "hotter" }]));
    expect(text).toContain("The other school: hotter.");
  });

  test("in an old version says so and leads to the newest", () => {
    const html = page(method, [], [method.version, method.version + 3]);
    expect(words(html)).toContain(`The newest is version ${method.version + 3}`);
  });
});

describe("the library's list", () => {
  const lines = methods.map((m): MethodLine => ({
    id: m.id,
    title: m.title,
    purpose: m.purpose,
    family: m.family,
    equation: m.equations.at(-1)?.equation ?? "",
    variantOf: m.variant?.of ?? null,
    differs: m.variant?.differs ?? null,
    own: false,
    retired: false,
    words: m.title.toLowerCase(),
  }));

  test("shows every method once, variants below what they vary", () => {
    const html = markup(<MethodsPage methods={lines} />);
    for (const { id } of lines) expect(html.split(`href="/methods/${id}"`)).toHaveLength(2);
    for (const { id, variantOf } of lines) {
      if (variantOf === null) continue;
      const [head, variant] = [variantOf, id].map((x) => html.indexOf(`href="/methods/${x}"`));
      expect([id, (head ?? NaN) < (variant ?? NaN)]).toEqual([id, true]);
    }
    expect(words(html)).toContain(`${lines.length} methods`);
  });

  test("a variant whose head is missing stands by itself, not lost", () => {
    const orphan = lines.filter((l) => l.variantOf !== null).slice(0, 1);
    expect(markup(<MethodsPage methods={orphan} />)).toContain(`href="/methods/${orphan[0]?.id}"`);
  });
});

import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import type { Page } from "@playwright/test";
import { shortLived } from "./lab-template";
import { expect, long, saveRules, test } from "./app";

/** What a page says: its text, the names of what has no text, and where its links lead. */
interface Said {
  readonly lines: readonly string[];
  readonly links: readonly string[];
}

/** What a page says: the one that is open, or the one that the server sent as `html`, which is read without running it. */
const saidOn = (page: Page, html: string | null): Promise<Said> =>
  page.evaluate((html) => {
    const from = html === null ? document : new DOMParser().parseFromString(html, "text/html");
    for (const one of from.querySelectorAll(
      html === null ? "none" : "script, style, template, noscript, textarea",
    ))
      one.remove();
    // What is not laid out has no lines: each part that is not within a line begins one.
    const within = "a, abbr, b, code, em, i, small, span, strong, sub, sup, svg, svg *, .katex *";
    if (html !== null)
      for (const part of from.body.querySelectorAll(`:not(:is(${within}))`)) {
        part.prepend("\n");
        part.append("\n");
      }
    const text = html === null ? from.body.innerText : (from.body.textContent ?? "");
    const attributes = ["aria-label", "aria-description", "title", "placeholder", "alt"];
    const named = [...from.querySelectorAll(attributes.map((name) => `[${name}]`).join())].flatMap((at) =>
      attributes.map((name) => at.getAttribute(name) ?? ""),
    );
    return {
      lines: [from.title, ...text.split("\n"), ...named].filter((line) => line.trim() !== ""),
      links: [...from.querySelectorAll<HTMLAnchorElement>("a[href^='/']")]
        .filter((link) => !link.hasAttribute("download"))
        .map((link) => link.getAttribute("href") ?? ""),
    };
  }, html);

/** The kind of a page: /runs/:id, /methods/:id/plan. */
const kindOf = (link: string) =>
  (link.split(/[?#]/)[0] ?? "").replace(
    /^\/(runs|methods|shelf)\/(?!new\b|labels\b|lineage\b)[^/]+/,
    "/$1/:id",
  );

/** Words of the other spelling (both write "standardize", "colorimetric" and an instrument as "meter"), and units that this lab writes in another way. */
const otherSpelling =
  /titer|\bcolor(?!imet)|\bgray|\baluminum|\bfiber|(?<!pH[ -]|the |simulated |conductivity |mV )\bmeter\b|milliliter|\bliter|vapor\b|odor\b|neighbor/i;
const otherUnits = /(?<![a-z])[mµ]L\b|\b(mol|mg|g|µg|mmol|min|cm|S|Ω)\/L\b|\/mL\b/;
/** Names that somebody typed for a bottle, what a code on a label holds, and the two lines that explain the choice. */
const typed =
  /(EDTA|hydrochloric acid|phthalate standard|sodium hydroxide|sodium thiosulfate), [\d.]+ mol\/L|QR code: .*|Mean titer and color, or mean titre and colour\.|25\.00 mL and mol\/L, or 25\.00 cm³ and mol\/dm³\./g;
const slip = /\[object|undefined|\bNaN\b/;

test(
  "a lab that writes British English in cm³ reads nothing else on any kind of page, and no page shows a slip of the program",
  long,
  async ({ page }) => {
    test.slow();
    const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-words-"));
    const server = shortLived(folder, 4177);
    await server.start();
    try {
      await page.goto(server.url);
      await page.getByRole("button", { name: "Load the demo data" }).click();
      await expect(page.getByRole("article", { name: "Phosphate of the pond" })).toBeVisible({
        timeout: 60_000,
      });
      await page.goto(`${server.url}/house-rules`);
      for (const [rule, choice] of [
        ["Spelling", /^British/],
        ["Volume unit", /cm³/],
      ] as const) {
        await page.getByRole("combobox", { name: rule }).click();
        await page.getByRole("option", { name: choice }).click();
      }
      await saveRules(page);
      await expect(page.getByText("Saved.")).toBeVisible();

      const waiting = ["/", "/methods/water-hardness/plan", "/methods/fading-of-a-dye/plan"];
      const seen = new Map<string, number>();
      const opened = new Set<string>();
      const read = new Set<string>();
      const wrong: string[] = [];
      // An empty page has no policy against the styles in what it reads.
      const reader = await page.context().newPage();
      for (let link = waiting.shift(); link !== undefined; link = waiting.shift()) {
        const response = await fetch(server.url + link);
        if (response.headers.get("content-type")?.startsWith("text/html") !== true) continue;
        read.add(link);
        const sent = await saidOn(reader, await response.text());
        const pages = [sent];
        // One of each kind is opened too: it may say more once it answers.
        if (!opened.has(kindOf(link))) {
          opened.add(kindOf(link));
          await page.goto(server.url + link);
          await expect(page.getByTestId("stage-coming")).toHaveCount(0);
          pages.push(await saidOn(page, null));
        }
        for (const line of pages.flatMap(({ lines }) => lines)) {
          const own = line.replace(typed, "");
          if ([otherSpelling, otherUnits, slip].some((pattern) => pattern.test(own)))
            wrong.push(`${link}: ${own}`);
        }
        // Not the trail of the lab: it shows what was written at the time. Not the same dialog of the bench for each run before.
        for (const next of pages.flatMap(({ links }) => links)) {
          const kind = kindOf(next);
          const [path] = next.split("#");
          if (
            path === undefined ||
            /^\/(\?|trail)/.test(path) ||
            seen.has(path) ||
            /export|\.(pdf|csv|json|zip)$/.test(path)
          )
            continue;
          const many = (seen.get(kind) ?? 0) + 1;
          if (many > (kind === "/runs/:id" ? 20 : 6)) continue;
          seen.set(kind, many).set(path, 1);
          waiting.push(path);
        }
      }
      expect(read.size).toBeGreaterThan(60);
      expect([...seen.keys()].filter((key) => key.includes(":id")).length).toBeGreaterThan(5);
      expect(wrong).toEqual([]);
    } finally {
      await server.stop();
      rmSync(folder, { recursive: true, force: true });
    }
  },
);

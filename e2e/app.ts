import { rmSync } from "node:fs";
import AxeBuilder from "@axe-core/playwright";
import { type AppServer, beginRun } from "../scripts/app-server";
import { newLabFolder, shortLived } from "./lab-template";
import { test as base, expect, type Locator, type Page, type Request } from "@playwright/test";

/** What a page has asked for or sent and has no answer to yet; the stream of changes never ends. */
const waiting = new WeakMap<Page, Set<Request>>();

/** Until a page of the application answers to what is pressed; other pages have nothing to wait for. */
const answers = (page: Page) =>
  expect(page.locator("html[data-answers], html:not(:has(script[type=module]))")).toHaveCount(1, {
    timeout: 20_000,
  });

/**
 * Keeps an eye on what a page asks for, and lets it answer before anything is pressed after it was opened; pages of the
 * tests' own contexts are handed in.
 */
export function follow(page: Page): Page {
  for (const opens of ["goto", "reload"] as const) {
    const open = page[opens].bind(page) as (...args: unknown[]) => ReturnType<Page["goto"]>;
    page[opens] = async (...args: unknown[]) => {
      const response = await open(...args);
      await answers(page);
      return response;
    };
  }
  const under = new Set<Request>();
  waiting.set(page, under);
  page.on("request", (request) => request.resourceType() === "fetch" && under.add(request));
  page.on("requestfinished", (request) => under.delete(request));
  page.on("requestfailed", (request) => under.delete(request));
  return page;
}

/** Once nothing on a page has moved for a dozen frames. */
const still = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<void>((done) => {
        let [seen, frames] = ["", 0];
        const look = () => {
          const { scrollTop, scrollHeight } = document.documentElement;
          const field = document.activeElement?.getBoundingClientRect().top;
          const now = [scrollTop, scrollHeight, field].join();
          frames = now === seen ? frames + 1 : 0;
          seen = now;
          if (frames >= 12) done();
          else requestAnimationFrame(look);
        };
        look();
      }),
  );

/** Once what was typed is written and shown: a hand that goes to the mouse takes longer than that. */
export async function atRest(page: Page) {
  const under = waiting.get(page);
  if (!under) return;
  do {
    await still(page);
    await expect.poll(() => under.size).toBe(0);
    await still(page);
  } while (under.size > 0);
}

/** Once no color is on its way to another: what is looked at for contrast in between has neither. */
export const colorsSettled = (page: Page) =>
  page.waitForFunction(() =>
    document.getAnimations().every((a) => !(a instanceof CSSTransition) || a.playState !== "running"),
  );

/** One server at a time, on a database of its own for each file of tests: what one puts on the shelf is not in another's runs. */
class Servers {
  private current: { file: string; folder: string; server: AppServer } | null = null;

  constructor(private readonly port: number) {}

  async of(file: string): Promise<AppServer> {
    if (this.current?.file === file) return this.current.server;
    await this.end();
    const folder = newLabFolder();
    const server = shortLived(folder, this.port);
    this.current = { file, folder, server };
    await server.start();
    return server;
  }

  async end(): Promise<void> {
    const ended = this.current;
    this.current = null;
    await ended?.server.stop();
    if (ended) rmSync(ended.folder, { recursive: true, force: true });
  }
}

export const test = base.extend<{ app: AppServer }, { servers: Servers }>({
  servers: [
    async ({}, use, { parallelIndex }) => {
      const servers = new Servers(4170 + parallelIndex);
      await use(servers);
      await servers.end();
    },
    { scope: "worker", timeout: 240_000 },
  ],
  app: [
    async ({ servers }, use, { file }) => use(await servers.of(file)),
    // A start is no part of the time of a test.
    { timeout: 240_000 },
  ],
  page: async ({ page }, use, testInfo) => {
    follow(page);
    const violations: string[] = [];
    page.on("console", (message) => {
      if (/Content.Security.Policy/i.test(message.text()))
        violations.push(`${page.url()}: ${message.text()}`);
    });
    await use(page);
    if (testInfo.annotations.some(({ type }) => type === "policy")) return;
    // No page asks for what its policy forbids.
    expect(violations).toEqual([]);
  },
  baseURL: async ({ app }, use) => use(app.url),
});

export { expect };

/** For tests that take long and are seldom broken alone: bin/test leaves them out, bin/test --all does not. */
export const long = { tag: "@long" };

/** In the dialog: the method that the tests work with, found by its name, by keyboard; the cursor goes on to the sample. */
export async function chooseMethod(page: Page, words = "phthalate, then"): Promise<void> {
  const method = page.getByRole("combobox", { name: "Method" });
  await expect(method).toBeFocused();
  await page.keyboard.type(words);
  await expect(page.getByRole("option").first()).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("listbox")).toHaveCount(0);
  await page.keyboard.press("Tab");
  await expect(page.getByRole("textbox", { name: "Sample" })).toBeFocused();
}

/** In the dialog: a stage is done in the run, though a bottle on the shelf could say its result. */
export const doItHere = (page: Page, stage: string) =>
  page.getByRole("dialog").getByRole("combobox", { name: stage }).selectOption("here");

/**
 * Begins a run as the form of the bench does, without the bench, and opens it at one of its stages: for tests of what comes after. `main-job`
 * and others begin theirs on the screen.
 */
export async function openRun(
  page: Page,
  methodId: string,
  title: string,
  {
    stage,
    ...of
  }: { readonly stage?: string | undefined; readonly sample?: string; readonly bench?: string } = {},
): Promise<void> {
  const at = page.url().startsWith("http") ? page.url() : (await page.request.head("/favicon.svg")).url();
  const { origin } = new URL(at);
  const id = await beginRun(origin, methodId, title, { bench: "", ...of });
  await page.goto(`${origin}/runs/${id}${stage === undefined ? "" : `?stage=${stage}`}`);
  await expect(page.getByRole("heading", { level: 1, name: title })).toBeVisible();
  // The screens of a photometer's stages are fetched when they are first shown.
  await expect(page.getByTestId("stage-coming")).toHaveCount(0);
}

/** Opens a new run of the method that the tests work with; the cursor stands in its first field. */
export async function startRun(page: Page, title: string): Promise<void> {
  await openRun(page, "base-by-phthalate-then-acid", title, { sample: "R-9", bench: "bench 4" });
  await expect(page.getByRole("textbox", { name: "Boat with solid, g" })).toBeFocused();
}

/** What is wrong with a page for who reads or works it in another way. No page has a frame, and nobody asks for what is right: that takes twice the time. */
async function faultsOfAccess(page: Page, where: string, serious: boolean): Promise<readonly string[]> {
  await colorsSettled(page);
  const axe = new AxeBuilder({ page }).options({ resultTypes: ["violations"] }).setLegacyMode(true);
  const { violations } = await axe.analyze();
  return violations
    .filter(({ impact }) => !serious || impact === "serious" || impact === "critical")
    .map((v) => `${where}: ${v.id}: ${v.nodes.map((n) => n.target.join(" ")).join(", ")}`);
}

/** No serious fault of access on a page. */
export const noGraveFaults = async (page: Page, where: string) =>
  expect(await faultsOfAccess(page, where, true)).toEqual([]);

/** No fault of access at all on a page. */
export const noFaults = async (page: Page, where: string) =>
  expect(await faultsOfAccess(page, where, false)).toEqual([]);

/** Says who makes a change that belongs to no run, where that is asked, and why. */
export async function sayWhy(page: Page): Promise<void> {
  const who = page.getByRole("textbox", { name: "Who", exact: true });
  if ((await who.count()) > 0) await who.fill("AB");
  await page
    .getByRole("textbox", { name: /^(Why|What changes, and why|What changed, and why)/ })
    .fill("for a test");
}

/** Saves the house rules that are on the screen, for the lab or for one run. */
export async function saveRules(page: Page, button = "Save house rules"): Promise<void> {
  await sayWhy(page);
  await page.getByRole("button", { name: button }).click();
}

/** Says of each volume that the method only presumes that it was that much. */
export async function confirmVolumes(page: Page): Promise<void> {
  // The screens of a photometer's stages are fetched when they are first shown.
  await expect(page.getByTestId("stage-coming")).toHaveCount(0);
  const asked = page.getByTestId("confirm-volumes").getByRole("button", { name: /^It was / });
  for (let left = await asked.count(); left > 0; left = await asked.count()) {
    await asked.first().press("Enter");
    await expect.poll(() => asked.count()).toBeLessThan(left);
  }
}

/** Types readings into the fields in the order in which the cursor goes, each ended by Enter. */
export async function typeReadings(
  page: Page,
  readings: readonly (readonly [field: string, text: string | null])[],
) {
  for (const [label, text] of readings) {
    const field = page.getByRole("textbox", { name: label, exact: true });
    await expect(field).toBeFocused();
    if (text !== null) {
      await page.keyboard.press("ControlOrMeta+a");
      // In one go: key by key it is typed where the keys themselves are what is tested.
      await page.keyboard.insertText(text);
    }
    await page.keyboard.press("Enter");
  }
  await atRest(page);
}

export const weighing = (before: string, after: string) =>
  [
    ["Boat with solid, g", before],
    ["Boat after transfer, g", after],
  ] as const;

export const titration = (initial: string | null, final: string) =>
  [
    ["Initial reading, mL", initial],
    ["Final reading, mL", final],
  ] as const;

export const ledgerRow = (page: Page, name: string): Locator =>
  page
    .getByRole("region", { name: "Ledger" })
    .locator("tbody")
    .filter({ has: page.getByRole("rowheader", { name, exact: true }) });

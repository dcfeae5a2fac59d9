import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { test as base, expect, type Locator, type Page } from "@playwright/test";

/** The built application on a database folder of its own, as a person at a terminal would start and stop it. */
export class AppServer {
  private child: ChildProcess | null = null;

  constructor(
    readonly folder: string,
    readonly port: number,
  ) {}

  get url() {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    const child = spawn(process.execPath, ["scripts/serve.mjs"], {
      env: {
        ...process.env,
        DATA_DIR: this.folder,
        PORT: String(this.port),
        HOST: "127.0.0.1",
        NODE_ENV: "production",
      },
      stdio: ["ignore", "pipe", "inherit"],
    });
    this.child = child;
    await new Promise<void>((resolve, reject) => {
      child.once("exit", (code) => reject(new Error(`The server ended with ${code}`)));
      child.stdout.on("data", (text: Buffer) => {
        if (text.toString().includes("is ready at")) resolve();
      });
    });
  }

  /** Ctrl-C; resolves with the exit code. */
  async stop(signal: NodeJS.Signals = "SIGINT"): Promise<number | null> {
    const child = this.child;
    if (!child) return null;
    this.child = null;
    const ended = new Promise<number | null>((resolve) => child.once("exit", (code) => resolve(code)));
    child.kill(signal);
    return ended;
  }
}

export const test = base.extend<{ app: AppServer }, { server: AppServer }>({
  server: [
    async ({}, use) => {
      const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-e2e-"));
      const server = new AppServer(folder, 4177);
      await server.start();
      await use(server);
      await server.stop();
      rmSync(folder, { recursive: true, force: true });
    },
    { scope: "worker", timeout: 60_000 },
  ],
  app: async ({ server }, use) => use(server),
  baseURL: async ({ server }, use) => use(server.url),
});

export { expect };

/** In the dialog: the method that the tests work with, by keyboard. The one last begun is offered already. */
export async function chooseMethod(page: Page): Promise<void> {
  const title = page.getByRole("textbox", { name: "Title" });
  await expect(title).toBeVisible();
  const method = page.getByRole("combobox", { name: /^Method/ });
  if (!(await method.innerText()).startsWith("Base by potassium hydrogen phthalate, then")) {
    await method.press("Enter");
    await page.getByRole("option", { name: /^Base by potassium hydrogen phthalate, then/ }).press("Enter");
    await title.focus();
  }
  await expect(title).toBeFocused();
}

/** Starts a run from the bench, by keyboard alone. */
export async function startRun(page: Page, title: string): Promise<void> {
  await page.goto("/");
  await page.getByRole("button", { name: "Start a run" }).focus();
  await page.keyboard.press("Enter");
  await chooseMethod(page);
  await page.keyboard.type(title);
  await page.keyboard.press("Tab");
  await page.keyboard.type("R-9");
  await page.keyboard.press("Tab");
  await page.keyboard.type("bench 4");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { level: 1, name: title })).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Boat with solid, g" })).toBeFocused();
}

/** Types readings into the fields in the order in which the cursor goes, each ended by Enter. */
export async function typeReadings(
  page: Page,
  readings: readonly (readonly [field: string, text: string | null])[],
) {
  for (const [label, text] of readings) {
    const field = page.getByRole("textbox", { name: label });
    await expect(field).toBeFocused();
    if (text !== null) {
      await page.keyboard.press("ControlOrMeta+a");
      await page.keyboard.type(text);
    }
    await page.keyboard.press("Enter");
  }
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

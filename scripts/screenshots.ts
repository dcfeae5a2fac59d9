// Takes the pictures of docs/screenshots/ from a freshly begun demo: ./bin/demo --fresh, then npm run screenshots -- http://127.0.0.1:4100
// It begins runs of its own there. Names of pictures may follow; without them all are taken.
import { chromium, type BrowserContext, type Page } from "@playwright/test";

const [url = "http://127.0.0.1:4100", ...wanted] = process.argv.slice(2);
const executablePath = process.env.CHROMIUM ?? "/usr/bin/chromium-headless-shell";

const browser = await chromium.launch({ executablePath, args: ["--no-sandbox"] });
const wide = { width: 1280, height: 800 };
const contexts: BrowserContext[] = [];

async function open(viewport = wide): Promise<Page> {
  const context = await browser.newContext({ viewport, baseURL: url, reducedMotion: "reduce" });
  contexts.push(context);
  return context.newPage();
}

/** The page of a run of the demo, at one of its stages. */
async function run(page: Page, title: string, stage?: string): Promise<string> {
  await page.goto("/");
  await page
    .getByRole("link", { name: title, exact: true })
    .or(page.getByLabel(`Go to the run ${title}`))
    .first()
    .click();
  await page.getByRole("heading", { level: 1, name: title }).waitFor();
  const { pathname } = new URL(page.url());
  if (stage) await page.goto(`${pathname}?stage=${stage}`);
  return pathname;
}

async function begin(page: Page, methodId: string, title: string, sample: string): Promise<void> {
  await page.goto(`/methods/${methodId}`);
  await page.getByRole("link", { name: "Start a run" }).first().click();
  await page.getByRole("textbox", { name: "Sample" }).fill(sample);
  await page.getByRole("textbox", { name: "Title" }).fill(title);
  await page.keyboard.press("Enter");
  await page.getByRole("heading", { level: 1, name: title }).waitFor();
}

/** Types into the field where the cursor stands, with Enter. */
async function type(page: Page, ...texts: readonly string[]): Promise<void> {
  for (const text of texts) {
    await page.keyboard.type(text);
    await page.keyboard.press("Enter");
    await page.waitForTimeout(400);
  }
}

async function confirmVolumes(page: Page): Promise<void> {
  const asked = page.getByTestId("confirm-volumes").getByRole("button", { name: /^It was / });
  while ((await asked.count()) > 0) {
    await asked.first().click();
    await page.waitForTimeout(500);
  }
}

/** Each brings a page to what its picture shows. */
const pictures: Readonly<Record<string, (page: Page) => Promise<unknown>>> = {
  bench: (page) => page.goto("/"),
  run: (page) => run(page, "Rinse acid of the kelp tank filter"),
  assay: (page) => run(page, "Phosphate of the pond", "standards"),
  conclude: (page) => run(page, "Phosphate of the pond", "conclude"),
  async report(page) {
    await page.goto(`${await run(page, "Rinse acid of the kelp tank filter")}/report`);
    await page.getByTestId("report-result").scrollIntoViewIfNeeded();
    await page.evaluate(() => scrollTo(0, 260));
  },
  async working(page) {
    await page.goto(`${await run(page, "Rinse acid of the kelp tank filter")}/working?stage=standardize`);
  },
  method: (page) => page.goto("/methods/permanganate-by-hot-oxalate"),
  async plan(page) {
    await page.goto("/methods/acid-by-hydrogen-carbonate/plan");
    await page.getByRole("img", { name: /^Titration curve by theory/ }).waitFor();
  },
  editor: (page) => page.goto("/methods/acid-by-base/edit"),
  shelf: (page) => page.goto("/shelf"),
  lineage: (page) => page.goto("/shelf/lineage"),
  async paper(page) {
    await page.goto(`${await run(page, "Acid for the alkalinity class")}/paper`);
  },
  async history(page) {
    await page.goto("/history?sample=check+acid&result=mol%2FL%7CConcentration+of+the+acid");
    await page.getByRole("img", { name: /^Control chart/ }).waitFor();
  },
  async import(page) {
    await page.goto("/history/import/table");
    const rows = ["20,02", "20,12", "20,09", "22,40", "22,58"].map((final, i) => {
      const [sample, day] = i < 3 ? ["KT-7", "3.11.2026"] : ["KT-8", "4.11.2026"];
      return [
        sample,
        day,
        String((i % 3) + 1),
        "25,00",
        `0,${i}0`.slice(0, 4),
        final,
        i === 0 ? "clear" : "",
      ].join(";");
    });
    const heads = "Sample;Date;Trial;Aliquot of acid;Initial reading;Final reading;Remark";
    await page.getByLabel("Paste the table here").fill([heads, ...rows].join("\n"));
    await page.getByRole("button", { name: "Use the pasted table" }).click();
    await page
      .getByRole("combobox", { name: "Each row is a trial or a flask of" })
      .fill("Base by potassium hydrogen");
    await page.getByRole("option", { name: /Titrate the acid/ }).click();
    await page.getByLabel("Concentration of the base, mol/L", { exact: true }).fill("0.1000");
    await page.getByRole("button", { name: "Check the table" }).click();
    await page
      .getByRole("cell", { name: /mol\/L/ })
      .first()
      .waitFor();
  },
  async "run-live"(page) {
    await begin(page, "sulfur-dioxide", "Sulfite of the brine", "BR-2");
    await page.goto(`${new URL(page.url()).pathname}?stage=determine`);
    await confirmVolumes(page);
    await page.getByRole("button", { name: "Stagger several flasks …" }).click();
    await page.getByRole("button", { name: "Set these timers" }).click();
    const dock = page.getByRole("region", { name: "Timers" });
    await dock.getByRole("button", { name: /^Start: flask 1/ }).click();
    await page
      .getByRole("group", { name: "Flasks" })
      .getByRole("button", { name: /^Flask 1/ })
      .click();
    await type(page, "25.00", "0.00");
    await page.keyboard.type("3.70");
    await page.getByRole("button", { name: "Possible end point: mark it" }).click();
    await page.keyboard.type("3.85");
  },
  curve: (page) => run(page, "Sour crystals of the gift shop"),
  async "curve-read"(page) {
    await run(page, "Sour crystals of the gift shop");
    await page.getByRole("button", { name: "Curve 1" }).click();
    await page.getByRole("button", { name: /^phenolphthalein/ }).click();
  },
  isotherm: (page) => run(page, "Filter charcoal of the lagoon", "isotherm"),
  "run-phone": (page) => run(page, "Pickling acid of the quarantine pipes"),
};

try {
  for (const [name, bring] of Object.entries(pictures)) {
    if (wanted.length > 0 && !wanted.includes(name)) continue;
    const page = await open(name === "run-phone" ? { width: 390, height: 844 } : wide);
    await bring(page);
    await page.waitForLoadState("networkidle").catch(() => undefined);
    await page.waitForTimeout(1200);
    // What a plan tells of the indicator stands further down, as does an isotherm.
    const top = { plan: 290, isotherm: 110, "curve-read": 130 }[name] ?? 0;
    await page.evaluate((y) => window.scrollTo(0, y), top);
    await page.screenshot({ path: `docs/screenshots/${name}.png` });
    console.log(name);
  }
} finally {
  for (const context of contexts) await context.close();
  await browser.close();
}

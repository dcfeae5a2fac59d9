import { devices, type Page, type Request } from "@playwright/test";
import {
  atRest,
  expect,
  follow,
  ledgerRow,
  long,
  noGraveFaults,
  openRun,
  saveRules,
  startRun,
  test,
  titration,
  typeReadings,
  weighing,
} from "./app";

async function read(page: Page, label: string, text: string) {
  await page.getByRole("textbox", { name: label }).fill(text);
  await page.getByRole("textbox", { name: label }).press("Enter");
}

const kept = (page: Page) => page.getByRole("region", { name: "Kept in this browser" });
const watch = (page: Page) => page.getByRole("group", { name: "Does the color stay?" });
const marks = (page: Page) => page.getByRole("list", { name: "Possible end points" });
const final = (page: Page) => page.getByRole("textbox", { name: "Final reading, mL" });

test("by keyboard: where to slow down, a mark that may be the end, one that faded and one that was kept", async ({
  page,
}) => {
  await startRun(page, "Ahead of the hand");
  await page.keyboard.press("Alt+r");
  await typeReadings(page, [...weighing("2.6104", "2.1000"), ["Initial reading, mL", "0.05"]]);
  // 0.5104 g take 24.99 mL of 0.1 mol/L: from 0.05 the end is near 25.04. By the method alone nobody runs freely to it; where a person
  // expects it, slow begins a tenth before.
  const slider = page.getByRole("slider", { name: /Burette of 50 mL/ });
  await expect(slider).toHaveAccessibleName(/presumed 25\.0 mL/);
  await page.getByRole("button", { name: "Expect that" }).press("Enter");
  await expect(final(page)).toBeFocused();
  await expect(slider).toHaveAccessibleName(/slow at 22\.5 mL\. end near 25\.0 mL/);
  const now = page
    .getByRole("list", { name: "Flask color during the titration" })
    .locator("[aria-current=step]");
  // A drop more or less by an arrow key, at the burette and in the field.
  await slider.press("PageDown");
  await slider.press("ArrowDown");
  await expect(final(page)).toHaveValue("1.10");
  await final(page).fill("20.00");
  await expect(now).toContainText("colorless");
  await final(page).fill("25.00");
  await expect(now).toContainText("stop, read");
  await final(page).press("ArrowUp");
  await expect(final(page)).toHaveValue("25.05");
  await final(page).press("ArrowDown");
  await expect(final(page)).toHaveValue("25.00");
  await final(page).fill("24.65");
  await final(page).press("Enter");
  await expect(ledgerRow(page, "rough")).toContainText("24.60");
  await expect(watch(page)).toHaveCount(0);

  await typeReadings(page, weighing("2.6106", "2.1000"));
  await page.getByRole("button", { name: "Refilled" }).press("Enter");
  await typeReadings(page, [["Initial reading, mL", "0.00"]]);
  // By the rough trial: 0.5106 / 0.5104 · 24.60 = 24.61.
  await expect(page.getByRole("status").first()).toContainText("run freely to 22.5, then drop by drop");
  await final(page).fill("24.90");
  await page.keyboard.press("Alt+m");
  await expect(marks(page)).toContainText("24.90");
  await expect(final(page)).toHaveValue("");
  await final(page).fill("25.00");
  await final(page).press("Enter");
  await expect(watch(page)).toContainText("End of trial 1: does the color stay?");
  await expect(page.getByTestId("end-watch")).toHaveText(/0:(30|2\d)/);
  await watch(page).getByRole("button", { name: "Faded: keep titrating" }).press("Enter");
  // It is the same trial again, and its end has become a mark beside the other.
  await expect(page.getByRole("heading", { name: "Trial 1" })).toBeVisible();
  await expect(marks(page).getByRole("listitem")).toHaveCount(2);
  await expect(marks(page)).toContainText(/faded after \d+ s/);
  await final(page).fill("25.05");
  await final(page).press("Enter");
  await watch(page).getByRole("button", { name: "Kept" }).press("Enter");
  await expect(watch(page)).toHaveCount(0);
  await expect(ledgerRow(page, "1")).toContainText("25.05");
  // Afterwards an earlier mark is chosen for the end: a correction, with its reason.
  await ledgerRow(page, "1")
    .getByRole("button", { name: /^Actions for/ })
    .click();
  await page.getByRole("menuitem", { name: "The end was 25.00, as marked" }).click();
  await expect(ledgerRow(page, "1")).toContainText("0.10001");
  await expect(ledgerRow(page, "1")).toContainText("the end was the mark at 25.00");
  await noGraveFaults(page, "a run with marks");

  await page.getByRole("button", { name: "More about this run" }).click();
  await page.getByRole("menuitem", { name: /^Trail/ }).click();
  const line = page.getByRole("row", { name: /final reading corrected/ });
  await expect(line).toContainText("25.05 mL");
  await expect(line).toContainText("25.00 mL");
  await expect(line).toContainText("the end was the mark at 25.00");
  await expect(page.getByRole("row", { name: /end point of trial 1 faded/ })).toContainText(
    /faded after \d+ s/,
  );
  await page.getByRole("textbox", { name: "Search the trail" }).fill("boat");
  await expect(page.getByRole("status")).toHaveText(/^4 of \d+ lines$/);
  await noGraveFaults(page, "the trail");
});

test("an overshot end is brought back: what that took is no part of the titer", async ({ page }) => {
  await startRun(page, "Overshot");
  await typeReadings(page, [...weighing("2.6106", "2.1000"), ...titration("0.00", "26.02")]);
  await ledgerRow(page, "1")
    .getByRole("button", { name: /^Actions for/ })
    .click();
  await page.getByRole("menuitem", { name: "Overshot: titrated back …" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("textbox", { name: "Added back, mL" }).fill("-1");
  await dialog.getByRole("button", { name: "Record it" }).click();
  await expect(dialog).toContainText("it must be more than zero");
  await dialog.getByRole("textbox", { name: "Added back, mL" }).fill("1.00");
  await dialog.getByRole("textbox", { name: /^Titrant equivalent to 1 mL/ }).fill("1.02");
  await dialog.getByRole("button", { name: "Record it" }).click();
  // 26.02 - 1.00 · 1.02 = 25.00
  await expect(ledgerRow(page, "1")).toContainText("25.00");
  await expect(ledgerRow(page, "1")).toContainText("0.10001");
  await expect(ledgerRow(page, "1")).toContainText("overshot: 1.00 mL added back");
});

test(
  "three flasks that stand are staggered: their timers are on every screen, and each is taken in hand by its name",
  long,
  async ({ page, context }) => {
    await openRun(page, "sulfur-dioxide", "Sulfite of the brine", { stage: "determine" });
    await expect(page.getByText("At the last moment", { exact: true })).toBeVisible();
    await page.getByRole("button", { name: "Stagger several flasks …" }).click();
    const dialog = page.getByRole("dialog");
    const field = (name: RegExp) => dialog.getByRole("textbox", { name });
    await expect(field(/Each stands/)).toHaveValue("15");
    await field(/Time in all/).fill("20");
    await expect(dialog.getByRole("status")).toContainText(
      "3 flasks need 31 min, and there are only 20 min. Not even one",
    );
    await field(/Time in all/).fill("");
    await expect(dialog.getByRole("row", { name: /Flask 2/ })).toContainText("5:00");
    // A lesson in seconds: each stands 3 s, and takes 2 s.
    for (const [name, text] of [
      [/Each stands/, "0.05"],
      [/One titration/, "0.033333"],
      [/Starting one/, "0"],
    ] as const) {
      await field(name).fill(text);
    }
    await dialog.getByRole("button", { name: "Set these timers" }).click();
    await expect(dialog).toBeHidden();
    const dock = page.getByRole("region", { name: "Timers" });
    await expect(dock.getByRole("button", { name: /^Start:/ })).toHaveCount(3);
    const flasks = page.getByRole("group", { name: "Flasks" });
    await expect(flasks.getByRole("button", { name: /^Flask [123]/ })).toHaveCount(3);
    await noGraveFaults(page, "a run with timers");

    // A second device sees them at once, on another screen, and starts one.
    const other = follow(await context.newPage());
    await other.goto("/shelf");
    const dockThere = other.getByRole("region", { name: "Timers" });
    await expect(dockThere).toContainText("flask 1: start it now");
    const firstThere = dockThere.locator("[data-due]").filter({ hasText: "flask 1" });
    await firstThere.getByRole("button", { name: /^Start:/ }).click();
    const first = dock.locator("[data-due]").filter({ hasText: "flask 1" });
    await expect(first.getByRole("button", { name: "Done" })).toBeVisible();
    // Its time is over: it stands out, here too, and after a reload.
    await expect(dock).toContainText("flask 1: over since");
    await page.reload();
    await expect(dock).toContainText("flask 1: over since");
    await expect(dock.locator('[data-due="true"]').first()).toBeVisible();
    // It has stood: its turn at the burette has come.
    await first.getByRole("button", { name: "Done" }).click();
    await expect(first).toHaveCount(0);
    await flasks.getByRole("button", { name: /^Flask 1/ }).click();
    await typeReadings(
      page,
      [["Drink taken, mL", null], ...titration("0.00", "5.10")].slice(0, 1) as [string, null][],
    );
    await expect(page.getByRole("heading", { name: /^Trial 1/ })).toBeVisible();
    await other.close();
  },
);

test("a flask that is too cold is asked about, and it stands with the trial", async ({ page }) => {
  await openRun(page, "permanganate-by-oxalate", "Oxalate, warm", { stage: "standardize" });
  await expect(page.getByRole("list", { name: "Conditions" })).toContainText(
    "55 to 60 °C: start warm and hold it",
  );
  const temperature = page.getByRole("textbox", { name: "Temperature of the flask, °C" });
  await temperature.fill("48.5");
  await expect(
    page.getByText("48.5 °C is below the 55 to 60 °C of this method: warm it before you go on"),
  ).toBeVisible();
  await temperature.press("Enter");
  const ledger = page.getByRole("region", { name: "Ledger" });
  await expect(ledger).toContainText("48.5 °C is below the 55 to 60 °C");
  // It is read again once it is warm: both readings stand.
  await temperature.fill("57.0");
  await temperature.press("Enter");
  await expect(page.getByText("read so far: 48.5, 57.0")).toBeVisible();
  await expect(ledger).toContainText("48.5 °C is below the 55 to 60 °C");
});

test("a timer of one's own: for the stage or a flask, from a dialog, on every screen, ended where one is", async ({
  page,
}) => {
  await startRun(page, "By the clock");
  await typeReadings(page, [...weighing("2.6106", "2.1000"), ["Initial reading, mL", "0.00"]]);
  // Enter twice before the server has answered: one end, one stopwatch.
  let answer = () => {};
  const slow = new Promise<void>((done) => (answer = done));
  await page.route("**/changes", async (route) => {
    await slow;
    await route.continue();
  });
  await final(page).fill("25.00");
  await final(page).press("Enter");
  await final(page).press("Enter");
  // Nor is another text taken for the one that was sent.
  await final(page).fill("25.10");
  await expect(final(page)).toHaveValue("25.00");
  answer();
  await expect(watch(page)).toBeVisible();
  await atRest(page);
  await page.unroute("**/changes");
  await expect(page.getByText(/is timed already/)).toHaveCount(0);
  await page.getByRole("button", { name: "Timer …" }).click();
  const dialog = page.getByRole("dialog", { name: "Set a timer" });
  await dialog.getByRole("textbox", { name: "Minutes" }).fill("soon");
  await dialog.getByRole("button", { name: "Start it" }).click();
  await expect(dialog).toContainText("A time in minutes, as 15 or 0.5");
  await noGraveFaults(page, "set a timer");
  await dialog.getByRole("button", { name: "let it settle, 2 min" }).click();
  await expect(dialog.getByRole("textbox", { name: "Minutes" })).toHaveValue("2");
  await dialog.getByRole("combobox", { name: "For" }).click();
  await page.getByRole("option", { name: "Trial 1" }).click();
  await dialog.getByRole("button", { name: "Start it" }).click();
  await expect(dialog).toBeHidden();
  await page.getByRole("button", { name: "Timer …" }).click();
  await dialog.getByRole("textbox", { name: "What for" }).fill("cool the crucible");
  await dialog.getByRole("textbox", { name: "Minutes" }).fill("0,02");
  await page.keyboard.press("Enter");
  await page.goto("/methods");
  const dock = page.getByRole("region", { name: "Timers" });
  await expect(dock).toContainText(/1:\d\dtrial 1(By the clock: )?let it settle/);
  await expect(dock).toContainText(/By the clock: over since(By the clock: )?cool the crucible/);
  await dock.getByRole("button", { name: "Done: cool the crucible" }).click();
  await expect(dock).not.toContainText("cool the crucible");
  await dock.locator("[data-due]").filter({ hasText: "let it settle" }).getByRole("link").click();
  await expect(page.getByRole("heading", { level: 1, name: "By the clock" })).toBeVisible();
});

test("the server is out of reach in the middle: the work goes on, survives a reload, and is sent once and in order", async ({
  page,
}) => {
  await startRun(page, "Out of reach");
  await typeReadings(page, weighing("2.6106", "2.1000"));
  await expect(page.getByText("0.5106 g")).toBeVisible();
  await page.route("**/changes", (route) => route.abort());
  await typeReadings(page, titration("0.00", "25.00"));
  await expect(kept(page)).toContainText("changes are waiting for the server");
  // The next trial goes on, and the verdict with it.
  await typeReadings(page, [...weighing("2.5901", "2.1000"), ...titration(null, "49.01")]);
  await expect(page.getByTestId("verdict")).toContainText("Trials 1 and 2 lie within");
  await expect(ledgerRow(page, "2")).toContainText("waiting for the server");
  await noGraveFaults(page, "waiting readings");
  await page.reload();
  await expect(kept(page)).toContainText("changes are waiting");
  await expect(ledgerRow(page, "2")).toContainText("24.01");
  await page.unroute("**/changes");
  await expect(kept(page)).toBeHidden({ timeout: 60_000 });
  await page.reload();
  await expect(ledgerRow(page, "1")).toContainText("0.10001");
  await expect(ledgerRow(page, "2")).toContainText("24.01");
  await page.goto(`${new URL(page.url()).pathname}/trail`);
  // Once each, in the order in which they were read.
  const read = await page
    .getByRole("row")
    .filter({ hasText: /reading|boat/ })
    .allInnerTexts();
  expect(read.map((row) => /(\d+\.\d+) (mL|g)/.exec(row)?.[1]).reverse()).toEqual([
    "2.6106",
    "2.1000",
    "0.00",
    "25.00",
    "2.5901",
    "2.1000",
    "25.00",
    "49.01",
  ]);
});

test("two devices at one run see each other's readings, and of two readings for one field both are kept", async ({
  page,
  browser,
  app,
}) => {
  await startRun(page, "Two devices");
  const context = await browser.newContext({ baseURL: app.url });
  const other = follow(await context.newPage());
  await other.goto(page.url());
  await expect(other.getByRole("textbox", { name: "Boat with solid, g" })).toBeFocused();
  await typeReadings(page, weighing("2.6106", "2.1000").slice(0, 1));
  const seen = other.getByRole("button", { name: "Correct Boat with solid" });
  await expect(seen).toBeVisible();
  // What the other one reads while something is pressed here does not move it from under the finger.
  const size = page.viewportSize()!;
  await page.setViewportSize({ ...size, height: 1400 });
  await atRest(page);
  await other.getByRole("textbox", { name: "Boat after transfer, g" }).fill("2.1000");
  await page.getByRole("button", { name: "Actions for trial 1" }).hover();
  await page.mouse.down();
  await other.keyboard.press("Enter");
  await expect(other.getByText("0.5106 g")).toBeVisible();
  // It is told here at the same moment, and not shown before the release.
  await page.evaluate(() => new Promise((over) => setTimeout(over, 500)));
  await expect(page.getByText("0.5106 g")).toBeHidden();
  await page.mouse.up();
  await expect(page.getByRole("menuitem", { name: "Strike out …" })).toBeVisible();
  await page.keyboard.press("Escape");
  await page.setViewportSize(size);
  await expect(page.getByText("0.5106 g")).toBeVisible();
  // Both read the same meniscus, and read it differently.
  await other.route("**/changes", (route) => route.abort());
  await other.getByRole("textbox", { name: "Initial reading, mL" }).fill("0.20");
  await other.keyboard.press("Enter");
  await expect(kept(other)).toContainText("One change is waiting");
  await page.getByRole("textbox", { name: "Initial reading, mL" }).focus();
  await typeReadings(page, [["Initial reading, mL", "0.10"]]);
  await other.unroute("**/changes");
  await expect(kept(other)).toContainText("Initial reading of trial 1 was read twice.", { timeout: 60_000 });
  await expect(kept(other)).toContainText("0.10 by bench 4");
  await noGraveFaults(other, "two readings");
  await other.getByRole("button", { name: "It is 0.20" }).click();
  await expect(kept(other)).toBeHidden();
  await expect(page.getByRole("button", { name: "Correct Initial reading" })).toBeVisible();
  await expect(page.getByText("0.20", { exact: true }).first()).toBeVisible();

  // A run that is archived meanwhile takes no reading; it is kept until someone says what should become of it.
  await other.route("**/changes", (route) => route.abort());
  await other.getByRole("textbox", { name: "Final reading, mL" }).fill("25.20");
  await other.keyboard.press("Enter");
  await expect(kept(other)).toContainText("waiting for the server");
  await page.getByRole("button", { name: "More about this run" }).click();
  await page.getByRole("menuitem", { name: "Archive …" }).click();
  await page.getByRole("button", { name: "Archive", exact: true }).click();
  await expect(page.getByRole("heading", { name: "On the bench", exact: true })).toBeVisible();
  await other.unroute("**/changes");
  await expect(kept(other)).toContainText(/25\.20, was not accepted: This run is finished: reopen it/, {
    timeout: 60_000,
  });
  await other.getByRole("button", { name: "More about this run" }).click();
  await other.getByRole("menuitem", { name: "Reopen" }).click();
  await kept(other).getByRole("button", { name: "Send it again" }).first().click();
  await expect(ledgerRow(other, "1")).toContainText("25.00");
  await context.close();
});

test(
  "many tabs of one browser share one stream, and the next one takes over when it closes",
  long,
  async ({ page, context, browser, app }) => {
    await startRun(page, "Eight tabs");
    const streams: Page[] = [];
    context.on("request", (request) => {
      if (new URL(request.url()).pathname === "/live") streams.push(request.frame().page());
    });
    const tabs: Page[] = [];
    for (let i = 0; i < 7; i++) {
      const tab = follow(await context.newPage());
      await tab.goto(page.url());
      tabs.push(tab);
    }
    // A browser keeps six connections to one server: with a stream in each, the last tabs would wait for ever.
    const last = tabs.at(-1)!;
    await read(last, "Boat with solid, g", "2.6106");
    for (const tab of [page, tabs[0]!, last]) {
      await expect(tab.getByRole("button", { name: "Correct Boat with solid" })).toBeVisible();
    }
    expect(streams).toEqual([]);
    await page.close();
    await expect.poll(() => streams.length).toBe(1);
    const elsewhere = await browser.newContext({ baseURL: app.url });
    const phone = follow(await elsewhere.newPage());
    await phone.goto(last.url());
    await read(phone, "Boat after transfer, g", "2.1000");
    for (const tab of [tabs[1]!, last]) await expect(ledgerRow(tab, "1")).toContainText("0.5106");
    await elsewhere.close();
  },
);

test("where tabs cannot agree on one, each listens while it is looked at, and asks anew when it is looked at again", async ({
  page,
  browser,
  app,
}) => {
  await page.addInitScript(() => Reflect.deleteProperty(Navigator.prototype, "locks"));
  const streams = new Set<Request>();
  page.on("request", (request) => new URL(request.url()).pathname === "/live" && streams.add(request));
  page.on("requestfailed", (request) => streams.delete(request));
  await startRun(page, "Seen or not");
  await expect.poll(() => streams.size).toBe(1);
  const look = (as: "hidden" | "visible") =>
    page.evaluate((state) => {
      Object.defineProperty(document, "visibilityState", { value: state, configurable: true });
      document.dispatchEvent(new Event("visibilitychange"));
    }, as);
  await look("hidden");
  await expect.poll(() => streams.size).toBe(0);
  const elsewhere = await browser.newContext({ baseURL: app.url });
  const phone = follow(await elsewhere.newPage());
  await phone.goto(page.url());
  await read(phone, "Boat with solid, g", "2.6106");
  await expect(phone.getByRole("button", { name: "Correct Boat with solid" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Correct Boat with solid" })).toHaveCount(0);
  await look("visible");
  await expect(page.getByRole("button", { name: "Correct Boat with solid" })).toBeVisible();
  await elsewhere.close();
});

test("a balance and a burette that read by themselves: only a steady value is taken, and it says where it came from", async ({
  page,
}) => {
  await page.goto("/instruments");
  const choose = async (label: string, option: string) => {
    await page.getByRole("combobox", { name: label }).click();
    await page.getByRole("option", { name: option, exact: true }).click();
    // A list that is fading is still looked at.
    await expect(page.getByRole("listbox")).toHaveCount(0);
  };
  await choose("Balance is read", "over the serial port");
  await page.getByRole("textbox", { name: "A line as it sends it" }).fill("{weight} g");
  await expect(page.getByText("There is no {value} in the pattern")).toBeVisible();
  await choose("Balance is read", "simulated");
  await choose("Burette is read", "simulated");
  await noGraveFaults(page, "instruments");
  await startRun(page, "By instrument");
  await page.getByRole("button", { name: "Connect the balance" }).click();
  const take = page.getByRole("button", { name: "Take reading" });
  const balance = page.getByRole("group", { name: "Balance display" });
  for (const then of ["Correct Boat with solid", "Connect the burette"]) {
    await balance.getByRole("button", { name: "Put it on" }).click();
    await expect(take).toBeDisabled();
    await expect(take).toBeEnabled();
    await take.click();
    await expect(page.getByRole("button", { name: then })).toBeVisible();
  }
  await page.getByRole("button", { name: "Connect the burette" }).click();
  const burette = page.getByRole("group", { name: "Burette display" });
  await expect(take).toBeEnabled();
  await take.click();
  await expect(page.getByText("✓ saved, by instrument").first()).toBeVisible();
  await burette.getByRole("button", { name: "Open the tap" }).click();
  await expect(page.getByTestId("burette-display")).toContainText(/^[1-9]/);
  await burette.getByRole("button", { name: "Close the tap" }).click();
  await burette.getByRole("button", { name: "One drop" }).click();
  await expect(burette).toContainText(/\d+ drops/);
  await expect(take).toBeEnabled();
  await take.click();
  await expect(ledgerRow(page, "1")).toContainText(/0\.\d{5}/);
});

test(
  "house rules are tried on an open run before they are saved, for the lab or for one run; words hold everywhere",
  long,
  async ({ page }) => {
    await startRun(page, "Rules on trial");
    await typeReadings(page, [...weighing("2.6106", "2.1000"), ...titration("0.00", "25.00")]);
    await typeReadings(page, [...weighing("2.5901", "2.1000"), ...titration(null, "49.01")]);
    await expect(page.getByTestId("verdict")).toContainText("Trials 1 and 2 lie within");
    const run = page.url();
    await page.getByRole("button", { name: "More about this run" }).click();
    await page.getByRole("menuitem", { name: "House rules for this run …" }).click();
    const effects = page.getByTestId("rules-effects");
    await expect(effects).toContainText("Nothing in Rules on trial would change");
    await page.getByRole("textbox", { name: "Trials that must agree" }).fill("2");
    await expect(effects).toContainText("Go on: Titrate the acid");
    await page.getByRole("textbox", { name: "Within, mL" }).fill("0.001");
    await expect(
      page.getByText(/Trials cannot agree within 0\.001 mL while the burette is read in steps of 0\.01/),
    ).toBeVisible();
    await expect(page.getByText("Not saved yet: look at the fields marked above.")).toBeVisible();
    await page.getByRole("textbox", { name: "Within, mL" }).fill("0.10");
    await saveRules(page, "Save for this run");
    await expect(page.getByText("Saved for this run.")).toBeVisible();
    await noGraveFaults(page, "house rules of a run");
    await page.goto(run);
    await expect(page.getByTestId("verdict")).toContainText("House rule: two within 0.10 mL");

    await page.goto("/house-rules");
    await page.getByRole("button", { name: /From zero, in cm³/ }).click();
    await saveRules(page);
    await expect(page.getByText("Saved. Runs begun from now on follow them.")).toBeVisible();
    try {
      await page.goto(`${new URL(run).pathname}?stage=standardize`);
      await expect(page.getByTestId("verdict")).toContainText("House rule: two within 0.10 cm³");
      await expect(page.getByText(/^titre, cm³, per 0\.\d+ g$/).first()).toBeVisible();
      await expect(page.getByTestId("result")).toContainText("mol/dm³");
      await expect(page.getByText(/\btiter\b|\bmL\b|mol\/L/)).toHaveCount(0);
      await page.goto("/methods/base-by-phthalate-then-acid");
      await expect(page.getByText(/\bmL\b|mol\/L/)).toHaveCount(0);
    } finally {
      await page.goto("/house-rules");
      await page.getByRole("button", { name: /Everyday bench/ }).click();
      await saveRules(page);
      await expect(page.getByText("Saved. Runs begun from now on follow them.")).toBeVisible();
    }
  },
);

test("a house that reads twice: the second reading is typed blind, and the two are held against each other", async ({
  page,
}) => {
  await startRun(page, "Read twice");
  const run = new URL(page.url()).pathname;
  await page.goto(`/house-rules?run=${run.split("/").at(-1)}`);
  await page.getByRole("combobox", { name: "Type each reading" }).click();
  await page.getByRole("option", { name: "twice, the second time blind" }).click();
  await saveRules(page, "Save for this run");
  await expect(page.getByText("Saved for this run.")).toBeVisible();
  await page.goto(run);
  await typeReadings(page, weighing("2.6106", "2.1000"));
  await typeReadings(page, [["Initial reading, mL", "0.00"]]);
  const again = page.getByRole("textbox", { name: "Initial reading, second time, mL" });
  await expect(again).toBeFocused();
  await expect(again).toHaveValue("");
  await typeReadings(page, [["Initial reading, second time, mL", "0.00"]]);
  await typeReadings(page, [
    ["Final reading, mL", "25.30"],
    ["Final reading, second time, mL", "25.00"],
  ]);
  await expect(page.getByText(/Read as 25\.30 first and as 25\.00 now/)).toBeVisible();
  await page.getByRole("button", { name: "It is 25.00" }).click();
  await expect(ledgerRow(page, "1")).toContainText("0.10001");
  await expect(ledgerRow(page, "1")).toContainText("final reading typed as 25.00 and as 25.30");
});

test("by touch: the meniscus is drawn to the end, the end is recorded and kept, and three that agree close the set", async ({
  browser,
  app,
}) => {
  const context = await browser.newContext({ ...devices["Galaxy Tab S4"], baseURL: app.url });
  const page = follow(await context.newPage());
  await openRun(page, "base-by-acid", "Wet gloves", { stage: "standardize" });
  const record = page.getByRole("button", { name: /^Record/ });
  const type = async (label: string | RegExp, text: string) => {
    await page.getByRole("textbox", { name: label }).tap();
    await page.getByRole("textbox", { name: label }).fill(text);
    await record.tap();
  };
  const slider = page.getByRole("slider", { name: /Burette/ });
  await page.getByRole("button", { name: "counts", exact: true }).tap();
  for (const [i, to] of [24.1, 24.0, 24.05].entries()) {
    await type(/^Aliquot/, "25.00");
    await type("Initial reading, mL", "0.00");
    await expect(slider).toBeVisible();
    // Where it stands once what was typed is saved and shown.
    await atRest(page);
    const box = (await slider.boundingBox())!;
    // The scale begins 22 of 604 parts from the top and is 520 long; the capacity is 50 mL.
    const y = (ml: number) => box.y + (box.height * (22 + (520 * ml) / 50)) / 604;
    await page.mouse.move(box.x + box.width / 2, y(10));
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2, y(to), { steps: 4 });
    await page.mouse.up();
    await expect(final(page)).toHaveValue(/^2[34]\.\d\d$/);
    await final(page).fill(to.toFixed(2));
    await record.tap();
    await expect(ledgerRow(page, String(i + 1))).toContainText(to.toFixed(2));
    await watch(page).getByRole("button", { name: "Kept" }).tap();
    await expect(watch(page)).toHaveCount(0);
  }
  await expect(page.getByTestId("verdict")).toContainText("Trials 1, 2 and 3 lie within 0.10 mL");
  await context.close();
});

import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { fuzz } from "../scripts/fuzz";
import {
  atRest,
  expect,
  follow,
  long,
  openRun,
  saveRules,
  startRun,
  test,
  titration,
  typeReadings,
  weighing,
} from "./app";
import { read, takeUsualWavelength } from "./photometer";

/* Nothing gets in from elsewhere, and one bad thing stops nobody. */

test("a foreign page in the same browser changes nothing, whatever it sends and under whatever name", async ({
  page,
  app,
  request,
}) => {
  await startRun(page, "Ours");
  const changes = `${app.url}${new URL(page.url()).pathname}/changes`;
  const rename = JSON.stringify({ intent: "rename", title: "Theirs", sample: "", bench: "" });
  const elsewhere = createServer((_request, response) =>
    response.setHeader("Content-Type", "text/html").end("<p>elsewhere</p>"),
  );
  await new Promise<void>((resolve) => elsewhere.listen(0, "127.0.0.1", resolve));
  try {
    const foreign = follow(await page.context().newPage());
    await foreign.goto(`http://127.0.0.1:${(elsewhere.address() as AddressInfo).port}/`);
    await foreign.evaluate(
      async ({ changes, rename, methods }) => {
        const post = (to: string, body: BodyInit, type: string) =>
          fetch(to, { method: "POST", mode: "no-cors", body, headers: { "Content-Type": type } }).catch(
            () => {},
          );
        await post(changes, rename, "text/plain");
        await post(methods, new URLSearchParams({ text: "{}" }), "application/x-www-form-urlencoded");
        const form = document.createElement("form");
        Object.assign(form, { method: "post", action: changes, enctype: "text/plain", target: "frame" });
        const frame = document.createElement("iframe");
        frame.name = "frame";
        const field = document.createElement("input");
        field.name = rename.slice(0, -2);
        field.value = '"}';
        form.append(field);
        document.body.append(frame, form);
        const gone = new Promise((resolve) => frame.addEventListener("load", resolve));
        form.submit();
        await gone;
      },
      { changes, rename, methods: `${app.url}/methods/import` },
    );
    await foreign.close();
  } finally {
    elsewhere.close();
  }
  // A name that somebody pointed here is none of this server's; text is no JSON, wherever it comes from.
  for (const [headers, status] of [
    [{ Host: "rebound.example", "Content-Type": "application/json" }, 421],
    [{ Origin: "null", "Content-Type": "application/json" }, 403],
    [{ "Content-Type": "text/plain" }, 415],
  ] as const) {
    expect((await request.post(changes, { data: rename, headers })).status()).toBe(status);
  }
  expect((await request.get("/", { headers: { Host: "rebound.example" } })).status()).toBe(421);
  await page.reload();
  await expect(page.getByRole("heading", { level: 1, name: "Ours" })).toBeVisible();

  const { "content-security-policy": policy = "", ...headers } = (await request.get("/")).headers();
  expect(policy).toMatch(/script-src 'self' 'nonce-[\w+/=]+';/);
  expect(policy).not.toMatch(/unsafe-eval|script-src[^;]*unsafe-inline|style-src [^;]*unsafe-inline/);
  expect(headers).toMatchObject({
    "x-content-type-options": "nosniff",
    "x-frame-options": "DENY",
    "referrer-policy": "same-origin",
  });
});

test(
  "what somebody typed as a name is text in a chart, wherever the mouse points; and would not run if it were more",
  long,
  async ({ page }) => {
    await page.addInitScript(() => Object.assign(window, { ran: 0 }));
    await openRun(page, "phosphate-as-molybdenum-blue", "Names");
    await takeUsualWavelength(page, 880, "Read the standards");
    await read(page, "Blank", "0.001");
    await page.getByRole("button", { name: "A class’s readings …" }).click();
    const evil = "<img src=x onerror=window.ran=1>";
    const rows = [0, 2, 4, 6, 8, 10].map(
      (ml) => `${ml}.00\t${(0.07 * ml).toFixed(3)}\t${(0.07 * ml + 0.002).toFixed(3)}`,
    );
    await page
      .getByRole("textbox", { name: "Table" })
      .fill(["mL", evil, "B"].join("\t") + "\n" + rows.join("\n"));
    await page.getByRole("button", { name: "Take 12 readings" }).click();
    await expect(page.getByRole("dialog")).toBeHidden();
    const chart = page.getByRole("region", { name: "Chart of the line" }).locator("[data-ready=true]");
    await expect(chart).toBeVisible();
    await atRest(page);
    const box = (await chart.boundingBox())!;
    // Over the whole chart, so that every point is pointed at.
    for (let x = 0.08; x < 0.98; x += 0.03)
      for (let y = 0.04; y < 0.96; y += 0.04)
        await page.mouse.move(box.x + x * box.width, box.y + y * box.height);
    expect(await page.locator("img[src=x]").count()).toBe(0);
    // Were it ever written as HTML, the policy would still not let it run.
    await page.evaluate(
      (html) => {
        const place = document.createElement("div");
        document.body.append(place);
        place.innerHTML = html;
        return new Promise((resolve) => place.querySelector("img")!.addEventListener("error", resolve));
      },
      evil.replace("window.ran=1", "window.ran=2"),
    );
    expect(await page.evaluate(() => (window as unknown as { ran: number }).ran)).toBe(0);
    test.info().annotations.push({ type: "policy", description: "asked for on purpose" });
  },
);

test("standards read before the drop is measured are taken; their run opens again, and counts them once it is", async ({
  page,
}) => {
  await openRun(page, "ethanol-by-dichromate", "Drops later");
  const stages = page.getByRole("list", { name: "Stages" });
  await stages.getByRole("link", { name: /Read the standards/ }).click();
  await read(page, "Blank", "0.000");
  await read(page, "Flask with 0 (drops of the stock)", "0.001");
  await read(page, "Flask with 5 (drops of the stock)", "0.181");
  await expect(
    page.getByText(/Volume of a drop is not known yet: finish the stage “?"?Measure a drop/).first(),
  ).toBeVisible();
  await page.reload();
  await expect(page.getByText(/Volume of a drop is not known yet/).first()).toBeVisible();
  await expect(page.getByText("0.181").first()).toBeVisible();
});

test("a change on which the server fails is set aside with what depends on it, and the rest goes on", async ({
  page,
}) => {
  await startRun(page, "Set aside");
  const sent: string[] = [];
  await page.route("**/changes", async (route) => {
    const { text, symbol } = route.request().postDataJSON() as { text?: string; symbol?: string };
    sent.push(text ?? "");
    // The server fails on whatever belongs to this flask, and on nothing else.
    if (symbol === "m") return route.fulfill({ status: 500, body: "failed" });
    await route.continue();
  });
  const boat = page.getByRole("textbox", { name: "Boat with solid, g" });
  await boat.fill("2.6106");
  await boat.press("Enter");
  const after = page.getByRole("textbox", { name: "Boat after transfer, g" });
  await after.fill("2.1000");
  await after.press("Enter");
  const kept = page.getByRole("region", { name: "Kept in this browser" });
  await expect(kept).toContainText("Boat with solid", { timeout: 60_000 });
  await expect(kept).toContainText(/2\.6106, was not accepted: The server failed on this change/, {
    timeout: 60_000,
  });
  await expect(kept).toContainText(
    /2\.1000, was not accepted: It depends on a reading that the server could not save/,
  );
  expect(sent.filter((text) => text === "2.6106")).toHaveLength(4);
  expect(sent).not.toContain("2.1000");
  // Another run, and another change of this one, are not held up.
  await page.unroute("**/changes");
  await page.getByRole("button", { name: "Send it again" }).first().click();
  await expect(page.getByRole("button", { name: "Correct Boat with solid" })).toBeVisible();
  await page.getByRole("button", { name: "Send it again" }).click();
  await expect(kept).toBeHidden();
  await expect(page.getByText("0.5106 g")).toBeVisible();
});

for (const [what, spoil] of [
  [
    "full",
    () =>
      (Storage.prototype.setItem = () => {
        throw new DOMException("full", "QuotaExceededError");
      }),
  ],
  [
    "forbidden",
    () =>
      Object.defineProperty(window, "localStorage", {
        get: () => {
          throw new DOMException("denied", "SecurityError");
        },
      }),
  ],
] as const) {
  test(`where the browser's storage is ${what}, typing goes on, and it is told`, async ({ page }) => {
    await page.addInitScript(spoil);
    await startRun(page, `Storage ${what}`);
    await typeReadings(page, [...weighing("2.6106", "2.1000"), ...titration("0.00", "25.00")]);
    await expect(page.getByRole("region", { name: "Ledger" })).toContainText("25.00");
    await page.getByRole("textbox", { name: "Boat with solid, g" }).fill("2.59");
    await expect(page.getByRole("textbox", { name: "Boat with solid, g" })).toHaveValue("2.59");
    await expect(
      page.getByText(/This browser cannot keep drafts: its storage is full or blocked/),
    ).toBeVisible();
  });
}

test("storage that is cleared while someone types is noticed, and put back", async ({ page }) => {
  await startRun(page, "Cleared");
  const boat = page.getByRole("textbox", { name: "Boat with solid, g" });
  await boat.fill("2.61");
  await page.evaluate(() => window.localStorage.clear());
  await boat.press("End");
  await page.keyboard.type("06");
  await expect(page.getByText(/storage was cleared/)).toBeVisible();
  await expect(boat).toHaveValue("2.6106");
  await page.reload();
  await expect(boat).toHaveValue("2.6106");
});

test("readings that wait when the browser's database is cleared are put back, and those after them are added", async ({
  page,
}) => {
  await startRun(page, "Cleared while waiting");
  await page.route("**/changes", (route) => route.abort());
  const kept = page.getByRole("region", { name: "Kept in this browser" });
  await typeReadings(page, weighing("2.6106", "2.1000").slice(0, 1));
  await expect(kept).toContainText("2.6106");
  await page.evaluate(
    () =>
      new Promise<void>((resolve, reject) => {
        const gone = indexedDB.deleteDatabase("steady-bead");
        gone.onsuccess = () => resolve();
        gone.onerror = () => reject(new Error("not deleted"));
      }),
  );
  await typeReadings(page, weighing("2.6106", "2.1000").slice(1));
  await expect(kept).toContainText("2 changes are waiting");
  await page.reload();
  await expect(kept).toContainText("2.6106");
  await expect(kept).toContainText("2.1000");
  await page.unroute("**/changes");
  await expect(kept).toBeHidden({ timeout: 60_000 });
  await expect(page.getByText("0.5106 g")).toBeVisible();
});

test("what is too much is told, and taken by nobody", async ({ request, page }) => {
  await startRun(page, "Limits");
  const changes = `${new URL(page.url()).pathname}/changes`;
  const json = { "Content-Type": "application/json" };
  const huge = await request.post(changes, { data: "x".repeat(2 * 1024 * 1024 + 1), headers: json });
  expect([huge.status(), await huge.text()]).toEqual([413, expect.stringContaining("At most 2 MB")]);
  const file = await request.post("/methods/import.data", {
    form: { text: `[${"{},".repeat(300_000)}{}]` },
  });
  expect([file.status(), (await file.text()).includes("longer than 500,000 characters")]).toEqual([
    400,
    true,
  ]);
  // Streams of one device.
  const streams = Array.from({ length: 5 }, () => new AbortController());
  const opened = await page.evaluate(async (n) => {
    const answers = await Promise.all(
      Array.from({ length: n }, () => fetch("/live?device=one").then((r) => r.status)),
    );
    return answers.sort();
  }, streams.length);
  expect(opened).toEqual([200, 200, 200, 200, 429]);
});

test("who changed the house rules, what and why stands in the lab's trail, and goes out as a table", async ({
  page,
  request,
}) => {
  await page.goto("/house-rules");
  await page.getByRole("textbox", { name: "Within, mL" }).fill("0.15");
  await page.getByRole("button", { name: "Save house rules" }).click();
  await expect(page.getByText("Say who: initials, or a bench")).toBeVisible();
  await expect(page.getByText("Say why", { exact: true })).toBeVisible();
  await saveRules(page);
  await expect(page.getByText("Saved. Runs begun from now on follow them.")).toBeVisible();
  await page.getByRole("link", { name: "Lab", exact: true }).click();
  await page.getByRole("link", { name: "Trail of the lab" }).click();
  const line = page.getByRole("row", { name: /house rules changed/ }).first();
  await expect(line).toContainText("AB");
  await expect(line).toContainText("Within, mL: 0.10");
  await expect(line).toContainText("Within, mL: 0.15");
  await expect(line).toContainText("for a test");
  const csv = await (await request.get("/trail/export?format=csv&about=house+rules")).text();
  expect(csv.split("\r\n")[0]).toBe(
    "number,received,stated time,about,of,id,who,what,from,to,why,undone,undone by,received from",
  );
  expect(csv).toContain('"Within, mL: 0.15"');
  await page.goto("/house-rules");
  await page.getByRole("textbox", { name: "Within, mL" }).fill("0.10");
  await saveRules(page);
  await expect(page.getByText("Saved. Runs begun from now on follow them.")).toBeVisible();
});

test("a hundred malformed requests and as many well-formed ones over all methods: none fails the server, and what was refused changed nothing", async () => {
  test.setTimeout(600_000);
  const report = await fuzz(100, 4186, 14, () => undefined);
  expect(report.faults).toEqual([]);
  expect(report.malformed).toBe(100);
  expect(report.wellFormed).toBeGreaterThan(50);
  // Most of what makes sense is taken, and most of what does not is refused: else nothing would be tried.
  expect(report.taken).toBeGreaterThan(15);
  expect(report.statuses["400"] ?? 0).toBeGreaterThan(30);
});

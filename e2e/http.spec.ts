import { expect, startRun, test } from "./app";

test("requests that make no sense are refused and change nothing", async ({ page, request }) => {
  await startRun(page, "Requests");
  const address = new URL(page.url()).pathname;
  const changes = `${address}/changes`;
  const uuid = "01930000-0000-7000-8000-000000000001";
  const reading = {
    intent: "observe",
    id: uuid,
    stageKey: "standardize",
    trial: { id: "01930000-0000-7000-8000-000000000002", kind: "fine" },
    symbol: "V",
    kind: "burette.initial",
    text: "0.10",
    supersedes: null,
    reason: null,
  };
  const post = async (to: string, data: unknown) => {
    const text = typeof data === "string" ? data : JSON.stringify(data);
    const answer = await request.post(to, { data: text, headers: { "Content-Type": "application/json" } });
    return [answer.status(), (await answer.text()).includes('"status":"done"')];
  };
  expect(await post(changes, "{ not json")).toEqual([400, false]);
  expect(await post(changes, "")).toEqual([400, false]);
  expect(await post(changes, { intent: "observe" })).toEqual([400, false]);
  expect(await post(changes, { ...reading, symbol: undefined })).toEqual([400, false]);
  expect(await post(changes, { ...reading, symbol: "W" })).toEqual([400, false]);
  expect(await post(changes, { ...reading, text: "0.1" })).toEqual([422, false]);
  expect(await post(changes, { intent: "strike", trialId: uuid, reason: "not of this run" })).toEqual([
    404,
    false,
  ]);
  expect(await post(`/runs/${uuid}/changes`, reading)).toEqual([404, false]);
  expect(await post("/runs/none/changes", reading)).toEqual([404, false]);
  await page.reload();
  await expect(page.getByText("Trials appear here, reading by reading.")).toBeVisible();
  expect(
    (await request.post("/?index", { form: { intent: "start", methodId: "none", title: "x" } })).status(),
  ).toBe(400);
  expect(await post(changes, reading)).toEqual([200, true]);

  for (const missing of [`/runs/${uuid}`, "/runs/nonsense", `/runs/${uuid}/working`, "/nowhere"]) {
    const answer = await page.goto(missing);
    expect(answer?.status()).toBe(404);
    await expect(page.getByRole("heading", { name: "Not found" })).toBeVisible();
  }
  await page.getByRole("link", { name: "Back to the bench" }).click();
  await expect(page.getByRole("heading", { name: "On the bench", exact: true })).toBeVisible();
});

test("the shelf and the library refuse what makes no sense, by field or by path, and change nothing", async ({
  request,
}) => {
  const json = async (to: string, data: unknown) => {
    const text = typeof data === "string" ? data : JSON.stringify(data);
    const answer = await request.post(`${to}.data`, {
      data: text,
      headers: { "Content-Type": "application/json" },
    });
    return [answer.status(), await answer.text()] as const;
  };
  const bottle = {
    intent: "add",
    form: "solution",
    formula: "NaOH",
    name: "base of requests",
    how: "nominal",
    value: "0.1",
    plusMinus: "",
    person: "bench 1",
    amount: "",
    restandardizeBy: "",
    hazards: "",
    note: "",
  };
  const shelf = async () => (await (await request.get("/shelf")).text()).split("base of requests").length;
  const before = await shelf();
  for (const [data, words] of [
    ["{ half", "form"],
    [{}, "form"],
    [{ ...bottle, person: "" }, "Say who"],
    [{ ...bottle, formula: "Xq" }, "Xq"],
    [{ ...bottle, value: "-1" }, "Give a number above zero"],
    [{ ...bottle, extra: 1 }, "form"],
    [[bottle, { ...bottle, name: "" }], "Give it a name"],
  ] as const) {
    const [status, text] = await json("/shelf/new", data);
    expect([status, text.includes(words)]).toEqual([400, true]);
  }
  expect(await shelf()).toBe(before);

  const exported = await request.get("/methods/water-hardness/export");
  expect(exported.headers()["content-disposition"]).toMatch(
    /^attachment; filename="water-hardness-\d+\.json"$/,
  );
  const method = (await exported.json()) as { id: string; title: string };
  const give = async (to: string, form: Record<string, string>) => {
    const answer = await request.post(`${to}.data`, { form });
    return [answer.status(), await answer.text()] as const;
  };
  // What ships stays as it is: it cannot be saved over, and from a file it comes in beside it.
  const [refused, why] = await give("/methods/water-hardness/edit", {
    method: JSON.stringify(method),
    person: "AB",
    reason: "to see",
  });
  expect([refused, why.includes("save a copy")]).toEqual([400, true]);
  for (const text of ["", "[]", '{"title": "x"}']) {
    const [status, answer] = await give("/methods/import", { text });
    expect([status, answer.includes("problems")]).toEqual([400, true]);
  }
  const taken = await request.post("/methods/import", {
    form: { text: JSON.stringify({ ...method, title: "Hardness, brought in" }) },
  });
  expect([taken.status(), (await taken.text()).includes("Hardness, brought in")]).toEqual([200, true]);
  expect(((await (await request.get("/methods/water-hardness/export")).json()) as typeof method).title).toBe(
    method.title,
  );
});

test("nothing is fetched from elsewhere, and every page is whole without it", async ({ page, app }) => {
  const elsewhere: string[] = [];
  page.on("request", (asked) => {
    if (!asked.url().startsWith(app.url) && !asked.url().startsWith("data:")) elsewhere.push(asked.url());
  });
  await startRun(page, "Alone");
  await page.goto(`${new URL(page.url()).pathname}/working`);
  await expect(page.getByText("There is no complete trial yet")).toBeVisible();
  for (const path of [
    "/house-rules",
    "/methods",
    "/methods/kappa-number",
    "/shelf",
    "/shelf/labels",
    "/calculate",
  ]) {
    await page.goto(path);
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
  }
  expect(
    await page.evaluate(() =>
      document.fonts.ready.then(() => document.fonts.check('16px "Atkinson Hyperlegible Next Variable"')),
    ),
  ).toBe(true);
  expect(elsewhere).toEqual([]);
});

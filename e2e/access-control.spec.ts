import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { v7 as newId } from "uuid";
import routes from "../app/routes";
import { routeAccess } from "../app/access/route-access";
import { defaultHouseRules } from "../catalog/rules/defaults";
import { beginRun } from "../scripts/app-server";
import { expect, follow, noGraveFaults, test } from "./app";
import { shortLived } from "./lab-template";
import { tool } from "./tool";

/* Who may see and do what, once a passphrase is set: over all addresses that there are. */

const instructorWords = "otter kelp burette seven";
const assistantWords = "urchin flask eleven";

/** Digits that stand nowhere but in what was planted. */
const planted = { title: "Planted 402817365529", sample: "S-402817944103", bench: "Bench 402817" };

interface Address {
  readonly id: keyof typeof routeAccess;
  readonly path: string;
}

/** Every address of the application, with ids of things that are there. */
const addresses = (fill: Readonly<Record<string, string>>): Address[] =>
  routes.flatMap(({ file, path: pattern = "" }) => {
    const id = file.replace(/\.tsx?$/, "") as keyof typeof routeAccess;
    const filled = pattern.replace(/:(\w+)|\*/g, (_all, name: string | undefined) => {
      const value = fill[name ?? "nowhere"];
      if (value === undefined) throw new Error(`Nothing stands for ${name} in ${pattern}`);
      return value;
    });
    return [{ id, path: `/${filled}` }];
  });

test("once a passphrase is set, strangers see nothing and assistants what is theirs, at every address there is", async ({
  page,
}) => {
  test.setTimeout(240_000);
  const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-access-"));
  const server = shortLived(folder, 4179);
  const { url } = server;
  /** As a browser asks, with the cookie of a session where there is one. */
  const ask = async (at: string, cookie = "", init: RequestInit = {}) => {
    const answer = await fetch(url + at, {
      ...init,
      redirect: "manual",
      headers: { Origin: url, Cookie: cookie, Accept: "text/html,*/*", ...init.headers },
    });
    return { status: answer.status, to: answer.headers.get("location"), answer };
  };
  const change = (cookie: string, at: string) =>
    ask(at, cookie, {
      method: "POST",
      headers: { "Content-Type": "application/json", Accept: "application/json" },
      body: JSON.stringify({ intent: "rename", title: "Theirs", sample: "", bench: "" }),
    });
  const signedIn = async (passphrase: string) => {
    const body = new URLSearchParams({ passphrase });
    const { status, answer } = await ask("/sign-in", "", { method: "POST", body });
    expect(status).toBe(302);
    const cookie = answer.headers.get("set-cookie") ?? "";
    expect(cookie).toMatch(/HttpOnly; SameSite=Lax/);
    return cookie.split(";")[0] ?? "";
  };
  try {
    await server.start();
    const runId = await beginRun(url, "base-by-phthalate-then-acid", planted.title, planted);
    const set = (words: string, ...args: readonly string[]) =>
      tool("passphrase", args, { DATA_DIR: folder }, `${words}\n`);
    expect((await set("too short")).output).toMatch(/^At least 10 characters/);
    expect((await set(assistantWords, "--assistant")).output).toMatch(
      /^Set the passphrase of the instructors/,
    );
    expect(await set(instructorWords)).toMatchObject({ code: 0 });
    expect(await set(assistantWords, "--assistant")).toMatchObject({ code: 0 });

    const all = addresses({
      ...{ runId, methodId: "water-hardness", solutionId: newId(), seriesId: newId(), format: "json" },
      nowhere: "nowhere",
    });
    expect(all.map(({ id }) => id).sort()).toEqual(
      Object.keys(routeAccess)
        .filter((id) => id !== "root")
        .sort(),
    );
    const assistant = await signedIn(assistantWords);
    const wrong: string[] = [];
    for (const { id, path: at } of all) {
      const { look, change: needed } = routeAccess[id];
      for (const asPage of [true, false]) {
        const found = await ask(at, "", asPage ? {} : { headers: { Accept: "application/json" } });
        const text = await found.answer.text();
        if (/402817/.test(text)) wrong.push(`a stranger reads it at ${at}`);
        const refused = asPage ? found.to?.startsWith("/sign-in?next=") === true : found.status === 401;
        if (at !== "/sign-in" && !refused) wrong.push(`a stranger is answered ${found.status} at ${at}`);
      }
      const dataOf = await ask(`${at === "/" ? "/_root" : at}.data`);
      if (/402817/.test(await dataOf.answer.text())) wrong.push(`a stranger reads it in the data of ${at}`);
      const posted = await change("", at);
      if (at !== "/sign-in" && posted.status !== 401)
        wrong.push(`a stranger posts to ${at}: ${posted.status}`);
      const theirs = await ask(at, assistant);
      const text = await theirs.answer.text();
      if ((theirs.status === 403) !== (look === "instructor") && !["routes/sign-out"].includes(id))
        wrong.push(`an assistant is answered ${theirs.status} at ${at}`);
      if (look === "instructor" && /402817/.test(text)) wrong.push(`an assistant reads it at ${at}`);
      if (needed === "instructor") {
        const { status } = await change(assistant, at);
        if (status !== 403 && status !== 405) wrong.push(`an assistant posts to ${at}: ${status}`);
      }
    }
    expect(wrong).toEqual([]);
    for (const Accept of ["text/event-stream", "text/html,*/*"])
      expect((await ask("/live", "", { headers: { Accept } })).status).toBe(401);
    const rules = { intent: "rules", rules: defaultHouseRules, reason: "theirs" };
    const ownRules = {
      method: "POST",
      body: JSON.stringify(rules),
      headers: { "Content-Type": "application/json" },
    };
    expect((await ask(`/runs/${runId}/changes`, assistant, ownRules)).status).toBe(403);
    const stream = (await ask("/live", assistant)).answer.body!.getReader();
    // What was planted is where it belongs.
    expect(await (await ask(`/runs/${runId}/state`, assistant)).answer.text()).toContain("402817");
    expect((await ask(`/runs/${runId}`, `${assistant}x`)).to).toMatch(/^\/sign-in/);

    await test.step("on the screen: sign in, see who is in, end a session, sign out", async () => {
      const own = follow(page);
      await own.goto(`${url}/shelf`);
      await expect(own).toHaveURL(/\/sign-in\?next=%2Fshelf/);
      await noGraveFaults(own, "signing in");
      await own.getByLabel("Passphrase").fill("not this one at all");
      await own.getByLabel("Passphrase").press("Enter");
      await expect(own.getByText("This is not the passphrase.")).toBeVisible();
      await own.getByLabel("Passphrase").fill(instructorWords);
      await own.getByLabel("Passphrase").press("Enter");
      await expect(own).toHaveURL(/\/shelf$/);
      await own.goto(`${url}/access`);
      await expect(own.getByTestId("session")).toHaveCount(2);
      await noGraveFaults(own, "access");
      await own.getByRole("button", { name: "End it" }).click();
      await expect(own.getByTestId("session")).toHaveCount(1);
      expect((await ask(`/runs/${runId}`, assistant)).to).toMatch(/^\/sign-in/);
      // What they had open hears no more.
      let over = false;
      while (!over)
        over = await stream.read().then(
          ({ done }) => done,
          () => true,
        );
      const theirs = own.getByRole("region", { name: "Assistants" });
      await theirs.getByLabel("New passphrase").fill("limpet");
      await theirs.getByRole("button", { name: "Change their passphrase" }).click();
      await expect(theirs.getByText(/^At least 10 characters: /)).toBeVisible();
      await theirs.getByLabel("New passphrase").fill("limpet retort nine");
      await theirs.getByLabel("Type it again").fill("limpet retort eight");
      await theirs.getByRole("button", { name: "Change their passphrase" }).click();
      await expect(theirs.getByText("This differs from the first one.")).toBeVisible();
      await theirs.getByLabel("Type it again").fill("limpet retort nine");
      await theirs.getByRole("button", { name: "Change their passphrase" }).click();
      await expect(own.getByText("Set. Everybody else is signed out, and signs in with it.")).toBeVisible();
      const again = await signedIn("limpet retort nine");
      const shelf = await (await ask("/methods", again)).answer.text();
      expect(shelf).not.toMatch(/Make a method|>House rules</);
      expect(shelf).toContain(">Shelf<");
      await own.getByRole("button", { name: "Sign out" }).click();
      await expect(own.getByRole("heading", { name: "Sign in", level: 1 })).toBeVisible();
      await own.goto(`${url}/runs/${runId}`);
      await expect(own).toHaveURL(/\/sign-in/);
    });
  } finally {
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});

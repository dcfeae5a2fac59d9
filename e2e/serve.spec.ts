import { spawn } from "node:child_process";
import { connect } from "node:net";
import { networkInterfaces } from "node:os";
import { expect, test } from "./app";

/** Starts the built server as a command and tells how it ended. */
async function runServer(env: Record<string, string>): Promise<{ code: number | null; output: string }> {
  const child = spawn(process.execPath, ["scripts/serve.mjs"], {
    env: { ...process.env, HOST: "127.0.0.1", NODE_ENV: "production", ...env },
  });
  let output = "";
  for (const stream of [child.stdout, child.stderr])
    stream.on("data", (text: Buffer) => (output += text.toString()));
  const code = await new Promise<number | null>((resolve) => child.once("exit", resolve));
  return { code, output: output };
}

test("a second server on the same data folder is refused with a clear message, and harms nothing", async ({
  app,
  page,
}) => {
  const { code, output: output } = await runServer({ DATA_DIR: app.folder, PORT: "4181" });
  expect(code).toBe(1);
  expect(output).toMatch(/The data folder .* is in use by process \d+\. Stop that server first/);
  expect(output).not.toMatch(/\n\s+at /);
  await page.goto("/");
  await expect(page.getByRole("heading", { level: 1, name: "On the bench" })).toBeVisible();
});

test("a port that is taken is told, not thrown", async ({ app }, info) => {
  const folder = info.outputPath("other-folder");
  const { code, output: output } = await runServer({ DATA_DIR: folder, PORT: String(app.port) });
  expect(code).toBe(1);
  expect(output).toContain(`Cannot listen on 127.0.0.1:${app.port}`);
});

test("the server answers this machine alone unless told otherwise", async ({ app }) => {
  const outside = Object.values(networkInterfaces())
    .flat()
    .find((address) => address && !address.internal && address.family === "IPv4")?.address;
  test.skip(outside === undefined, "this machine has no address but its own");
  const reached = (host: string) =>
    new Promise<boolean>((resolve) => {
      const socket = connect({ host, port: app.port, timeout: 2000 });
      const end = (answer: boolean) => {
        socket.destroy();
        resolve(answer);
      };
      socket.once("connect", () => end(true));
      socket.once("error", () => end(false));
      socket.once("timeout", () => end(false));
    });
  expect(await reached("127.0.0.1")).toBe(true);
  expect(await reached(outside ?? "")).toBe(false);
});

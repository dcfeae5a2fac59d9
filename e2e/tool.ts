import { execFile } from "node:child_process";

/** One of the tools at the terminal, as bin/ starts it, with what is typed into it. */
export const tool = (
  command: string,
  args: readonly string[],
  env: Readonly<Record<string, string>>,
  typed = "",
) =>
  new Promise<{ code: number; output: string }>((resolve) => {
    const child = execFile(
      process.execPath,
      ["--import", "tsx", "scripts/maintenance.ts", command, ...args],
      { env: { ...process.env, ...env } },
      (error, stdout, stderr) =>
        resolve({ code: error ? Number(error.code ?? 1) : 0, output: stdout + stderr }),
    );
    child.stdin?.end(typed);
  });

import { json, type RequestHandler, Router } from "express";
import { replacedWords, RestoreError } from "../backup/restore";
import { BackupError } from "../backup/make";
import { restoreOneRun, restoreOpenLab } from "./exchange";
import { inEnglish } from "../../core/text";
import { problemOfPassphrase } from "../../protocol/access";
import { NoSignInError, setPassphrase } from "../access/door";
import { database, dataFolder } from "../lab/current";
import { backUp, look } from "./health";
import { isToken } from "./token";

let token: string | null = null;

/** From now on tools that know this token are answered. */
export const acceptToken = (given: string | null): void => {
  token = given;
};

const withToken: RequestHandler = (request, response, next) => {
  if (isToken(request.headers.authorization, token)) next();
  else response.status(403).json({ message: "The token of this server is missing" });
};

interface Asked {
  readonly which?: string;
  readonly runId?: string;
  readonly role?: string;
  readonly passphrase?: string;
}

/** What the tools at the terminal ask of a server that runs: `bin/backup`, `bin/restore`, `bin/check` and `bin/passphrase`. */
export function maintenance(): Router {
  const router = Router();
  router.use(withToken, json({ limit: "10kb" }));
  const answered = (path: string, work: (asked: Asked) => Promise<unknown>) =>
    router.post(path, (request, response, next) => {
      work((request.body ?? {}) as Asked).then(
        (found) => response.json(found),
        (error: unknown) => {
          if (error instanceof RestoreError || error instanceof BackupError || error instanceof NoSignInError)
            response.status(422).json({ message: error.message });
          else next(error);
        },
      );
    });
  answered("/backup", async () => {
    const { name, file, bytes, verified } = await backUp("by hand");
    return { name, file, bytes, verified };
  });
  answered("/restore", async ({ which = "latest" }) => ({
    message: replacedWords(await restoreOpenLab(which, 1)),
  }));
  answered("/restore-run", async ({ which = "latest", runId = "" }) => ({
    message: `The run "${await restoreOneRun(which, runId, "")}" is back.`,
  }));
  answered("/check", () => look("all"));
  answered("/passphrase", async ({ role, passphrase = "" }) => {
    const problem = problemOfPassphrase(passphrase);
    if (problem) throw new RestoreError(inEnglish(problem));
    const lab = { db: await database(), folder: dataFolder() };
    await setPassphrase(lab, role === "assistant" ? "assistant" : "instructor", passphrase, null);
    return {};
  });
  return router;
}

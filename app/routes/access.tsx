import { data } from "react-router";
import { msg } from "~/core/text";
import { type AccessAnswer, checkAccessRequest, problemOfPassphrase } from "~/protocol/access";
import { accessView, setPassphraseHere, takeSignInAway } from "~/server/access/door";
import { endSessions } from "~/server/access/sessions";
import { fromOf, labHere } from "../access/request.server";
import { AccessPage } from "../features/access/access-page";
import { viewerOfRequest } from "../request-context";
import { pageTitle } from "../words/page-title";
import type { Route } from "./+types/access";
import { jsonBody } from "./body.server";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Access`);

export async function loader({ context }: Route.LoaderArgs) {
  const viewer = context.get(viewerOfRequest);
  if (!viewer) throw new Response(null, { status: 401 });
  return accessView(await labHere(), viewer);
}

export async function action({ request, context }: Route.ActionArgs) {
  const asked = checkAccessRequest(await jsonBody(request));
  const answer = (fields: Partial<AccessAnswer>): AccessAnswer => ({ done: null, problem: null, ...fields });
  if (!asked.ok) return data(answer({ problem: asked.problem.message }), { status: 400 });
  const [lab, from] = [await labHere(), fromOf(request, context)];
  switch (asked.value.intent) {
    case "passphrase": {
      const { role, passphrase } = asked.value;
      const problem = passphrase === null ? undefined : problemOfPassphrase(passphrase);
      if (problem || (passphrase === null && role === "instructor"))
        return data(answer({ problem: problem ?? msg`An instructor's passphrase is needed` }), {
          status: 400,
        });
      const cookie = await setPassphraseHere(lab, role, passphrase, from);
      const done =
        passphrase === null
          ? msg`Assistants no longer have a passphrase, and are signed out.`
          : msg`Set. Everybody else is signed out, and signs in with it.`;
      return data(answer({ done }), { headers: { "Set-Cookie": cookie } });
    }
    case "end-session":
      await endSessions(lab.db, { id: asked.value.id }, new Date());
      return data(answer({ done: msg`That session has ended.` }));
    case "no-sign-in":
      if (!(await takeSignInAway(lab, from.address)))
        return data(answer({ problem: msg`Others reach this server: the sign-in stays` }), { status: 409 });
      return data(answer({ done: msg`Nobody signs in any more. Only this machine reaches the server.` }));
  }
}

export default function AccessRoute({ loaderData }: Route.ComponentProps) {
  return <AccessPage {...loaderData} />;
}

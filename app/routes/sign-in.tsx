import { data, redirect } from "react-router";
import { msg } from "~/core/text";
import { accessOf } from "~/server/access/access-file";
import { signIn } from "~/server/access/door";
import { dataFolder } from "~/server/lab/current";
import { fromOf, labHere } from "../access/request.server";
import { SignInPage } from "../features/access/sign-in-page";
import { viewerOfRequest } from "../request-context";
import { pageTitle } from "../words/page-title";
import type { Route } from "./+types/sign-in";
import { formTexts } from "./body.server";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Sign in`);

/** Where somebody wanted to go: a page of this server. */
const nextOf = (request: Request): string => {
  const next = new URL(request.url).searchParams.get("next") ?? "/";
  return /^\/(?![/\\])/.test(next) ? next : "/";
};

export function loader({ request, context }: Route.LoaderArgs) {
  if (context.get(viewerOfRequest)) throw redirect(nextOf(request));
  return { possible: accessOf(dataFolder()) !== null };
}

export async function action({ request, context }: Route.ActionArgs) {
  const { passphrase = "" } = await formTexts(request);
  if (passphrase === "") return data({ problem: msg`Type the passphrase` }, { status: 400 });
  const cookie = await signIn(await labHere(), passphrase, fromOf(request, context));
  if (cookie === null)
    return data(
      { problem: msg`This is not the passphrase. Each wrong one makes the next try wait longer.` },
      { status: 401 },
    );
  return redirect(nextOf(request), { headers: { "Set-Cookie": cookie } });
}

export default function SignIn({ loaderData, actionData }: Route.ComponentProps) {
  return <SignInPage possible={loaderData.possible} problem={actionData?.problem} />;
}

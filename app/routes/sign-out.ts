import { redirect } from "react-router";
import { signOut } from "~/server/access/door";
import { signInPath } from "~/server/http/signed-in";
import { labHere } from "../access/request.server";
import { viewerOfRequest } from "../request-context";
import type { Route } from "./+types/sign-out";

/** Asked for as a page, by who pressed Back: nobody is signed out by that. */
export const loader = () => redirect("/");

export async function action({ context }: Route.ActionArgs) {
  const viewer = context.get(viewerOfRequest);
  if (!viewer) return redirect(signInPath);
  return redirect(signInPath, { headers: { "Set-Cookie": await signOut(await labHere(), viewer) } });
}

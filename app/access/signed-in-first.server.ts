import { type MiddlewareFunction, redirect } from "react-router";
import { signInPath } from "~/server/http/signed-in";
import { viewerOfRequest } from "../request-context";

/** Who has not signed in is led to where they can, and from there to the page that they asked for. */
export const signedInFirst: MiddlewareFunction<Response> = ({ request, context }, next) => {
  const { pathname, search } = new URL(request.url);
  if (context.get(viewerOfRequest) || pathname === signInPath) return next();
  throw redirect(`${signInPath}?next=${encodeURIComponent(pathname + search)}`);
};

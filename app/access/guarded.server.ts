import type { MiddlewareFunction, ServerBuild } from "react-router";
import { msg } from "~/core/text";
import { viewerOfRequest } from "../request-context";
import { isEnough, routeAccess } from "./route-access";

const refusal = () =>
  Response.json(
    { status: "refused", message: msg`This is for instructors: sign in as one to go on` },
    { status: 403 },
  );

/** Lets those through to a route who may ask for it. */
const guard =
  ({ look, change }: (typeof routeAccess)[keyof typeof routeAccess]): MiddlewareFunction<Response> =>
  ({ request, context }, next) => {
    const isLook = request.method === "GET" || request.method === "HEAD";
    const role = context.get(viewerOfRequest)?.role ?? null;
    if (!isEnough(role, isLook ? look : change)) throw refusal();
    return next();
  };

/**
 * The pages of the application with who may ask for each checked before anything else of it is done, in this one place. Throws for a route of
 * which nobody has said who that is: such a server does not start.
 */
export function guarded(build: ServerBuild): ServerBuild {
  const entries = Object.entries(build.routes).flatMap(([id, route]) => {
    if (!route) return [];
    const access = Object.hasOwn(routeAccess, id) ? routeAccess[id as keyof typeof routeAccess] : null;
    if (!access) throw new Error(`Nobody has said who may ask for ${id}: see app/access/route-access.ts`);
    const own: MiddlewareFunction<Response>[] =
      (route.module as { middleware?: MiddlewareFunction<Response>[] }).middleware ?? [];
    // Who has not signed in is led to where they can by the root, before its routes refuse them.
    const middleware = [...own, guard(access)];
    return [{ ...route, module: { ...route.module, middleware } }];
  });
  return { ...build, routes: Object.fromEntries(entries.map((route) => [route.id, route])) };
}

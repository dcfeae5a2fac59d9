import type { LoaderFunctionArgs, MiddlewareFunction, ServerBuild } from "react-router";
import { viewerOfRequest } from "../request-context";
import { forInstructors } from "./for-instructors.server";
import { isEnough, routeAccess } from "./route-access";

type Module = NonNullable<ServerBuild["routes"][string]>["module"];
type Access = (typeof routeAccess)[keyof typeof routeAccess];

/** Throws the answer 403 to whoever may not ask for this. */
function mustBeEnough(
  { look, change }: Access,
  { request, context }: Pick<LoaderFunctionArgs, "request" | "context">,
) {
  const isLook = request.method === "GET" || request.method === "HEAD";
  if (isEnough(context.get(viewerOfRequest)?.role ?? null, isLook ? look : change)) return;
  throw forInstructors();
}

/**
 * A page refuses in its loader and its action, so that what stands around it is shown; one that loads nothing gets a loader for that. What answers
 * programs refuses before anything else.
 */
function guardedModule(module: Module, access: Access): Module {
  const { loader, action } = module;
  if (!module.default) {
    const guard: MiddlewareFunction<Response> = (args, next) => {
      mustBeEnough(access, args);
      return next();
    };
    const { middleware = [] } = module as { middleware?: MiddlewareFunction<Response>[] };
    return { ...module, middleware: [guard, ...middleware] };
  }
  return {
    ...module,
    loader: (args) => {
      mustBeEnough(access, args);
      return loader ? loader(args) : null;
    },
    ...(action
      ? {
          action: (args) => {
            mustBeEnough(access, args);
            return action(args);
          },
        }
      : {}),
  };
}

/**
 * The pages of the application with who may ask for each checked before anything of it is done, in this one place. Throws for a route of which
 * nobody has said who that is: such a server does not start.
 */
export function guarded(build: ServerBuild): ServerBuild {
  const routes = Object.values(build.routes).flatMap((route) => {
    if (!route) return [];
    const { id } = route;
    const access = Object.hasOwn(routeAccess, id) ? routeAccess[id as keyof typeof routeAccess] : null;
    if (!access) throw new Error(`Nobody has said who may ask for ${id}: see app/access/route-access.ts`);
    return [{ ...route, module: guardedModule(route.module, access) }];
  });
  return { ...build, routes: Object.fromEntries(routes.map((route) => [route.id, route])) };
}

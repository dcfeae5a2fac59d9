import { data } from "react-router";
import { methods as shipped } from "~/catalog/methods";
import type { Method } from "~/core/run";
import { database } from "~/server/database/current";
import { findMethod } from "~/server/repositories/methods";

/** True for a method that ships with the product. */
export const isShipped = (id: string): boolean => shipped.some((m) => m.id === id);

/** The method of an address, in the version that it asks for; else the 404 page. */
export async function methodFrom(params: { methodId: string }, request: Request): Promise<Method> {
  const asked = new URL(request.url).searchParams.get("version");
  const version = asked !== null && /^\d{1,6}$/.test(asked) ? Number(asked) : undefined;
  const method = await findMethod(await database(), params.methodId, version);
  if (!method) throw data("There is no such method.", { status: 404 });
  return method;
}

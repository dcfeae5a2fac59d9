import { database } from "~/server/lab/current";
import { isRetired, listMethods, runsBy, versionsOf } from "~/server/queries/methods";
import { MethodPage } from "../features/methods/method-page";
import type { Route } from "./+types/method";
import { isShipped, methodFrom } from "./method.server";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.method.title ?? "Method"} · Steady Bead` },
];

export async function loader({ params, request }: Route.LoaderArgs) {
  const method = await methodFrom(params, request);
  const db = await database();
  const head = method.variant?.of ?? method.id;
  const otherWays = (await listMethods(db))
    .filter(({ id, data }) => id !== method.id && (id === head || data.variant?.of === head))
    .map(({ id, title, data }) => ({ id, title, differs: data.variant?.differs ?? "the usual way" }));
  return {
    method,
    own: !isShipped(method.id),
    otherWays,
    versions: await versionsOf(db, method.id),
    runs: await runsBy(db, method.id),
    retired: await isRetired(db, method.id),
  };
}

export default function MethodRoute({ loaderData }: Route.ComponentProps) {
  return <MethodPage {...loaderData} />;
}

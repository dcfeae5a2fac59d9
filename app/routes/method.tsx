import { dropsPerMl } from "~/core/rules";
import { database } from "~/server/lab/current";
import { currentHouseRules } from "~/server/queries/house-rules";
import { findMethod, isRetired, listMethods, runsBy, versionsOf } from "~/server/queries/methods";
import { MethodPage } from "../features/methods/method-page";
import type { Route } from "./+types/method";
import { aliasOf, isShipped } from "~/catalog/methods";
import { labWords } from "~/server/queries/in-words";
import { methodToRead } from "./method.server";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ loaderData, matches }) =>
  pageTitle(matches, loaderData?.method.title ?? msg`Method`);

export async function loader({ params, request }: Route.LoaderArgs) {
  const method = await methodToRead(params, request);
  const db = await database();
  const words = await labWords(db);
  // A version that is asked for by its number is the method that once stood under the name of an alias.
  const alias = new URL(request.url).searchParams.has("version") ? null : aliasOf(method.id);
  const its = alias && (await findMethod(db, alias.of));
  const head = method.variant?.of ?? method.id;
  const otherWays = (await listMethods(db))
    .filter(({ id, data }) => id !== method.id && (id === head || data.variant?.of === head))
    .map(({ id, data }) => {
      const { title, variant } = words.method(data);
      return { id, title, differs: variant?.differs ?? msg`the usual way` };
    });
  const { data: rules } = await currentHouseRules(db);
  return {
    method,
    dropMl: 1 / Number(dropsPerMl(rules)),
    own: !isShipped(method.id),
    otherWays,
    versions: alias ? [method.version] : await versionsOf(db, method.id),
    begins: alias &&
      its && { id: its.id, title: words.method(its).title, differs: words.say({ message: alias.differs }) },
    runs: await runsBy(db, method.id),
    retired: alias === null && (await isRetired(db, method.id)),
  };
}

export default function MethodRoute({ loaderData }: Route.ComponentProps) {
  return <MethodPage {...loaderData} />;
}

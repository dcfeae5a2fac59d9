import { isShipped } from "~/catalog/methods";
import { database } from "~/server/lab/current";
import { labWords } from "~/server/queries/in-words";
import { listMethods } from "~/server/queries/methods";
import { type MethodLine, MethodsPage } from "../features/methods/methods-page";
import type { Route } from "./+types/methods";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Methods`);

export async function loader(): Promise<{ methods: MethodLine[] }> {
  const db = await database();
  const words = await labWords(db);
  const all = (await listMethods(db)).map((entry) => ({ ...entry, data: words.method(entry.data) }));
  return {
    methods: all.map(({ id, data, retiredAt }) => ({
      id,
      title: data.title,
      purpose: data.purpose,
      family: data.family,
      equation: data.equations.at(-1)?.equation ?? "",
      variantOf: data.variant?.of ?? null,
      differs: data.variant?.differs ?? null,
      own: !isShipped(id),
      retired: retiredAt !== null,
      words: [
        data.title,
        data.purpose,
        data.family,
        ...Object.entries(data.substances).flat(),
        ...data.stages.flatMap((s) => (s.kind === "titration" ? [s.indicator] : [])),
      ]
        .join(" ")
        .toLowerCase(),
    })),
  };
}

export default function Methods({ loaderData }: Route.ComponentProps) {
  return <MethodsPage methods={loaderData.methods} />;
}

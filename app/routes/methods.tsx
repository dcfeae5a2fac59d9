import { methods as shipped } from "~/catalog/methods";
import { database } from "~/server/lab/current";
import { listMethods } from "~/server/queries/methods";
import { type MethodLine, MethodsPage } from "../features/methods/methods-page";
import type { Route } from "./+types/methods";

export const meta: Route.MetaFunction = () => [{ title: "Methods · Steady Bead" }];

export async function loader(): Promise<{ methods: MethodLine[] }> {
  const library = new Set(shipped.map((m) => m.id));
  const all = await listMethods(await database());
  return {
    methods: all.map(({ id, data, retiredAt }) => ({
      id,
      title: data.title,
      purpose: data.purpose,
      family: data.family,
      equation: data.equations.at(-1)?.equation ?? "",
      variantOf: data.variant?.of ?? null,
      differs: data.variant?.differs ?? null,
      own: !library.has(id),
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

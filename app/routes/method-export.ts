import { fileOfMethod } from "~/formats/concluded";
import type { Route } from "./+types/method-export";
import { methodFrom } from "./method.server";

/** A method as a file, as `formats/schemas/method.schema.json` describes it. */
export async function loader({ params, request }: Route.LoaderArgs) {
  const method = await methodFrom(params, request);
  return new Response(`${JSON.stringify(fileOfMethod(method), null, 2)}\n`, {
    headers: {
      "content-type": "application/json; charset=utf-8",
      "content-disposition": `attachment; filename="${method.id.replace(/[^\w-]/g, "_")}-${method.version}.json"`,
    },
  });
}

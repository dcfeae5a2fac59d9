/** Reads what a request brings, as what it says it is: a page elsewhere can send text, but not under these names. */

const unreadable = (status: number, message: string): Response =>
  Response.json({ status: "malformed", message }, { status });

const typeOf = (request: Request) =>
  (request.headers.get("Content-Type") ?? "").split(";")[0]?.trim().toLowerCase();

/** The body of a JSON request; undefined where it is no JSON. Throws the answer 415 where it does not say that it is. */
export async function jsonBody(request: Request): Promise<unknown> {
  if (typeOf(request) !== "application/json") throw unreadable(415, "Send it as application/json");
  try {
    return (await request.json()) as unknown;
  } catch {
    return undefined;
  }
}

const formTypes: readonly (string | undefined)[] = [
  "application/x-www-form-urlencoded",
  "multipart/form-data",
];

/** The texts of a form, by name. Throws the answer 415 for what is no form, and 400 for texts that no database keeps. */
export const formTexts = async (request: Request): Promise<Record<string, string>> =>
  textsOf(await formOf(request));

/** The same with a file that it brings; null where it brings none under this name. */
export async function formWithFile(
  request: Request,
  name: string,
): Promise<{ texts: Record<string, string>; file: File | null }> {
  const form = await formOf(request);
  const file = form.get(name);
  return { texts: textsOf(form), file: file instanceof File && file.name !== "" ? file : null };
}

async function formOf(request: Request): Promise<FormData> {
  if (!formTypes.includes(typeOf(request))) throw unreadable(415, "Send it as a form");
  const form = await request.formData().catch(() => null);
  if (!form) throw unreadable(400, "This form cannot be read");
  return form;
}

function textsOf(form: FormData): Record<string, string> {
  const texts = [...form].flatMap(([name, value]) =>
    typeof value === "string" ? [[name, value] as const] : [],
  );
  if (texts.some((entry) => entry.some((text) => text.includes("\0"))))
    throw unreadable(400, "This form holds a character that cannot be kept");
  return Object.fromEntries(texts);
}

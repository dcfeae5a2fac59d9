import { type TrailSubject, trailSubjects } from "~/formats/trail";

/** What of the lab's trail an address asks for. */
export function trailAsked(request: Request) {
  const search = new URL(request.url).searchParams;
  const query = (search.get("q") ?? "").slice(0, 200);
  const before = search.get("before") ?? "";
  const asked = search.get("about") ?? "";
  return {
    query,
    words: query.trim().split(/\s+/).filter(Boolean).slice(0, 10),
    about: trailSubjects.find((subject): subject is TrailSubject => subject === asked) ?? null,
    before: /^\d{1,15}$/.test(before) ? Number(before) : null,
  };
}

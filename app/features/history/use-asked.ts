import { useSearchParams } from "react-router";

/** What the address asks the history for, and how to ask for something else: `null` takes a part out, and the first page comes again. */
export function useAsked() {
  const [search, setSearch] = useSearchParams();
  const ask = (parts: Readonly<Record<string, string | null>>) =>
    setSearch(
      (now) => {
        const next = new URLSearchParams(now);
        if (!("page" in parts)) next.delete("page");
        for (const [name, value] of Object.entries(parts)) {
          if (value === null || value.trim() === "") next.delete(name);
          else next.set(name, value);
        }
        return next;
      },
      { preventScrollReset: true },
    );
  return { search, ask };
}

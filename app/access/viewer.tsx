import type { ReactNode } from "react";
import { useRouteLoaderData } from "react-router";
import type { Looking } from "~/protocol/access";

/** Who looks at this page; null where nobody has signed in, undefined where the page was not told, as on one that failed. */
export const useViewer = (): Looking | null | undefined =>
  useRouteLoaderData<{ readonly viewer: Looking | null }>("root")?.viewer;

/** What is of no use to others, who would be refused. */
export function ForInstructors({ children }: { readonly children: ReactNode }) {
  const viewer = useViewer();
  return viewer === undefined || viewer?.role === "instructor" ? children : null;
}

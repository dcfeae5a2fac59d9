import { useRouteLoaderData } from "react-router";
import type { Looking } from "~/protocol/access";

/** Who looks at this page; null where nobody has signed in. */
export const useViewer = (): Looking | null =>
  useRouteLoaderData<{ readonly viewer: Looking | null }>("root")?.viewer ?? null;

import { languageOf } from "~/words/catalogs";
import "@fontsource-variable/atkinson-hyperlegible-mono";
import "@fontsource-variable/atkinson-hyperlegible-next";
import CssBaseline from "@mui/material/CssBaseline";
import { ThemeProvider } from "@mui/material/styles";
import { type ReactNode, useContext, useEffect } from "react";
import {
  isRouteErrorResponse,
  Links,
  Meta,
  Outlet,
  Scripts,
  ScrollRestoration,
  type ShouldRevalidateFunctionArgs,
  useRouteLoaderData,
} from "react-router";
import type { Looking } from "~/protocol/access";
import { database } from "~/server/lab/current";
import { journalOf } from "~/server/journal/recorded";
import { currentHouseRules } from "~/server/queries/house-rules";
import { needsEngines } from "~/core/stages/late";
import type { loader as runLoader } from "./routes/run";
import type { Route } from "./+types/root";
import { setEra } from "./live/era";
import { ReachStrip } from "./live/reach-strip";
import { StorageNotice } from "./live/storage-notice";
import { useKeptPage } from "./offline/kept-page";
import { signedInFirst } from "./access/signed-in-first.server";
import { Nonce, viewerOfRequest } from "./request-context";
import { TimerDock } from "./live/timer-dock";
import { theme } from "./theme/theme";
import { ErrorSheet } from "./ui/error-sheet";
import { TopBar } from "./ui/top-bar";
import { plainWords, TextProvider } from "./words/text";
import { useSay } from "./words/text";

export const meta: Route.MetaFunction = () => [{ title: "Steady Bead" }];

export const links: Route.LinksFunction = () => [{ rel: "icon", href: "/bead.svg", type: "image/svg+xml" }];

/** The words of the house change on one screen only, and so does whether people sign in. */
export function shouldRevalidate({
  formAction,
  currentUrl,
  nextUrl,
  defaultShouldRevalidate,
}: ShouldRevalidateFunctionArgs) {
  if (formAction !== undefined) return /^\/(house-rules|access)/.test(formAction);
  return currentUrl.pathname === nextUrl.pathname && currentUrl.search !== nextUrl.search
    ? false
    : defaultShouldRevalidate;
}

export const middleware = [signedInFirst];

/** How the lab says things: all screens say it so; and who looks at them. */
export async function loader({ context }: Route.LoaderArgs) {
  const db = await database();
  const viewer = context.get(viewerOfRequest);
  const looking: Looking | null = viewer && { role: viewer.role, signedIn: viewer.session !== null };
  return {
    words: (await currentHouseRules(db)).data.words,
    era: journalOf(db)?.id ?? null,
    viewer: looking,
  };
}

/** Whether the page shows a run with a stage whose evaluation comes with an engine of its own. */
function useEngines(): boolean {
  const shown = useRouteLoaderData<typeof runLoader>("routes/run");
  return shown !== undefined && needsEngines(shown.state.record.method);
}

export function Layout({ children }: { children: ReactNode }) {
  const loaded = useRouteLoaderData<typeof loader>("root");
  const nonce = useContext(Nonce);
  const own = nonce === undefined ? {} : { nonce };
  if (loaded && typeof window !== "undefined") setEra(loaded.era);
  // From here on the page answers: what is pressed before that, tests must not press.
  useEffect(() => document.documentElement.setAttribute("data-answers", ""), []);
  return (
    <html lang={languageOf(loaded?.words ?? plainWords)} data-engines={useEngines() ? "" : undefined}>
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <Meta />
        <Links />
      </head>
      <body>
        <ThemeProvider theme={theme}>
          <CssBaseline />
          <TextProvider words={loaded?.words ?? plainWords}>
            <TopBar />
            {loaded?.viewer !== null && (
              <>
                <TimerDock />
                <StorageNotice />
                <ReachStrip />
              </>
            )}
            {children}
          </TextProvider>
        </ThemeProvider>
        <ScrollRestoration {...own} />
        <Scripts {...own} />
      </body>
    </html>
  );
}

export default function App() {
  useKeptPage();
  return <Outlet />;
}

/** Unknown addresses and failures, in the same words and look as everything else. */
export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  const say = useSay();
  if (isRouteErrorResponse(error) && error.status === 404) {
    const what =
      typeof error.data === "string" && error.data !== ""
        ? error.data
        : say`There is nothing at this address.`;
    return <ErrorSheet title={say`Not found`} message={what} />;
  }
  if (isRouteErrorResponse(error) && error.status === 403)
    return (
      <ErrorSheet
        title={say`For instructors`}
        message={say`What stands here is for instructors: sign out, and sign in again as one.`}
      />
    );
  if (isRouteErrorResponse(error) && error.status === 422 && typeof error.data === "string")
    return <ErrorSheet title={say`This run cannot be read`} message={error.data} />;
  // The page that was asked for is not kept in this browser.
  if (error instanceof TypeError && /fetch/i.test(error.message))
    return (
      <ErrorSheet
        title={say`The server cannot be reached`}
        message={say`This page was never open in this browser, so there is no copy of it to show. Pages that were open here still work, and readings you enter on them wait here until the server answers.`}
      />
    );
  return (
    <ErrorSheet
      title={say`Something went wrong`}
      message={say`What was saved is safe. Reload the page; if it happens again, restart the server and look at its terminal.`}
    />
  );
}

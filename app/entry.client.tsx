import { CacheProvider } from "@emotion/react";
import { startTransition, StrictMode } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";
import { registerServiceWorker } from "./offline/register";
import { createStyleCache } from "./theme/style-cache";
import { fetchCatalog } from "./words/catalogs";

// The browser hides it from the attribute, so that no style sheet can read it out, and tells it to scripts.
const nonce = document.querySelector<HTMLScriptElement>("script[nonce]")?.nonce;

/** The page as the server wrote it, in the words that it is written in. */
function hydrate() {
  startTransition(() => {
    hydrateRoot(
      document,
      <StrictMode>
        <CacheProvider value={createStyleCache(nonce)}>
          <HydratedRouter />
        </CacheProvider>
      </StrictMode>,
    );
  });
}

/** The engine that the run of this page needs is there before it is shown, as it was when the server wrote it. */
const engines = "engines" in document.documentElement.dataset ? import("~/core/stages/engines") : null;

// Where the catalog cannot be fetched the page speaks American English.
void Promise.all([fetchCatalog(document.documentElement.lang === "en-GB" ? "en-GB" : "en-US"), engines]).then(
  hydrate,
  hydrate,
);

// Once the page is there: keeping it for later comes after that.
if (import.meta.env.PROD) {
  if (document.readyState === "complete") registerServiceWorker();
  else window.addEventListener("load", registerServiceWorker);
}

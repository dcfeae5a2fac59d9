import { CacheProvider } from "@emotion/react";
import { startTransition, StrictMode } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";
import { registerServiceWorker } from "./offline/register";
import { createStyleCache } from "./theme/style-cache";

// The browser hides it from the attribute, so that no style sheet can read it out, and tells it to scripts.
const nonce = document.querySelector<HTMLScriptElement>("script[nonce]")?.nonce;

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

// Once the page is there: keeping it for later comes after that.
if (import.meta.env.PROD) {
  if (document.readyState === "complete") registerServiceWorker();
  else window.addEventListener("load", registerServiceWorker);
}

import { CacheProvider } from "@emotion/react";
import { startTransition, StrictMode } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";
import { createStyleCache } from "./theme/style-cache";

startTransition(() => {
  hydrateRoot(
    document,
    <StrictMode>
      <CacheProvider value={createStyleCache()}>
        <HydratedRouter />
      </CacheProvider>
    </StrictMode>,
  );
});

import "~/core/stages/engines";
import { PassThrough } from "node:stream";
import { text } from "node:stream/consumers";
import { CacheProvider } from "@emotion/react";
import createEmotionServer from "@emotion/server/create-instance";
import { renderToPipeableStream } from "react-dom/server";
import { type EntryContext, type RouterContextProvider, ServerRouter } from "react-router";
import { british } from "~/words/british";
import { Nonce, nonceOfRequest } from "./request-context";
import { createStyleCache } from "./theme/style-cache";
import { addCatalog } from "./words/catalogs";

addCatalog("en-GB", british);

/**
 * Renders the whole page, then puts the styles it used into its head, so that nothing is ever shown unstyled.
 * Nothing here is deferred, so there is nothing to gain from sending it in pieces.
 */
export default async function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
  loaded: RouterContextProvider,
): Promise<Response> {
  const nonce = loaded.get(nonceOfRequest) || undefined;
  const cache = createStyleCache(nonce);
  const styling = createEmotionServer(cache);
  let finalStatus = status;
  const html = await new Promise<string>((resolve, reject) => {
    const body = new PassThrough();
    const { pipe } = renderToPipeableStream(
      <CacheProvider value={cache}>
        <Nonce value={nonce}>
          <ServerRouter context={context} url={request.url} {...(nonce === undefined ? {} : { nonce })} />
        </Nonce>
      </CacheProvider>,
      {
        ...(nonce === undefined ? {} : { nonce }),
        // Else React puts large parts behind the page, hidden, for a script to move to their place.
        progressiveChunkSize: Infinity,
        onAllReady() {
          pipe(body);
          text(body).then(resolve, reject);
        },
        onShellError: reject,
        onError(error) {
          finalStatus = 500;
          console.error(error);
        },
      },
    );
  });
  const styles = styling.constructStyleTagsFromChunks(styling.extractCriticalToChunks(html));
  headers.set("Content-Type", "text/html; charset=utf-8");
  return new Response(
    html.replace("</head>", () => `${styles}</head>`),
    { status: finalStatus, headers },
  );
}

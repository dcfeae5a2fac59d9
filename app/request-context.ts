import { createContext, useContext } from "react";
import { createContext as createRouterContext } from "react-router";
import type { Viewer } from "~/server/access/viewer";

/** The word by which the browser knows this answer's own scripts and styles, on its way from the server to the page. */
export const nonceOfRequest = createRouterContext<string>("");

/** The same within the page; undefined in the browser, which tells it to nobody. */
export const Nonce = createContext<string | undefined>(undefined);

/** The word by which a component may bring styles of its own: in the browser as the page's scripts know it. */
export function useNonce(): string | undefined {
  const ofAnswer = useContext(Nonce);
  if (ofAnswer !== undefined || typeof document === "undefined") return ofAnswer;
  return document.querySelector<HTMLScriptElement>("script[nonce]")?.nonce;
}

/** The address that a request came from, as the server saw it. */
export const addressOfRequest = createRouterContext<string>("");

/** Who asks; null where they have not signed in. Without it a request is not answered. */
export const viewerOfRequest = createRouterContext<Viewer | null>();

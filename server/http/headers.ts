import { randomBytes } from "node:crypto";
import type { RequestHandler, Response } from "express";
import helmet from "helmet";

/** The word that marks this answer's own scripts and styles. */
export const nonceOf = (response: Response): string => (response.locals as { nonce?: string }).nonce ?? "";

const giveNonce: RequestHandler = (_request, response, next) => {
  response.locals.nonce = randomBytes(16).toString("base64");
  next();
};

/**
 * What a page may do: its own scripts and styles, told by a nonce where they stand in the page, and nothing that is made from
 * text. Style attributes are allowed, since typeset formulas and charts are placed by them.
 */
export function safeHeaders(): RequestHandler[] {
  const own = (_request: unknown, response: unknown) => `'nonce-${nonceOf(response as Response)}'`;
  return [
    giveNonce,
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'", own],
          scriptSrcAttr: ["'none'"],
          styleSrc: ["'self'", own],
          styleSrcElem: ["'self'", own],
          styleSrcAttr: ["'unsafe-inline'"],
          imgSrc: ["'self'", "data:", "blob:"],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          workerSrc: ["'self'"],
          manifestSrc: ["'self'"],
          formAction: ["'self'"],
          baseUri: ["'none'"],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
        },
      },
      frameguard: { action: "deny" },
      // With none at all, browsers send forms of our own pages without saying where they come from.
      referrerPolicy: { policy: "same-origin" },
      // Served over plain http on the bench; who puts https before it sets this there.
      strictTransportSecurity: false,
    }),
    (_request, response, next) => {
      response.setHeader(
        "Permissions-Policy",
        "serial=(self), camera=(), microphone=(), geolocation=(), payment=(), usb=()",
      );
      next();
    },
  ];
}

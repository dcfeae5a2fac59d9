import createCache from "@emotion/cache";

/** The cache that both sides use, so that the browser takes over the styles that the server wrote. */
export const createStyleCache = (nonce?: string) =>
  createCache({ key: "sb", ...(nonce === undefined ? {} : { nonce }) });

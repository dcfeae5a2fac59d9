import { ShelfFileSchema } from "../archive/schema";
import { compile } from "../compile";

/** Made at build time: `vite.config.ts` puts the compiled code in place of this module. */
export const schema = ShelfFileSchema;
export const valid = compile(schema);

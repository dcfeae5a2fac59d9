import { ShelfRequestSchema } from "../shelf-schemas";
import { compile } from "../../formats/compile";

/** Made at build time: `vite.config.ts` puts the compiled code in place of this module. */
export const schema = ShelfRequestSchema;
export const valid = compile(schema);

import { MappingSchema } from "../table/mapping";
import { compile } from "../compile";

/** Made at build time: `vite.config.ts` puts the compiled code in place of this module. */
export const schema = MappingSchema;
export const valid = compile(schema);

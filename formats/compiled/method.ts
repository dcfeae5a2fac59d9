import { MethodFileSchema } from "../concluded";
import { compile } from "../compile";

/** Made at build time: `vite.config.ts` puts the compiled code in place of this module. */
export const schema = MethodFileSchema;
export const valid = compile(schema);

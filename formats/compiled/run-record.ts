import { RunFileSchema } from "../concluded";
import { compile } from "../compile";

/** Made at build time: `vite.config.ts` puts the compiled code in place of this module. */
export const schema = RunFileSchema;
export const valid = compile(schema);

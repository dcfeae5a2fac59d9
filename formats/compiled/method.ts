import { MethodSchema } from "~/core/method";
import { compile } from "../compile";

/** Made at build time: `vite.config.ts` puts the compiled code in place of this module. */
export const schema = MethodSchema;
export const valid = compile(schema);

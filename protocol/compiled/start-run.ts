import { StartRunSchema } from "../request-schemas";
import { compile } from "../../formats/compile";

/** Made at build time: `vite.config.ts` puts the compiled code in place of this module. */
export const schema = StartRunSchema;
export const valid = compile(schema);

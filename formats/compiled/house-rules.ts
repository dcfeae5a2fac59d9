import { HouseRulesSchema } from "~/core/rules";
import { compile } from "../compile";

/** Made at build time: `vite.config.ts` puts the compiled code in place of this module. */
export const schema = HouseRulesSchema;
export const valid = compile(schema);

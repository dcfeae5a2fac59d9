import { compile } from "../../formats/compile";
import { LabRequestSchema } from "../lab-schemas";

/** Made at build time: `vite.config.ts` puts the compiled code in place of this module. */
export const schema = LabRequestSchema;
export const valid = compile(schema);

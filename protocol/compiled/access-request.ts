import { compile } from "../../formats/compile";
import { AccessRequestSchema } from "../access-schemas";

export const schema = AccessRequestSchema;
export const valid = compile(schema);

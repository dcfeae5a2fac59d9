import { HouseRulesSchema } from "~/core/run";
import { checker } from "./validate";

export const checkHouseRules = checker(HouseRulesSchema);

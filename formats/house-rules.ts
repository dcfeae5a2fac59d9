import type { HouseRules } from "~/core/rules";
import { valid } from "./compiled/house-rules";
import { checker } from "./validate";

export const checkHouseRules = checker<HouseRules>(valid);

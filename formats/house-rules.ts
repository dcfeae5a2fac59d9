import type { HouseRules } from "~/core/run";
import { valid } from "./compiled/house-rules";
import { checker } from "./validate";

export const checkHouseRules = checker<HouseRules>(valid);

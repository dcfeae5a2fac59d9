import { defineMethod } from "~/core/method";
import { authority, protection } from "./parts";
import { iodateReleases, iodineHazards, iodineThiosulfate, iodineWaste, sulfuricHazard } from "./redox-parts";
import {
  iodateOxidant,
  thiosulfateGlassware,
  thiosulfateStages,
  thiosulfateSubstances,
} from "./thiosulfate-parts";

/** Thiosulfate by iodate, which sets three iodine free. */
export const thiosulfateByIodate = defineMethod({
  id: "thiosulfate-by-iodate",
  version: 3,
  family: "redox",
  title: "Thiosulfate by iodate",
  purpose: "Fix the concentration of a thiosulfate solution against weighed iodate.",
  equations: [iodateReleases, iodineThiosulfate],
  substances: thiosulfateSubstances,
  stages: [...thiosulfateStages(iodateOxidant([0.85, 0.95], 0.1))],
  protection,
  hazards: [sulfuricHazard, ...iodineHazards, authority],
  waste: [iodineWaste],
  glassware: thiosulfateGlassware,
});

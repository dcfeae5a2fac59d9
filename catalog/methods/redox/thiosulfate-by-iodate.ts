import { defineMethod } from "~/core/method";
import { authority, protection, iodineHazards, iodineWaste, sulfuricHazard } from "../../parts/safety";
import { iodateReleases, iodineThiosulfate } from "../../parts/equations";
import { iodateOxidant, thiosulfateStages, thiosulfateSubstances } from "./thiosulfate-stages";
import { thiosulfateGlassware } from "../../parts/glassware";

/** Thiosulfate by iodate, which sets three iodine free. */
export const thiosulfateByIodate = defineMethod({
  id: "thiosulfate-by-iodate",
  version: 4,
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

import type { Method } from "~/core/method";
import { aceticAcidOnCharcoal } from "./acetic-acid-on-charcoal";
import { acidByBase } from "./acid-by-base";
import { acidByCarbonateThenBase } from "./acid-by-carbonate-then-base";
import { acidByHydrogenCarbonate } from "./acid-by-hydrogen-carbonate";
import { alkalinityInTwoSteps } from "./alkalinity-in-two-steps";
import { alkalinityOfWater } from "./alkalinity-of-water";
import { ascorbicAcidByIodate, ascorbicAcidByIodine } from "./ascorbic-acid";
import { baseByAcid } from "./base-by-acid";
import { baseByPhthalateSolution } from "./base-by-phthalate-solution";
import { baseByPhthalateThenAcid } from "./base-by-phthalate-then-acid";
import { copperWithAmmonia } from "./copper-with-ammonia";
import { ironWithPhenanthroline, nitriteAsAzoDye, phosphateAsMolybdenumBlue } from "./colored-complexes";
import { copperByIodine } from "./copper-by-iodine";
import { diluteAndCheckAcid } from "./dilute-and-check";
import { diproticSolidAcid } from "./diprotic-solid-acid";
import { dissolvedOxygen } from "./dissolved-oxygen";
import { edtaByCalcium, edtaByZinc } from "./edta-by-metal";
import { ethanolByDichromate } from "./ethanol-by-dichromate";
import { fadingOfADye } from "./fading-of-a-dye";
import { hypochlorite } from "./hypochlorite";
import { ironByStandardAddition } from "./iron-by-standard-addition";
import { ironInSolution } from "./iron-in-solution";
import { kappaNumber } from "./kappa-number";
import { aluminumByBackTitration, nickelByBackTitration } from "./metal-by-back-titration";
import { oxalateInSolid } from "./oxalate-in-solid";
import { oxidationNumberOfIron, oxidationNumberOfTin } from "./oxidation-number";
import { permanganateByHotOxalate } from "./permanganate-by-hot-oxalate";
import { permanganateByIron } from "./permanganate-by-iron";
import { permanganateByIronSolution } from "./permanganate-by-iron-solution";
import { permanganateByOxalate } from "./permanganate-by-oxalate";
import { peroxideByMass, peroxideByVolume } from "./peroxide";
import { sulfurDioxide } from "./sulfur-dioxide";
import { thiosulfateByDichromate } from "./thiosulfate-by-dichromate";
import { thiosulfateByIodate } from "./thiosulfate-by-iodate";
import { waterHardness } from "./water-hardness";
import { weakAcidByPhMeter } from "./weak-acid-by-ph-meter";
import { weakAcidInFood } from "./weak-acid-in-food";

/** The method library that ships with the product. */
export const methods: readonly Method[] = [
  baseByPhthalateThenAcid,
  baseByPhthalateSolution,
  acidByBase,
  baseByAcid,
  acidByCarbonateThenBase,
  acidByHydrogenCarbonate,
  weakAcidInFood,
  diproticSolidAcid,
  diluteAndCheckAcid,
  alkalinityOfWater,
  alkalinityInTwoSteps,
  weakAcidByPhMeter,
  aceticAcidOnCharcoal,
  permanganateByIron,
  permanganateByIronSolution,
  permanganateByOxalate,
  permanganateByHotOxalate,
  ironInSolution,
  peroxideByVolume,
  peroxideByMass,
  oxalateInSolid,
  oxidationNumberOfIron,
  oxidationNumberOfTin,
  sulfurDioxide,
  thiosulfateByIodate,
  thiosulfateByDichromate,
  dissolvedOxygen,
  hypochlorite,
  copperByIodine,
  ascorbicAcidByIodine,
  ascorbicAcidByIodate,
  kappaNumber,
  edtaByCalcium,
  edtaByZinc,
  waterHardness,
  nickelByBackTitration,
  aluminumByBackTitration,
  phosphateAsMolybdenumBlue,
  nitriteAsAzoDye,
  copperWithAmmonia,
  ironWithPhenanthroline,
  ironByStandardAddition,
  ethanolByDichromate,
  fadingOfADye,
];

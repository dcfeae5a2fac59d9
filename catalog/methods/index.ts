import type { Method } from "~/core/method";
import { acidByConductance } from "./acid-base/acid-by-conductance";
import { acidInAColoredDrink } from "./acid-base/acid-in-a-colored-drink";
import { carbonateInBaseByGran } from "./acid-base/carbonate-in-base-by-gran";
import { carbonateMixtureByCurve } from "./acid-base/carbonate-mixture-by-curve";
import { diproticAcidByCurve } from "./acid-base/diprotic-acid-by-curve";
import { phosphoricAcidInADrink } from "./acid-base/phosphoric-acid-in-a-drink";
import { weakBaseByCurve } from "./acid-base/weak-base-by-curve";
import { copperByPhotometricTitration } from "./complexometric/copper-by-photometric-titration";
import { chlorideBySilver } from "./precipitation/chloride-by-silver";
import { ironByPotential } from "./redox/iron-by-potential";
import { aceticAcidOnCharcoal } from "./acid-base/acetic-acid-on-charcoal";
import { acidByBase } from "./acid-base/acid-by-base";
import { acidByCarbonateThenBase } from "./acid-base/acid-by-carbonate-then-base";
import { withAliases } from "./aliases";
import { acidByHydrogenCarbonate } from "./acid-base/acid-by-hydrogen-carbonate";
import { acidInBurette } from "./acid-base/acid-in-burette";
import { alkalinityInTwoSteps } from "./acid-base/alkalinity-in-two-steps";
import { alkalinityOfWater } from "./acid-base/alkalinity-of-water";
import { ascorbicAcidByIodate, ascorbicAcidByIodine } from "./redox/ascorbic-acid";
import { baseByAcid } from "./acid-base/base-by-acid";
import { baseByPhthalateSolution } from "./acid-base/base-by-phthalate-solution";
import { baseByPhthalateThenAcid } from "./acid-base/base-by-phthalate-then-acid";
import { copperWithAmmonia } from "./colorimetric/copper-with-ammonia";
import {
  ironWithPhenanthroline,
  nitriteAsAzoDye,
  phosphateAsMolybdenumBlue,
} from "./colorimetric/colored-complexes";
import { copperByIodine } from "./redox/copper-by-iodine";
import { copperInSolution } from "./redox/copper-in-solution";
import { diluteAndCheckAcid } from "./acid-base/dilute-and-check";
import { dilutionInSteps } from "./acid-base/dilution-in-steps";
import { diproticSolidAcid } from "./acid-base/diprotic-solid-acid";
import { dissolvedOxygen } from "./redox/dissolved-oxygen";
import { edtaByZinc } from "./complexometric/edta-by-metal";
import { ethanolByDichromate } from "./colorimetric/ethanol-by-dichromate";
import { fadingOfADye } from "./colorimetric/fading-of-a-dye";
import { hypochlorite } from "./redox/hypochlorite";
import { ironByStandardAddition } from "./colorimetric/iron-by-standard-addition";
import { ironInSolution } from "./redox/iron-in-solution";
import { kappaNumber } from "./redox/kappa-number";
import { aluminumByBackTitration, nickelByBackTitration } from "./complexometric/metal-by-back-titration";
import { oxalateInSolid } from "./redox/oxalate-in-solid";
import {
  oxidationNumberOfIron,
  oxidationNumberOfOxalate,
  oxidationNumberOfTin,
} from "./redox/oxidation-number";
import { permanganateByHotOxalate } from "./redox/permanganate-by-hot-oxalate";
import { permanganateByIronSolution } from "./redox/permanganate-by-iron-solution";
import { permanganateByOxalate } from "./redox/permanganate-by-oxalate";
import { peroxideByMass, peroxideByVolume } from "./redox/peroxide";
import { sulfurDioxide } from "./redox/sulfur-dioxide";
import { thiosulfateByDichromate } from "./redox/thiosulfate-by-dichromate";
import { thiosulfateByIodate } from "./redox/thiosulfate-by-iodate";
import { waterHardness } from "./complexometric/water-hardness";
import { weakAcidByPhMeter } from "./acid-base/weak-acid-by-ph-meter";
import { weakAcidInFood } from "./acid-base/weak-acid-in-food";

/** The method library that ships with the product. */
export const methods: readonly Method[] = [
  baseByPhthalateThenAcid,
  baseByPhthalateSolution,
  acidByBase,
  acidInBurette,
  baseByAcid,
  acidByCarbonateThenBase,
  acidByHydrogenCarbonate,
  weakAcidInFood,
  diproticSolidAcid,
  diluteAndCheckAcid,
  dilutionInSteps,
  alkalinityOfWater,
  alkalinityInTwoSteps,
  weakAcidByPhMeter,
  diproticAcidByCurve,
  phosphoricAcidInADrink,
  weakBaseByCurve,
  carbonateMixtureByCurve,
  carbonateInBaseByGran,
  acidInAColoredDrink,
  acidByConductance,
  aceticAcidOnCharcoal,
  permanganateByIronSolution,
  permanganateByOxalate,
  permanganateByHotOxalate,
  ironInSolution,
  peroxideByVolume,
  peroxideByMass,
  oxalateInSolid,
  oxidationNumberOfIron,
  oxidationNumberOfTin,
  oxidationNumberOfOxalate,
  sulfurDioxide,
  thiosulfateByIodate,
  thiosulfateByDichromate,
  dissolvedOxygen,
  hypochlorite,
  copperByIodine,
  copperInSolution,
  ascorbicAcidByIodine,
  ascorbicAcidByIodate,
  kappaNumber,
  ironByPotential,
  edtaByZinc,
  waterHardness,
  nickelByBackTitration,
  aluminumByBackTitration,
  copperByPhotometricTitration,
  chlorideBySilver,
  phosphateAsMolybdenumBlue,
  nitriteAsAzoDye,
  copperWithAmmonia,
  ironWithPhenanthroline,
  ironByStandardAddition,
  ethanolByDichromate,
  fadingOfADye,
];

/** The methods and what is offered under a name of its own: all that people find in the library of the product. */
export const offered: readonly Method[] = withAliases(methods);

const ids = new Set(offered.map(({ id }) => id));

/** True for a method that ships with the product, or an alias of one. */
export const isShipped = (id: string): boolean => ids.has(id);

export { aliases, aliasOf, withAliases } from "./aliases";

// How often the stated 95 % interval holds the truth, for every shape: npm run coverage [runs].
import { shapes } from "../core/testing/shapes";
import { coverageOf } from "../core/testing/coverage";
import { acidFitCoverage, isothermCoverage } from "../core/testing/fit-coverage";

const runs = Number(process.argv[2] ?? 2000);
console.log(`The stated 95 % interval held the truth, of ${runs} simulated runs each:`);
for (const shape of shapes) {
  const parts = coverageOf(shape, runs).map(
    ({ stage, part, spread }) => `${stage} ${(100 * part).toFixed(1)} % (spread ${spread.toFixed(2)} u)`,
  );
  console.log(`  ${shape.name.padEnd(34)} ${parts.join(", ")}`);
}

const percents = (parts: readonly number[]) => parts.map((part) => `${(100 * part).toFixed(1)} %`).join(", ");
console.log(`Fits, of ${runs} seeded cases each:`);
console.log(`  diprotic acid: concentration, both pKa  ${percents(acidFitCoverage(runs))}`);
for (const law of ["freundlich", "langmuir"] as const) {
  const { inside, rejected } = isothermCoverage(law, runs);
  console.log(`  ${law}: both parameters  ${percents(inside)}; rejected at 5 %: ${percents([rejected])}`);
}

import { shapes } from "../catalog/shapes";
import { defaultHouseRules } from "../catalog/rules/defaults";
import { compileMethod, evaluateRun, resultQuantity } from "../core/run";
import { simulateRun } from "../core/simulate";
import { plusMinus } from "../core/judgement";
const n = Number(process.argv[2] ?? 300);
const only = process.argv[3];
for (const { name, method, truth } of shapes) {
  if (only && !name.includes(only)) continue;
  const c = compileMethod(method);
  if (!c.ok) { console.log(name, c.problem); continue; }
  const t0 = performance.now();
  const inside = new Map<string, number>(); let bad = 0; const z = new Map<string, number[]>(); let trials=0; const from = new Map<string, number>();
  for (let seed = 1; seed <= n; seed++) {
    const sim = simulateRun({ method, houseRules: defaultHouseRules, truth, seed });
    if (!sim.ok) { bad++; if (bad === 1) console.log(name, sim.problem.message); continue; }
    for (const s of evaluateRun(sim.value.record).stages) {
      if (s.kind === "conclude") continue;
      if (s.kind==="titration") trials+=s.trials.length;
      const q = resultQuantity(s); const t = sim.value.truths.get(s.key)!;
      if (!q) { console.log("none", name, s.key); continue; }
      const d = (q.value - t) / plusMinus(q, "i95");
      if (Math.abs(d) <= 1) inside.set(s.key, (inside.get(s.key) ?? 0) + 1);
      z.set(s.key, [...(z.get(s.key) ?? []), d]);
      if (s.kind==="titration" && s.combined) from.set(s.combined.repeatabilityFrom, (from.get(s.combined.repeatabilityFrom)??0)+1);
    }
  }
  console.log(name, [...inside].map(([k, v]) => `${k} ${(100 * v / (n-bad)).toFixed(1)}% rms ${(Math.sqrt(z.get(k)!.reduce((a,b)=>a+b*b,0)/z.get(k)!.length)*1.96).toFixed(2)} mean ${(z.get(k)!.reduce((a,b)=>a+b,0)/n).toFixed(2)}`).join(" | "), "bad", bad, "trials/run", (trials/(n-bad)).toFixed(1), JSON.stringify([...from]), ((performance.now() - t0)/n).toFixed(1), "ms");
}

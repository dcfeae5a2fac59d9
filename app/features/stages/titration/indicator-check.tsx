import Alert from "@mui/material/Alert";
import { useMemo } from "react";
import { known } from "~/catalog/constants/known";
import { endOfStage, ratedIndicators, verdictOnIndicator } from "~/core/plan";
import { dropsPerMl } from "~/core/rules";
import { methodOf } from "~/core/run";
import { compiledMethod } from "~/core/stages";
import { useRunInHand } from "../../../entry/run-context";
import { useSay } from "../../../words/text";

/** Says so where theory has the end of a stage elsewhere than its indicator shows it. */
export default function IndicatorCheck({ stageKey }: { readonly stageKey: string }) {
  const say = useSay();
  const { record, rules } = useRunInHand();
  const dropMl = 1 / Number(dropsPerMl(rules));
  const verdict = useMemo(() => {
    const method = methodOf(record);
    const stage = method.stages.find(({ key }) => key === stageKey);
    const theory = endOfStage(compiledMethod(method), stageKey, known);
    if (!theory || stage?.kind !== "titration") return null;
    return verdictOnIndicator(ratedIndicators(theory, dropMl), stage.indicator);
  }, [record, stageKey, dropMl]);
  if (!verdict?.poor) return null;
  return (
    <Alert severity="warning" sx={{ py: 0, mt: 1 }}>
      {say(verdict.text)}
    </Alert>
  );
}

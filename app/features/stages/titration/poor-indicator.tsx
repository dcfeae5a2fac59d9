import Alert from "@mui/material/Alert";
import { createContext, use } from "react";
import type { Phrase } from "~/core/text";
import { useSay } from "../../../words/text";

/** Stages whose indicator shows the end elsewhere than theory has it, with what to say of it, by their key. */
export const PoorIndicators = createContext<Readonly<Record<string, Phrase>>>({});

/** Says so where theory has the end of a stage elsewhere than its indicator shows it. */
export function PoorIndicator({ stageKey }: { readonly stageKey: string }) {
  const say = useSay();
  const text = use(PoorIndicators)[stageKey];
  return text === undefined ? null : (
    <Alert severity="warning" sx={{ py: 0, mt: 1 }}>
      {say(text)}
    </Alert>
  );
}

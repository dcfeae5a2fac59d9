import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import {
  type FieldState,
  fieldKey,
  type HouseRules,
  type RunEvaluation,
  type StageRecord,
  type TitrationEvaluation,
} from "~/core/run";
import { colors, fonts } from "../../theme/theme";
import { CorrectDialog } from "./correct-dialog";
import type { Send } from "./use-run";

interface StageReadingsProps {
  stage: TitrationEvaluation;
  record: StageRecord | undefined;
  evaluation: RunEvaluation;
  rules: HouseRules;
  locked: boolean;
  send: Send;
}

/** What holds for all trials of a stage: purities, and results of earlier stages. */
export function StageReadings({ stage, record, evaluation, rules, locked, send }: StageReadingsProps) {
  const [chosen, setChosen] = useState<FieldState | null>(null);
  const { definition, stageFields } = stage;
  const lines = definition.inputs.filter((input) => input.per === "run");
  if (lines.length === 0) return null;
  return (
    <Box
      sx={{
        display: "flex",
        flexWrap: "wrap",
        columnGap: 3,
        rowGap: 0.5,
        alignItems: "center",
        color: colors.inkSoft,
      }}
    >
      {lines.map((input) => {
        const { symbol } = input;
        if (input.is === "result") {
          const earlier = evaluation.stages.find((s) => s.key === input.stage);
          const shown = earlier?.kind === "titration" ? earlier.shown : null;
          // A closed stage shows its result on its bead already.
          if (earlier?.done) return null;
          return (
            <Box key={symbol}>
              {input.label}{" "}
              <Box component="span" sx={{ fontFamily: fonts.reading, color: colors.ink }}>
                {shown?.text ?? "not known yet"}
              </Box>
              {shown && " (its set is not closed yet)"}
            </Box>
          );
        }
        if (input.is !== "purity") return null;
        const fields = stageFields.filter(({ field }) => field.symbol === symbol);
        const valueOf = (kind: string, presumed: string) =>
          fields.find(({ field }) => field.kind === kind)?.present?.value ?? presumed;
        const read = fields.some(({ present }) => present);
        return (
          <Box key={symbol} sx={{ display: "flex", alignItems: "center", flexWrap: "wrap", columnGap: 1 }}>
            <span>{input.label}</span>
            {fields.map((state) => {
              const kind = state.field.kind;
              const value = valueOf(
                kind,
                kind === "purity" ? input.presumed.percent : input.presumed.plusMinus,
              );
              return (
                <Box
                  key={fieldKey(state.field)}
                  component="span"
                  sx={{ display: "inline-flex", alignItems: "center", gap: 0.5 }}
                >
                  {kind === "purity.plus-minus" && "±"}
                  {locked ? (
                    <span style={{ fontFamily: fonts.reading, color: colors.ink }}>{value}</span>
                  ) : (
                    <Button
                      size="small"
                      onClick={() => setChosen(state)}
                      aria-label={`${kind === "purity" ? input.label : "Half width of the purity"} ${value} %, change`}
                      sx={{
                        fontFamily: fonts.reading,
                        fontWeight: 500,
                        minWidth: 0,
                        px: 0.75,
                        textDecoration: "underline dotted",
                      }}
                    >
                      {value}
                    </Button>
                  )}
                </Box>
              );
            })}
            <span>%{read ? "" : ", presumed"}</span>
          </Box>
        );
      })}
      {chosen && (
        <CorrectDialog
          state={chosen}
          holder={{ observations: record?.observations ?? [] }}
          trialId={null}
          trialKind="fine"
          stage={definition}
          rules={rules}
          send={send}
          onClose={() => setChosen(null)}
        />
      )}
    </Box>
  );
}

import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useRef } from "react";
import { v7 as newId } from "uuid";
import type { ComputedStage } from "~/core/method";
import { type FieldState, unconfirmedVolumes } from "~/core/stages";
import type { Observation } from "~/core/record";
import { cursorTarget } from "../../../entry/cursor";
import { useRunInHand } from "../../../entry/run-context";
import type { Send } from "../../../entry/use-run";
import { useSay } from "../../../words/text";

interface ConfirmVolumesProps {
  definition: ComputedStage;
  observations: readonly Observation[];
  stageKey: string;
  fields: readonly FieldState[];
  /** Opens a field, so that another volume can be typed. */
  onChange: (state: FieldState) => void;
  /** True where nothing else is to be done first. */
  next: boolean;
}

const rowStyle = {
  display: "flex",
  alignItems: "center",
  flexWrap: "wrap",
  columnGap: 1,
  rowGap: 0.5,
  mt: 0.5,
} as const;

/**
 * Volumes that all trials use and that the method only presumes: each is confirmed by a press, or typed as it was. Until then
 * no trial counts.
 */
export function ConfirmVolumes(props: ConfirmVolumesProps) {
  const say = useSay();
  const { definition, observations, stageKey, fields, onChange, next } = props;
  const { send } = useRunInHand();
  const asked = unconfirmedVolumes(definition, observations);
  // After a confirmation by keyboard, the focus goes to the next volume that waits.
  const first = useRef<HTMLButtonElement>(null);
  const before = useRef(asked.length);
  useEffect(() => {
    if (asked.length < before.current && document.activeElement === document.body) first.current?.focus();
    before.current = asked.length;
  }, [asked.length]);
  if (asked.length === 0) return null;
  const confirm = confirmBy(send, stageKey);
  return (
    <Alert
      severity="warning"
      role="group"
      aria-label={say`Volumes to confirm`}
      sx={{ mt: 1, "& .MuiAlert-message": { width: "100%" } }}
      data-testid="confirm-volumes"
    >
      {say`Confirm the volumes used; no result counts before.`}
      {asked.map(({ symbol, label, text }, i) => {
        const state = fields.find(({ field }) => field.symbol === symbol && field.kind === "volume.taken");
        return (
          <Box key={symbol} sx={rowStyle}>
            <span>{say(label)}</span>
            <Button
              ref={i === 0 ? first : undefined}
              size="small"
              variant="contained"
              onClick={() => confirm(symbol, text)}
              {...(next && i === 0 ? cursorTarget : {})}
            >
              {say`It was ${text} mL`}
            </Button>
            {state && (
              <Button
                size="small"
                variant="outlined"
                onClick={() => onChange(state)}
                aria-label={say`${label}: another volume`}
              >
                {say`Another volume`}
              </Button>
            )}
          </Box>
        );
      })}
    </Alert>
  );
}

function confirmBy(send: Send, stageKey: string) {
  return (symbol: string, text: string) =>
    void send({
      intent: "observe",
      id: newId(),
      stageKey,
      trial: null,
      symbol,
      kind: "volume.taken",
      text,
      supersedes: null,
      reason: null,
    });
}

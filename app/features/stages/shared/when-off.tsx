import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useNavigate } from "react-router";
import type { TitrationEvaluation } from "~/core/stages";
import { useCursor } from "../../../entry/cursor";
import { useRunInHand } from "../../../entry/run-context";
import { isTaken } from "../../../live/post";
import { useSay } from "../../../words/text";

/** The stage that made what is titrated, where its result is off and something is to be done; null where nothing is. */
export function madeAndOff({ acceptance, definition }: TitrationEvaluation) {
  const decision = acceptance?.against === "value" ? acceptance.decision : null;
  const { expectedFrom } = definition;
  return decision === null || decision === "accept" || !expectedFrom
    ? null
    : { decision, made: expectedFrom.stage };
}

interface WhenOffProps {
  readonly decision: "titrate again" | "make again";
  readonly made: string;
}

/** What to do with a dilution that is off: titrate again what was kept of it, or make it again. */
export function WhenOff({ decision, made }: WhenOffProps) {
  const say = useSay();
  const { send, locked } = useRunInHand();
  const navigate = useNavigate();
  const toNext = useCursor();
  if (locked) return null;
  const again = () =>
    void send({ intent: "make-again", stageKey: made }).then(
      (answer) => isTaken(answer) && navigate(`?stage=${made}`, { preventScrollReset: true }),
    );
  return (
    <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", mt: 1 }}>
      <Button variant={decision === "titrate again" ? "contained" : "outlined"} onClick={toNext}>
        {say`Titrate what is kept`}
      </Button>
      <Button variant={decision === "make again" ? "contained" : "outlined"} onClick={again}>
        {say`Make a new dilution`}
      </Button>
    </Box>
  );
}

import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { PreparationEvaluation } from "~/core/stages";
import { isTakenBack } from "~/core/record";
import { knownOf } from "~/core/run";
import { msg } from "~/core/text";
import { useRunInHand } from "../../../entry/run-context";
import { colors } from "../../../theme/theme";
import { useSay } from "../../../words/text";

/** For a stage that is known: that nothing is done in it, where its result is from, and the way back to doing it here. */
export function KnownHere({ stage }: { readonly stage: PreparationEvaluation }) {
  const say = useSay();
  const { record, send, locked } = useRunInHand();
  const known = knownOf(record, stage.key);
  if (!known) return null;
  const readings = record.stages.find(({ key }) => key === stage.key);
  const kept = readings?.trials.filter((trial) => !isTakenBack(trial, readings)).length ?? 0;
  const where =
    known.from === ""
      ? msg`Known already: not done in this run.`
      : msg`Known already (${known.from}): not done in this run.`;
  const keptWords =
    kept === 1
      ? msg`One trial that was done here is kept, and counts again when the stage is done here.`
      : msg`${kept} trials that were done here are kept, and count again when the stage is done here.`;
  return (
    <Box
      sx={{
        display: "flex",
        flexWrap: "wrap",
        alignItems: "center",
        gap: 1,
        bgcolor: colors.tealWash,
        borderRadius: "10px",
        px: 1.75,
        py: 1,
      }}
    >
      <Typography sx={{ flex: "1 1 260px" }}>
        {say(where)} {kept > 0 && say(keptWords)}
      </Typography>
      {!locked && (
        <Button
          size="small"
          variant="outlined"
          onClick={() => void send({ intent: "know-stage", stageKey: stage.key, known: null })}
        >
          {say`Do it here`}
        </Button>
      )}
    </Box>
  );
}

import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import Typography from "@mui/material/Typography";
import type { IncomingRunView } from "~/protocol/incoming";
import { colors } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";

interface IncomingRunsProps {
  readonly runs: readonly IncomingRunView[];
  readonly chosen: readonly string[];
  readonly onChoose: (ids: readonly string[]) => void;
}

/** The runs of a file, each with what was found of it; those that are new can be chosen. */
export function IncomingRuns({ runs, chosen, onChoose }: IncomingRunsProps) {
  const say = useSay();
  if (runs.length === 0) return null;
  const toggle = (id: string) =>
    onChoose(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);
  return (
    <Sheet component="section" aria-label={say`Runs in the file`} sx={{ px: 0, py: 0.5 }}>
      {runs.map((run, i) => (
        <Box
          key={run.id}
          sx={{
            ...{ display: "flex", gap: 1, alignItems: "flex-start", px: 1.5, py: 0.75 },
            borderTop: i === 0 ? 0 : `1px solid ${colors.line}`,
          }}
        >
          <Checkbox
            checked={chosen.includes(run.id)}
            disabled={run.state !== "new"}
            onChange={() => toggle(run.id)}
            slotProps={{ input: { "aria-label": say`Import ${run.title}` } }}
          />
          <Box sx={{ flex: 1, minWidth: 0, py: 1 }}>
            <Typography sx={{ fontWeight: 650 }}>{run.title}</Typography>
            <Typography color="textSecondary">
              {[run.sample, run.method].filter(Boolean).join(", ")}
            </Typography>
            <RunFindings run={run} />
          </Box>
        </Box>
      ))}
    </Sheet>
  );
}

/** What was found of a run: state, signature, and where it is not what it says it is. */
function RunFindings({
  run: { state, why, signed, findings, differences },
}: {
  readonly run: IncomingRunView;
}) {
  const say = useSay();
  const wrong = [...findings, ...differences];
  return (
    <>
      <Typography variant="body2" sx={{ color: state === "refused" ? colors.brick : colors.tealDeep }}>
        {state === "here" && say`Already in this lab, identical to the file.`}
        {state === "refused" && why !== null && <>{say(why)}.</>}
        {state === "new" &&
          wrong.length === 0 &&
          (signed
            ? say`New. Signature valid; the results follow from the readings.`
            : say`New. Not signed, so changes cannot be detected.`)}
      </Typography>
      {wrong.length > 0 && (
        <Box component="ul" sx={{ m: 0, pl: 2.5, color: colors.brick }}>
          {wrong.slice(0, 12).map((words, i) => (
            <li key={i}>{say(words)}.</li>
          ))}
        </Box>
      )}
    </>
  );
}

import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import type { ComputedEvaluation } from "~/core/stages";
import type { RunRecord } from "~/core/run";
import { listed } from "~/core/text";
import { Sheet } from "../../../ui/sheet";
import { When } from "../../../ui/when";
import { useSay } from "../../../words/text";
import { Countersign } from "./countersign";
import { NotShelved } from "../../stages/shared/shelve";
import { screensOf } from "../../stages/table";
import { flasksLeft } from "../../stages/titration/due-flasks";

interface EndOfRunProps {
  readonly record: RunRecord;
  readonly stages: readonly ComputedEvaluation[];
  readonly change: (intent: "finish" | "reopen") => () => undefined;
}

/** What is to be rinsed, by the kinds of stages that there were. */
function rinsed(stages: readonly ComputedEvaluation[]) {
  const used = new Set(stages.flatMap((stage) => screensOf(stage).rinse));
  return used.size === 0 ? null : listed([...used]);
}

/** Flasks that are begun, or stand, and were not titrated. */
const waiting = ({ stages: records }: RunRecord, stages: readonly ComputedEvaluation[]): number =>
  stages.reduce((sum, stage) => {
    const timers = records.find(({ key }) => key === stage.key)?.timers ?? [];
    return sum + (stage.kind === "titration" ? flasksLeft(timers, stage) : 0);
  }, 0);

/** What is left to do at the bench, and where to go from here: finish, report and files, the next sample. */
export function EndOfRun({ record, stages, change }: EndOfRunProps) {
  const say = useSay();
  const finished = record.status !== "open";
  const left = waiting(record, stages);
  const rinse = rinsed(stages) ?? say`flasks and pipettes`;
  return (
    <Sheet component="section" aria-label={say`End of the run`} sx={{ display: "grid", gap: 1.5 }}>
      <Typography variant="h2">{finished ? say`Finished` : say`Clean up`}</Typography>
      {finished ? (
        <Typography>
          {record.finishedAt && (
            <>
              {say`On`} <When at={record.finishedAt} as="time" />.{" "}
            </>
          )}
          <Kept record={record} />
        </Typography>
      ) : (
        <CleanUpList items={[...record.method.waste, say`Rinse ${rinse}.`]} />
      )}
      {!finished && <NotShelved stages={stages} />}
      {!finished && left > 0 && (
        <Typography sx={{ fontWeight: 700 }}>
          {say`${left === 1 ? say`One flask is` : say`${left} flasks are`} still waiting to be titrated.`}
        </Typography>
      )}
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "center" }}>
        {finished ? (
          <>
            <Button component={Link} to={`/runs/${record.id}/report`} variant="contained" size="large">
              {say`Report and files`}
            </Button>
            <Button
              component={Link}
              to={`/?start=${record.method.id}&again=${record.id}`}
              variant="outlined"
              size="large"
            >
              {say`Same again: next sample`}
            </Button>
            {!record.countersigned && (
              <Button variant="outlined" onClick={change("reopen")}>
                {say`Reopen the run`}
              </Button>
            )}
            {record.status === "finished" && <Countersign record={record} />}
          </>
        ) : (
          <>
            <Button variant="contained" size="large" onClick={change("finish")}>
              {say`Finish the run`}
            </Button>
            <Button component={Link} to={`/runs/${record.id}/report`} variant="outlined">
              {say`Report and files`}
            </Button>
          </>
        )}
      </Box>
    </Sheet>
  );
}

const CleanUpList = ({ items }: { readonly items: readonly string[] }) => (
  <Box component="ul" sx={{ m: 0, pl: 2.5, "& li": { mb: 0.25 } }}>
    {items.map((words) => (
      <li key={words}>{words}</li>
    ))}
  </Box>
);

/** Whether a finished run can still be changed, and who stands for it. */
function Kept({ record: { countersigned } }: { readonly record: RunRecord }) {
  const say = useSay();
  if (!countersigned) return say`Its readings are kept as they stand.`;
  return (
    <>
      {say`Countersigned by ${countersigned.person} on`} <When at={countersigned.at} as="time" />
      {say`. The run is locked.`}
      {countersigned.note !== "" && ` “${countersigned.note}”`}
    </>
  );
}

import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { Link } from "react-router";
import { type MaybeMark, maybeMarks, type TrialEvaluation } from "~/core/run";

export interface TrialActions {
  readonly onStrike: (trialId: string) => void;
  readonly onRestore: (trialId: string) => void;
  readonly onMark: (trialId: string, kind: "rough" | "fine") => void;
  readonly onLabel: (trialId: string) => void;
  readonly onBack: (trialId: string) => void;
  readonly onEnd: (trialId: string, mark: MaybeMark) => void;
}

interface TrialMenuProps {
  anchor: HTMLElement;
  trial: TrialEvaluation;
  locked: boolean;
  workingHref: string;
  actions: TrialActions;
  onClose: () => void;
}

/** What can be done with one trial of the ledger. */
export function TrialMenu({ anchor, trial, locked, workingHref, actions, onClose }: TrialMenuProps) {
  const { id, record, result } = trial;
  const rough = record.kind === "rough";
  const final = trial.fields.find(({ field }) => field.kind === "burette.final" && !field.aside)?.present;
  const symbol = trial.fields.find(({ field }) => field.kind === "burette.maybe")?.field.symbol ?? "";
  const marks = final ? maybeMarks(record.observations, symbol).filter((m) => m.text !== final.text) : [];
  const entry = (words: string, act: () => void) => (
    <MenuItem
      key={words}
      onClick={() => {
        onClose();
        act();
      }}
    >
      {words}
    </MenuItem>
  );
  return (
    <Menu open anchorEl={anchor} onClose={onClose}>
      {result && (
        <MenuItem component={Link} to={workingHref}>
          Show its working
        </MenuItem>
      )}
      {!locked && [
        entry(rough ? "Let it count" : "Mark as rough", () => actions.onMark(id, rough ? "fine" : "rough")),
        record.struck
          ? entry("Restore", () => actions.onRestore(id))
          : entry("Strike out …", () => actions.onStrike(id)),
        entry("Rename …", () => actions.onLabel(id)),
        ...(final ? [entry("Overshot: brought back …", () => actions.onBack(id))] : []),
        ...marks.map((mark) => entry(`The end was ${mark.text}, as marked`, () => actions.onEnd(id, mark))),
      ]}
    </Menu>
  );
}

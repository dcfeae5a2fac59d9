import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { Link } from "react-router";
import { fieldKey, type MaybeMark, maybeMarks } from "~/core/method";
import type { TrialEvaluation } from "~/core/stages";
import { uncapitalized } from "~/core/text";
import { useRunInHand } from "../../../entry/run-context";
import type { CorrectionTarget } from "../shared/correct-dialog";

export interface TrialActions {
  readonly onStrike: (trialId: string) => void;
  readonly onRestore: (trialId: string) => void;
  readonly onMark: (trialId: string, kind: "rough" | "fine") => void;
  readonly onLabel: (trialId: string) => void;
  readonly onBack: (trialId: string) => void;
  readonly onEnd: (trialId: string, mark: MaybeMark) => void;
  readonly onOvershot: (trialId: string) => void;
  /** Opens a field of the trial that stands beside the row. */
  readonly onField: (target: CorrectionTarget) => void;
}

interface TrialMenuProps {
  anchor: HTMLElement;
  trial: TrialEvaluation;
  /** Symbol of the titer: of several burettes, the one that is titrated with. */
  titer: string;
  workingHref: string;
  actions: TrialActions;
  onClose: () => void;
}

/** What can be done with one trial of the ledger. */
export function TrialMenu({ anchor, trial, titer, workingHref, actions, onClose }: TrialMenuProps) {
  const { locked } = useRunInHand();
  const { id, record, result } = trial;
  const rough = record.kind === "rough";
  const final = trial.fields.find(
    ({ field }) => field.kind === "burette.final" && field.symbol === titer,
  )?.present;
  const marks = final ? maybeMarks(record.observations, titer).filter((m) => m.text !== final.text) : [];
  const pieces = trial.fields.filter(({ field }) => field.kind === "glass.piece");
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
        ...(final && rough && !trial.overshot
          ? [entry("Overshot: the end came before", () => actions.onOvershot(id))]
          : []),
        ...pieces.map(({ field, present }) =>
          entry(
            `${present ? `Pipette no. ${present.text}` : "Another pipette"} for ${uncapitalized(field.label.replace(/: pipette no\.$/, ""))} …`,
            () => actions.onField({ trialId: id, fieldKey: fieldKey(field) }),
          ),
        ),
        ...marks.map((mark) => entry(`The end was ${mark.text}, as marked`, () => actions.onEnd(id, mark))),
      ]}
    </Menu>
  );
}

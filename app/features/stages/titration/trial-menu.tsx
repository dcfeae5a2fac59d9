import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { Link } from "react-router";
import { fieldKey, inputOf, type MaybeMark, maybeMarks, type TitrationStage } from "~/core/method";
import type { TrialEvaluation } from "~/core/stages";
import { msg, uncapitalized } from "~/core/text";
import { useRunInHand } from "../../../entry/run-context";
import type { CorrectionTarget } from "../shared/correct-dialog";
import { useSay } from "../../../words/text";

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
  definition: TitrationStage;
  workingHref: string;
  actions: TrialActions;
  onClose: () => void;
}

/** What can be done with one trial of the ledger. */
export function TrialMenu({
  anchor,
  trial,
  titer,
  definition,
  workingHref,
  actions,
  onClose,
}: TrialMenuProps) {
  const say = useSay();
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
          {say`Show its working`}
        </MenuItem>
      )}
      {!locked && [
        entry(rough ? say`Let it count` : say`Mark as rough`, () =>
          actions.onMark(id, rough ? "fine" : "rough"),
        ),
        record.struck
          ? entry(say`Restore`, () => actions.onRestore(id))
          : entry(say`Strike out …`, () => actions.onStrike(id)),
        entry(say`Rename …`, () => actions.onLabel(id)),
        ...(final ? [entry(say`Overshot: titrated back …`, () => actions.onBack(id))] : []),
        ...(final && rough && !trial.overshot
          ? [entry(say`Overshot: the end came before`, () => actions.onOvershot(id))]
          : []),
        ...pieces.map(({ field, present }) =>
          entry(
            say`${present ? msg`Pipette no. ${present.text}` : msg`Another pipette`} for ${uncapitalized(inputOf(definition, field.symbol)?.label ?? field.label)} …`,
            () => actions.onField({ trialId: id, fieldKey: fieldKey(field) }),
          ),
        ),
        ...marks.map((mark) =>
          entry(say`The end was ${mark.text}, as marked`, () => actions.onEnd(id, mark)),
        ),
      ]}
    </Menu>
  );
}

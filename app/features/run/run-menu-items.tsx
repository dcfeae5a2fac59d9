import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { Link } from "react-router";
import { type RunRecord, isEmptyRun } from "~/core/run";
import { useSay } from "../../words/text";

export interface RunMenuItemsProps {
  readonly record: RunRecord;
  readonly onRename: () => void;
  /** Left out where the stage that is looked at measures nothing in a way that could be another one. */
  readonly onMeasure?: (() => void) | undefined;
  /** Left out where the stage that is looked at has to be done. */
  readonly onKnown?: (() => void) | undefined;
  /** Left out where nothing can be held against its result. */
  readonly onHold?: (() => void) | undefined;
  readonly onArchive: () => void;
  readonly change: (intent: "archive" | "delete" | "reopen") => void;
}

/** What the menu of a run holds, at a button. */
export function RunMenuItems({
  record,
  onRename,
  onMeasure,
  onKnown,
  onHold,
  onArchive,
  change,
  anchor,
  onClose,
}: RunMenuItemsProps & { readonly anchor: HTMLElement; readonly onClose: () => void }) {
  const say = useSay();
  const choose = (act: () => void) => () => {
    onClose();
    act();
  };
  return (
    <Menu open anchorEl={anchor} onClose={onClose}>
      {record.status === "open" && <MenuItem onClick={choose(onRename)}>{say`Rename …`}</MenuItem>}
      {record.status === "open" && onMeasure && (
        <MenuItem onClick={choose(onMeasure)}>{say`Measured with …`}</MenuItem>
      )}
      {record.status === "open" && onKnown && (
        <MenuItem onClick={choose(onKnown)}>{say`Known already …`}</MenuItem>
      )}
      {record.status === "open" && onHold && (
        <MenuItem onClick={choose(onHold)}>{say`Held against …`}</MenuItem>
      )}
      <MenuItem component={Link} to={`/?start=${record.method.id}&again=${record.id}`}>
        {say`Same again: next sample …`}
      </MenuItem>
      {record.series && (
        <MenuItem component={Link} to={`/series/${record.series.id}`}>
          {say`Table of results`}
        </MenuItem>
      )}
      <MenuItem component={Link} to="trail" relative="path">
        {say`Trail: who did what, when`}
      </MenuItem>
      <MenuItem component={Link} to={`/runs/${record.id}/sheet`}>
        {say`Data sheet to print`}
      </MenuItem>
      {record.status === "open" && (
        <MenuItem component={Link} to={`/runs/${record.id}/paper`}>
          {say`Enter from paper …`}
        </MenuItem>
      )}
      {record.status === "open" && (
        <MenuItem component={Link} to={`/house-rules?run=${record.id}`}>
          {say`House rules for this run …`}
        </MenuItem>
      )}
      {record.status !== "open" && (
        <MenuItem onClick={choose(() => change("reopen"))}>{say`Reopen`}</MenuItem>
      )}
      {isEmptyRun(record) ? (
        <MenuItem onClick={choose(() => change("delete"))}>{say`Delete the empty run`}</MenuItem>
      ) : (
        record.status !== "archived" && <MenuItem onClick={choose(onArchive)}>{say`Archive …`}</MenuItem>
      )}
    </Menu>
  );
}

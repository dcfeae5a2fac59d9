import IconButton from "@mui/material/IconButton";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { useState } from "react";
import { Link } from "react-router";
import { type RunRecord, isEmptyRun } from "~/core/run";
import { useSay } from "../../words/text";

interface RunMenuProps {
  readonly record: RunRecord;
  readonly onRename: () => void;
  /** Left out where the stage that is looked at measures nothing in a way that could be another one. */
  readonly onMeasure?: (() => void) | undefined;
  readonly onArchive: () => void;
  readonly change: (intent: "archive" | "delete" | "reopen") => void;
}

/** Actions on the whole run that are seldom needed: rename, trail, house rules, archive. */
export function RunMenu({ record, onRename, onMeasure, onArchive, change }: RunMenuProps) {
  const say = useSay();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const choose = (act: () => void) => () => {
    setAnchor(null);
    act();
  };
  return (
    <>
      <IconButton
        aria-label={say`More about this run`}
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ width: 40, height: 40, color: "text.primary", fontWeight: 700 }}
      >
        ⋯
      </IconButton>
      <Menu open={anchor !== null} anchorEl={anchor} onClose={() => setAnchor(null)}>
        {record.status === "open" && <MenuItem onClick={choose(onRename)}>{say`Rename …`}</MenuItem>}
        {record.status === "open" && onMeasure && (
          <MenuItem onClick={choose(onMeasure)}>{say`Measured with …`}</MenuItem>
        )}
        <MenuItem component={Link} to={`/?start=${record.method.id}&again=${record.id}`}>
          {say`Same again: next sample …`}
        </MenuItem>
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
    </>
  );
}

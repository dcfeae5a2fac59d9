import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { Link } from "react-router";
import { type RunRecord, isEmptyRun } from "~/core/run";
import { useSay } from "../../words/text";

/** A stage of the method that is left out of a run, or can be. */
export interface Leaving {
  readonly key: string;
  readonly title: string;
  /** True where it is left out now. */
  readonly out: boolean;
}

export interface RunMenuItemsProps {
  readonly record: RunRecord;
  readonly onRename: () => void;
  /** Left out where the stage that is looked at measures nothing in a way that could be another one. */
  readonly onMeasure?: (() => void) | undefined;
  /** Left out where the stage that is looked at has to be done. */
  readonly onKnown?: (() => void) | undefined;
  /** Stages that can be left out of the run, or done after all: the one that is looked at, and those that are left out. */
  readonly leaving: readonly Leaving[];
  /** Left out where nothing can be held against its result. */
  readonly onHold?: (() => void) | undefined;
  readonly onArchive: () => void;
  readonly change: (intent: "archive" | "delete" | "reopen") => void;
  readonly leaveOut: (stageKey: string, on: boolean) => void;
}

/** What can be done otherwise in the stage that is looked at. */
function choicesOf(
  { onMeasure, onKnown, onHold, leaving, leaveOut }: RunMenuItemsProps,
  say: ReturnType<typeof useSay>,
): (readonly [text: string, act: () => void])[] {
  return [
    ...(onMeasure ? [[say`Measured with …`, onMeasure] as const] : []),
    ...(onKnown ? [[say`Known already …`, onKnown] as const] : []),
    ...(onHold ? [[say`Held against …`, onHold] as const] : []),
    ...leaving.map(
      ({ key, title, out }) =>
        [
          out ? say`Do “${title}” in this run` : say`Leave out “${title}”`,
          () => leaveOut(key, !out),
        ] as const,
    ),
  ];
}

/** What the menu of a run holds, at a button. */
export function RunMenuItems(
  props: RunMenuItemsProps & { readonly anchor: HTMLElement; readonly onClose: () => void },
) {
  const { record, onRename, onArchive, change, anchor, onClose } = props;
  const say = useSay();
  const choose = (act: () => void) => () => {
    onClose();
    act();
  };
  return (
    <Menu open anchorEl={anchor} onClose={onClose}>
      {record.status === "open" && <MenuItem onClick={choose(onRename)}>{say`Rename …`}</MenuItem>}
      {record.status === "open" &&
        choicesOf(props, say).map(([text, act]) => (
          <MenuItem key={text} onClick={choose(act)}>
            {text}
          </MenuItem>
        ))}
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
      <MenuItem component={Link} to={`/runs/${record.id}/report`}>
        {say`Report and files`}
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
      {record.status !== "open" && !record.countersigned && (
        <MenuItem onClick={choose(() => change("reopen"))}>{say`Reopen`}</MenuItem>
      )}
      {isEmptyRun(record) ? (
        <MenuItem onClick={choose(() => change("delete"))}>{say`Delete the empty run`}</MenuItem>
      ) : (
        record.status !== "archived" &&
        !record.countersigned && <MenuItem onClick={choose(onArchive)}>{say`Archive …`}</MenuItem>
      )}
    </Menu>
  );
}

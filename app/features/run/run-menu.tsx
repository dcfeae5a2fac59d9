import IconButton from "@mui/material/IconButton";
import { lazy, Suspense, useState } from "react";
import { useSay } from "../../words/text";
import type { RunMenuItemsProps } from "./run-menu-items";

// Comes when somebody opens it.
const RunMenuItems = lazy(() => import("./run-menu-items").then((m) => ({ default: m.RunMenuItems })));

/** Actions on the whole run that are seldom needed: rename, trail, house rules, archive. */
export function RunMenu(props: RunMenuItemsProps) {
  const say = useSay();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <IconButton
        aria-label={say`More about this run`}
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ width: 40, height: 40, color: "text.primary", fontWeight: 700 }}
      >
        ⋯
      </IconButton>
      <Suspense>
        {anchor && <RunMenuItems {...props} anchor={anchor} onClose={() => setAnchor(null)} />}
      </Suspense>
    </>
  );
}

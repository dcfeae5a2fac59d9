import type { RunState } from "~/protocol/answers";
import { browserDatabase } from "./browser-database";
import { eraOfPage } from "./era";

/*
 * Runs as the server last told them: a page that is loaded out of reach was kept when it was opened, and much may have been saved
 * since.
 */

/** So many runs are kept; the one that was seen longest ago goes first. */
const most = 60;

/** Keeps a run as it was told just now. Where the browser keeps nothing, nothing is lost but that. */
export async function keepSeen(state: RunState): Promise<void> {
  const era = eraOfPage();
  if (era === null) return;
  try {
    const change = (await browserDatabase()).transaction("runs", "readwrite");
    const there = await change.store.get(state.record.id);
    // Another tab may have been told later.
    if (there?.era === era && there.state.revision > state.revision) return;
    await change.store.put({ runId: state.record.id, era, at: Date.now(), state });
    if ((await change.store.count()) > most) await (await change.store.index("at").openCursor())?.delete();
    await change.done;
  } catch {
    // The page itself has it.
  }
}

/** A run as this browser was last told it by this lab; null where it never was. */
export async function seenRun(runId: string): Promise<RunState | null> {
  try {
    const there = await (await browserDatabase()).get("runs", runId);
    return there && there.era === eraOfPage() ? there.state : null;
  } catch {
    return null;
  }
}

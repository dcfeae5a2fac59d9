import type { Register } from "react-router";
import type { Role } from "~/protocol/access";

/** Who may ask for what; "everyone" has not signed in. */
export type Needed = "everyone" | "assistant" | "instructor";

/**
 * Who may look at each route, and who may change something by it. A route that is missing here does not compile.
 */
export const routeAccess: Readonly<
  Record<keyof Register["routeModules"], { readonly look: Needed; readonly change: Needed }>
> = {
  root: { look: "everyone", change: "everyone" },
  "routes/bench": { look: "assistant", change: "assistant" },
  "routes/run": { look: "assistant", change: "assistant" },
  "routes/run-changes": { look: "assistant", change: "assistant" },
  "routes/working": { look: "assistant", change: "assistant" },
  "routes/report": { look: "assistant", change: "assistant" },
  "routes/report-pdf": { look: "assistant", change: "assistant" },
  "routes/run-sheet": { look: "assistant", change: "assistant" },
  "routes/run-export": { look: "assistant", change: "assistant" },
  "routes/run-paper": { look: "assistant", change: "assistant" },
  "routes/shelf": { look: "assistant", change: "assistant" },
  "routes/shelf-new": { look: "assistant", change: "assistant" },
  "routes/labels": { look: "assistant", change: "assistant" },
  "routes/lineage": { look: "assistant", change: "assistant" },
  "routes/bottle": { look: "assistant", change: "assistant" },
  "routes/series": { look: "assistant", change: "assistant" },
  "routes/series-export": { look: "assistant", change: "assistant" },
  "routes/history": { look: "assistant", change: "assistant" },
  "routes/history-export": { look: "assistant", change: "assistant" },
  "routes/lab-archive": { look: "instructor", change: "instructor" },
  "routes/class-sheet": { look: "assistant", change: "assistant" },
  "routes/class-sheet-pdf": { look: "assistant", change: "assistant" },
  "routes/history-import": { look: "instructor", change: "instructor" },
  "routes/table-import": { look: "instructor", change: "instructor" },
  "routes/table-work": { look: "instructor", change: "instructor" },
  "routes/start-choices": { look: "assistant", change: "assistant" },
  "routes/calculate": { look: "assistant", change: "assistant" },
  "routes/methods": { look: "assistant", change: "assistant" },
  "routes/methods-import": { look: "instructor", change: "instructor" },
  "routes/method-new": { look: "instructor", change: "instructor" },
  "routes/method": { look: "assistant", change: "instructor" },
  "routes/method-edit": { look: "instructor", change: "instructor" },
  "routes/method-plan": { look: "assistant", change: "assistant" },
  "routes/method-sheet": { look: "assistant", change: "assistant" },
  "routes/method-export": { look: "assistant", change: "assistant" },
  "routes/run-state": { look: "assistant", change: "assistant" },
  "routes/trail": { look: "assistant", change: "assistant" },
  "routes/timers": { look: "assistant", change: "assistant" },
  "routes/lab-trail": { look: "instructor", change: "instructor" },
  "routes/lab-trail-export": { look: "instructor", change: "instructor" },
  "routes/lab": { look: "instructor", change: "instructor" },
  "routes/lab-runs": { look: "instructor", change: "instructor" },
  "routes/method-remove": { look: "instructor", change: "instructor" },
  "routes/instruments": { look: "assistant", change: "assistant" },
  "routes/house-rules": { look: "instructor", change: "instructor" },
  "routes/not-found": { look: "everyone", change: "everyone" },
  "routes/sign-in": { look: "everyone", change: "everyone" },
  "routes/sign-out": { look: "everyone", change: "everyone" },
  "routes/access": { look: "instructor", change: "instructor" },
};

const ranks: Readonly<Record<Needed, number>> = { everyone: 0, assistant: 1, instructor: 2 };

/** Whether somebody is enough for what is needed; null has not signed in. */
export const isEnough = (role: Role | null, needed: Needed): boolean =>
  ranks[role ?? "everyone"] >= ranks[needed];

import type { Role } from "../../protocol/access";

/** Who looks, or asks for something. */
export interface Viewer {
  readonly role: Role;
  /** The session that they signed in with; null where there is no sign-in, since only this machine reaches the server. */
  readonly session: string | null;
}

/** Who works at this machine, where there is no sign-in. */
export const singleUser: Viewer = { role: "instructor", session: null };

import { checker } from "../formats/validate";
import { msg, type Phrase } from "../core/text";
import type { AccessRequest } from "./access-schemas";
import { valid } from "./compiled/access-request";

export type { AccessRequest } from "./access-schemas";

export const checkAccessRequest = checker<AccessRequest>(valid);

/** What somebody may do: an instructor everything; an assistant no house rules, methods, backups or access. */
export type Role = "instructor" | "assistant";

/** Who looks at a page, as it shows itself by; what they may do is decided on the server. */
export interface Looking {
  readonly role: Role;
  /** False where there is no sign-in. */
  readonly signedIn: boolean;
}

/** A session that is open, as the screen of access lists it. */
export interface SessionView {
  readonly id: string;
  readonly role: Role;
  readonly address: string;
  readonly browser: string;
  readonly beganAt: string;
  readonly seenAt: string;
  /** True for the one of whoever looks. */
  readonly own: boolean;
}

/** Who may come in, as the screen of access shows it. */
export interface AccessView {
  /** False where there is no sign-in. */
  readonly signsIn: boolean;
  readonly assistants: boolean;
  /** False where others than this machine reach the server: then the sign-in stays. */
  readonly loopback: boolean;
  readonly sessions: readonly SessionView[];
}

/** A passphrase is at least so long, characters. */
export const shortestPassphrase = 10;
export const longestPassphrase = 200;

/** What is wrong with a passphrase that somebody chose; undefined where nothing is. */
export function problemOfPassphrase(text: string): Phrase | undefined {
  if (text.length < shortestPassphrase)
    return msg`At least ${shortestPassphrase} characters: a few words that belong to no sentence are easy to remember.`;
  return text.length > longestPassphrase ? msg`At most ${longestPassphrase} characters.` : undefined;
}

/** What came of what was asked: said in words. */
export interface AccessAnswer {
  readonly done: Phrase | null;
  readonly problem: Phrase | null;
}

import { sayWho, sayWhy } from "../../protocol/answers";
import { msg, type Phrase } from "~/core/text";

/** Who does something that belongs to no run, why, and from which address, as the server saw it. */
export interface By {
  readonly person: string;
  readonly reason: string;
  readonly from?: string | null | undefined;
}

const longest = 500;

/** What is missing of that, by field; null where nothing is. */
export function byProblems({ person, reason }: Pick<By, "person" | "reason">): Record<string, Phrase> | null {
  const problems = {
    ...(person.trim() === "" || person.length > 120 ? { person: sayWho } : {}),
    ...(reason.trim() === "" ? { reason: sayWhy } : {}),
    ...(reason.length > longest ? { reason: msg`At most ${longest} characters` } : {}),
  };
  return Object.keys(problems).length > 0 ? problems : null;
}

import { type Phrase } from "~/core/text";

/** One line of a run's trail: who did what, when, from what to what, and why. */
export interface TrailLine {
  readonly id: string;
  /** When it was done, as the sender said. */
  readonly at: string;
  /** When it reached this server, by the server's clock. */
  readonly received: string;
  readonly person: string;
  readonly what: Phrase;
  /** The stage and the trial, where it was done in one. */
  readonly where: Phrase | null;
  readonly from: Phrase | null;
  readonly to: Phrase | null;
  readonly why: Phrase | null;
  /** Where it was taken back: when and by whom. */
  readonly undone: { readonly at: string | null; readonly person: string } | null;
}

/** What a line of the lab's trail is about. */
export type TrailSubject =
  "house rules" | "method" | "bottle" | "run" | "backup" | "clock" | "report header" | "access";
export const trailSubjects: readonly TrailSubject[] = [
  "run",
  "bottle",
  "method",
  "house rules",
  "backup",
  "clock",
  "report header",
  "access",
];

/** One line of the lab's trail: of any run, or of what belongs to none. */
export interface LabTrailLine extends TrailLine {
  readonly seq: number;
  readonly about: TrailSubject;
  readonly subjectId: string | null;
  readonly subject: string;
  /** The address that it came from. */
  readonly receivedFrom: string | null;
}

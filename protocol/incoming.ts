import type { Phrase } from "~/core/text";

/** A run in a file that somebody wants to bring in, as it was looked at. */
export interface IncomingRunView {
  readonly id: string;
  readonly title: string;
  readonly sample: string;
  readonly method: string;
  /** New here, here already as it is in the file, or not to be taken, and why. */
  readonly state: "new" | "here" | "refused";
  readonly why: Phrase | null;
  readonly signed: boolean;
  /** In what it is not as it was signed. */
  readonly findings: readonly Phrase[];
  /** Results of which the file says something else than its readings give. */
  readonly differences: readonly Phrase[];
}

/** What a file brings, before anything is taken. */
export interface IncomingView {
  readonly file: string;
  /** In what an archive is not as it was signed. */
  readonly findings: readonly Phrase[];
  readonly runs: readonly IncomingRunView[];
  readonly methods: number;
  readonly bottles: number;
  /** Files that cannot be taken, and what is wrong with them by place. */
  readonly unusable: readonly { readonly name: string; readonly problems: readonly Phrase[] }[];
}

/** What came of looking at a file, or of taking from it. */
export type ImportAnswer =
  | { readonly status: "looked"; readonly view: IncomingView }
  | { readonly status: "taken"; readonly runs: number; readonly methods: number; readonly bottles: number }
  | { readonly status: "refused"; readonly message: Phrase };

/** A file that is larger than this is not sent. */
export const mostImported = 64 * 1024 * 1024;

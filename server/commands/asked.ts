/** Who asks for a change, when, and from which address. */
export interface Asked {
  readonly person: string;
  readonly now: Date;
  readonly from: string | null;
}

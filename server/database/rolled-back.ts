/** Ends a transaction with nothing written; what was wrong goes with it, to whoever began it. */
export class RolledBack<P> extends Error {
  constructor(readonly problem: P) {
    super("rolled back");
    this.name = "RolledBack";
  }
}

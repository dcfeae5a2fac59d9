/* Wrong passphrases slow down the address that they come from, and lock nobody out: a room is one address. */

/** So many wrong ones cost nothing; each one after that doubles the wait. */
const free = 4;
const firstWaitMs = 500;
const longestWaitMs = 8_000;
/** A wrong one is forgotten after this time, ms. */
const forgottenMs = 60_000;
/** Of so many addresses at most is anything remembered. */
const mostAddresses = 10_000;

interface Wrong {
  count: number;
  at: number;
}

export class Attempts {
  private readonly wrong = new Map<string, Wrong>();

  constructor(private readonly now: () => number = Date.now) {}

  private countOf(address: string): number {
    const there = this.wrong.get(address);
    return there ? Math.max(0, there.count - Math.floor((this.now() - there.at) / forgottenMs)) : 0;
  }

  /** How long the next attempt from an address has to wait, ms. */
  waitMs(address: string): number {
    const over = this.countOf(address) - free;
    return over < 0 ? 0 : Math.min(longestWaitMs, firstWaitMs * 2 ** over);
  }

  failed(address: string): void {
    const count = this.countOf(address) + 1;
    this.wrong.delete(address);
    const [oldest] = this.wrong.keys();
    if (this.wrong.size >= mostAddresses && oldest !== undefined) this.wrong.delete(oldest);
    this.wrong.set(address, { count, at: this.now() });
  }
}

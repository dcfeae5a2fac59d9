/*
 * A server that is open all day keeps its memory small, which costs a third of the time where much is made at once: it is left out for as
 * long as that takes.
 */

let keepSmall: (small: boolean) => void = () => {};
let working = 0;

/** Names what keeps the memory of this process small, or lets it grow; without it, all stays as it is. */
export function keepMemoryBy(keep: (small: boolean) => void): void {
  keepSmall = keep;
}

/** Does work that makes much at once, such as reading a large table: in less time, and with more memory until it is done. */
export async function makingMuch<T>(work: () => Promise<T>): Promise<T> {
  if (working++ === 0) keepSmall(false);
  try {
    return await work();
  } finally {
    if (--working === 0) keepSmall(true);
  }
}

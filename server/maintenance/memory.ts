import v8 from "node:v8";

/*
 * A server that is open all day keeps its memory small: left to itself its heap grows severalfold on a machine with much memory. That costs
 * a third of the time where much is made at once, so it is left out for as long as that takes.
 */

/** Garbage is collected before the heap has grown by an eighth of what is in use, and what is left is moved together. */
const small = ["--heap-growing-percent=12", "--compact-on-every-full-gc"];
/** As the engine does by itself. */
const usual = ["--heap-growing-percent=0", "--no-compact-on-every-full-gc"];

let keepsSmall = false;
let working = 0;

function set() {
  for (const flag of keepsSmall && working === 0 ? small : usual) v8.setFlagsFromString(flag);
}

/** Keeps the memory of this process small from now on. */
export function keepMemorySmall(): void {
  keepsSmall = true;
  set();
}

/** Does work that makes much at once, such as reading a large table: in less time, and with more memory until it is done. */
export async function makingMuch<T>(work: () => Promise<T>): Promise<T> {
  if (!keepsSmall) return work();
  if (working++ === 0) set();
  try {
    return await work();
  } finally {
    if (--working === 0) set();
  }
}

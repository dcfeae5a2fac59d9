import type { Clock } from "..";

/** A clock that is moved by hand. */
export function handClock() {
  let time = 0;
  const waiting = new Map<number, { every: number; next: number; call: () => void }>();
  let id = 0;
  const clock: Clock = {
    now: () => time,
    every: (seconds, call) => {
      const mine = ++id;
      waiting.set(mine, { every: seconds, next: time + seconds, call });
      return () => void waiting.delete(mine);
    },
  };
  const advance = (seconds: number) => {
    const end = time + seconds;
    for (;;) {
      const due = [...waiting.values()]
        .filter((w) => w.next <= end + 1e-9)
        .sort((a, b) => a.next - b.next)[0];
      if (!due) break;
      time = due.next;
      due.next += due.every;
      due.call();
    }
    time = end;
  };
  return { clock, advance, timers: () => waiting.size };
}

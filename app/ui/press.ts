/** No press of a hand that aims at something lasts longer, ms; a scroll bar tells of its press and not of its release. */
const longestMs = 2000;

/** True between the press of the main button, or a finger, and its release. */
let pressed = false;
let limit: ReturnType<typeof setTimeout> | undefined;
const waiting: (() => void)[] = [];

function begun({ button }: MouseEvent) {
  if (button !== 0) return;
  pressed = true;
  clearTimeout(limit);
  limit = setTimeout(released, longestMs);
}

function released() {
  if (!pressed) return;
  pressed = false;
  clearTimeout(limit);
  // The click comes after the release: what waits comes after the click.
  setTimeout(() => waiting.splice(0).forEach((act) => act()));
}

if (typeof window !== "undefined") {
  window.addEventListener("mousedown", begun, true);
  for (const end of ["mouseup", "dragend", "pointercancel", "keydown"]) {
    window.addEventListener(end, released, true);
  }
}

/**
 * Acts at once, or after the press that is going on and its click. What moves the page while the finger is down, as a field
 * that is written when the press takes the cursor from it, would let the release miss what was pressed.
 */
export function afterPress(act: () => void): void {
  if (pressed) waiting.push(act);
  else act();
}

/** Resolves when nothing is being pressed: what the server tells is shown then. */
export const pressOver = (): Promise<void> => new Promise((over) => afterPress(over));

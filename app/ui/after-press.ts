/** True between the press of the main button, or a finger, and its release. */
let pressed = false;
const waiting: (() => void)[] = [];

function released() {
  pressed = false;
  // The click comes after the release: what waits comes after the click.
  setTimeout(() => {
    for (const act of waiting.splice(0)) act();
  });
}

if (typeof window !== "undefined") {
  window.addEventListener("mousedown", ({ button }) => (pressed = button === 0), true);
  for (const end of ["mouseup", "dragend", "pointercancel", "keydown"]) {
    window.addEventListener(end, () => pressed && released(), true);
  }
}

/**
 * Acts at once, or after the press that is going on and its click. A press takes the cursor from a field before it is
 * released: if what that brings about moved the page at once, the release would miss what was pressed.
 */
export function afterPress(act: () => void): void {
  if (pressed) waiting.push(act);
  else act();
}

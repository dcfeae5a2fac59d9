import Box from "@mui/material/Box";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useRef, useState } from "react";
import { pageMargins } from "../ui/page";

/* Where the cursor stands: after any action, in the next field to fill. */

const Cursor = createContext<() => void>(() => undefined);

/** Marks what is to be filled or pressed next; one on each screen. */
export const cursorTarget = { "data-cursor": "" } as const;

/** Marks the fields that readings are typed in. */
export const readingInput = { "data-reading": "" } as const;

/** What a person is busy with elsewhere is left alone: a dialog, or a field that is not one of the readings. */
function isBusyElsewhere(root: HTMLElement): boolean {
  if (document.querySelector('[role="dialog"]')) return true;
  const at = document.activeElement;
  if (!at || at === document.body) return false;
  const types = at.matches("input, textarea, [contenteditable]");
  return types && !(root.contains(at) && at.matches("[data-reading]"));
}

/** The screen of a run, around which the cursor moves. */
export function CursorRoot({ children }: { readonly children: ReactNode }) {
  const root = useRef<HTMLElement>(null);
  const [asked, ask] = useState(0);
  const toNext = useCallback(() => ask((n) => n + 1), []);
  // On a phone a cursor brings up its keyboard: it stays away until somebody asked for it.
  const typing = useRef(false);
  useEffect(() => {
    const screen = root.current;
    if (!screen || asked === 0) return;
    if (!typing.current && !window.matchMedia("(pointer: fine)").matches) return;
    if (isBusyElsewhere(screen)) return;
    screen.querySelector<HTMLElement>("[data-cursor]")?.focus();
  }, [asked]);
  useEffect(() => {
    const screen = root.current;
    if (!screen) return;
    // A button that is gone once its change is told takes the cursor with it: what is typed next would be lost.
    const left = ({ target }: FocusEvent) =>
      queueMicrotask(() => {
        if (target instanceof Node && !target.isConnected && document.activeElement === document.body)
          toNext();
      });
    screen.addEventListener("focusout", left);
    return () => screen.removeEventListener("focusout", left);
  }, [toNext]);
  return (
    <Cursor value={toNext}>
      <Box
        component="main"
        ref={root}
        onFocus={({ target }: { target: HTMLElement }) => {
          if (target.matches("[data-reading]")) typing.current = true;
        }}
        sx={pageMargins}
      >
        {children}
      </Box>
    </Cursor>
  );
}

/** Moves the cursor to what is next, once what was done is on the screen. */
export const useCursor = (): (() => void) => useContext(Cursor);

/** Moves the cursor to what is next when a screen opens, and when something that it depends on has changed. */
export function useCursorOn(...changes: readonly unknown[]): void {
  const toNext = useCursor();
  const mark = JSON.stringify(changes);
  useEffect(() => toNext(), [toNext, mark]);
}

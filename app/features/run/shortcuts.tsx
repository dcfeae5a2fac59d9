import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { useLayoutEffect } from "react";
import { tinykeys } from "tinykeys";
import { colors, fonts } from "../../theme/theme";
import { useSay } from "../../words/text";

export interface Shortcut {
  /** As shown: "Alt R". */
  readonly keys: string;
  readonly words: string;
  /** The key's place on the keyboard, pressed with Alt; none for those that fields handle by themselves. */
  readonly code?: string;
  readonly act?: () => void;
}

/** True where letters are text: in dialogs and free-text fields, not in a reading, where "?" can only ask for help. */
function inFreeText(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target.closest('[role="dialog"]')) return true;
  return target.matches("textarea, input:not([inputmode=decimal])");
}

/**
 * Acts on a run's shortcuts while its page is open; where letters are text it does nothing. What a key does changes with what is
 * shown, not after it: who undoes what has just appeared undoes that, and not the change before.
 */
export function useShortcuts(shortcuts: readonly Shortcut[], onHelp: () => void): void {
  useLayoutEffect(() => {
    const does = (act: () => void) => (event: KeyboardEvent) => {
      event.preventDefault();
      act();
    };
    // The question mark comes with Shift or without, as the keyboard has it.
    const bindings: Record<string, (event: KeyboardEvent) => void> = { "[Shift]+?": does(onHelp) };
    for (const { code, act } of shortcuts) if (code && act) bindings[`Alt+${code}`] = does(act);
    return tinykeys(window, bindings, { ignore: (event) => inFreeText(event.target) });
  }, [shortcuts, onHelp]);
}

export function ShortcutsDialog({
  shortcuts,
  onClose,
}: {
  shortcuts: readonly Shortcut[];
  onClose: () => void;
}) {
  const say = useSay();
  return (
    <Dialog open onClose={onClose} aria-labelledby="shortcuts-title" fullWidth maxWidth="xs">
      <DialogTitle id="shortcuts-title">{say`By keyboard`}</DialogTitle>
      <DialogContent>
        <Box
          component="dl"
          sx={{ display: "grid", gridTemplateColumns: "auto 1fr", columnGap: 2, rowGap: 1, m: 0 }}
        >
          {shortcuts.map(({ keys, words }) => (
            <Box key={keys} sx={{ display: "contents" }}>
              <Box component="dt">
                <Box
                  component="kbd"
                  sx={{
                    fontFamily: fonts.reading,
                    border: `1px solid ${colors.lineStrong}`,
                    borderRadius: "6px",
                    px: 0.75,
                    py: 0.25,
                    whiteSpace: "nowrap",
                  }}
                >
                  {keys}
                </Box>
              </Box>
              <Box component="dd" sx={{ m: 0 }}>
                {words}
              </Box>
            </Box>
          ))}
        </Box>
      </DialogContent>
      <DialogActions sx={{ px: 3, pb: 2 }}>
        <Button onClick={onClose} variant="contained" autoFocus>
          {say`Close`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}

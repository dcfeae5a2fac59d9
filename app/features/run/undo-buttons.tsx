import Button from "@mui/material/Button";
import { useState } from "react";
import type { Phrase } from "~/core/text";
import { useCursor } from "../../entry/cursor";
import { useRunInHand } from "../../entry/run-context";
import { useSay } from "../../words/text";

/** Undo of the last change, and redo of what was undone last. */
export function UndoButtons({ setProblem }: { readonly setProblem: (to: Phrase | null) => void }) {
  const say = useSay();
  const { send, undo, redo } = useRunInHand();
  const toNext = useCursor();
  const [busy, setBusy] = useState(false);
  const act = (intent: "undo" | "redo", eventId: string) => {
    // Pressed twice, it takes two changes back: the second one is known once the first is gone.
    setBusy(true);
    void send({ intent, eventId }).then((answer) => {
      setBusy(false);
      setProblem(answer.status === "done" ? null : answer.message);
      toNext();
    });
  };
  const button = (intent: "undo" | "redo", change: typeof undo) =>
    change && (
      <Button
        variant="text"
        color="secondary"
        size="small"
        disabled={busy}
        onClick={() => act(intent, change.eventId)}
        sx={{ textAlign: "left", lineHeight: 1.2 }}
      >
        {say`${intent === "undo" ? say`Undo` : say`Redo`}: ${change.description}`}
      </Button>
    );
  return (
    <>
      {button("undo", undo)}
      {button("redo", redo)}
    </>
  );
}

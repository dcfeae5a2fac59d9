import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { KeyboardEvent } from "react";
import { together } from "../ui/number-text";
import { colors } from "../theme/theme";
import type { Note } from "./field";
import { useSay } from "../words/text";

interface NoteBelowProps {
  readonly note: Note;
  readonly wrong: boolean;
  readonly onType: (text: string) => void;
  readonly onSettle?: ((text: string) => void) | undefined;
}

/** What is wrong with a reading, or asked about it, with what was probably meant one press away. */
export function NoteBelow({ note, wrong, onType, onSettle }: NoteBelowProps) {
  const say = useSay();
  const { message, proposal, choices } = note;
  const button = (words: string, act: () => void) => (
    <Button
      key={words}
      size="small"
      variant="outlined"
      sx={{ mt: 0.5, mr: 1 }}
      // The cursor stays in the field.
      onMouseDown={(event) => event.preventDefault()}
      onClick={act}
    >
      {words}
    </Button>
  );
  return (
    <Box component="span" sx={{ color: wrong ? colors.brick : colors.amberDeep, fontWeight: 600 }}>
      <span style={{ display: "block" }}>{together(say(message))}</span>
      {choices?.map((choice) => button(say`It is ${choice}`, () => onSettle?.(choice)))}
      {choices === undefined && proposal !== undefined && (
        <>
          {button(say`Write ${proposal}`, () => onType(proposal))}
          <Box
            component="span"
            sx={{ fontWeight: 400, whiteSpace: "nowrap", "@media (pointer: coarse)": { display: "none" } }}
          >
            {say`or press =`}
          </Box>
        </>
      )}
    </Box>
  );
}

/** "=" writes what was probably meant, in every field that a reading is typed in. True where it did. */
export function writesWhatWasMeant(
  event: KeyboardEvent,
  note: Note | null,
  onType: (text: string) => void,
): boolean {
  if (event.key !== "=" || note?.proposal === undefined || note.choices) return false;
  event.preventDefault();
  onType(note.proposal);
  return true;
}

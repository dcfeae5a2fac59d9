import type { ReactNode } from "react";
import { fonts } from "../theme/theme";
import { LineField } from "../ui/line-field";
import { cursorTarget, readingInput } from "./cursor";
import type { FieldState } from "./field";
import { NoteBelow, writesWhatWasMeant } from "./note-below";
import { useSelectOffered } from "./select-offered";

interface ReadingTextFieldProps {
  readonly label: string;
  readonly state: FieldState;
  readonly hint?: ReactNode;
  readonly onType: (text: string) => void;
  readonly autoFocus?: boolean;
  /** True where the cursor should stand next. */
  readonly next?: boolean;
  /** Large, for the one reading that a dialog is about. */
  readonly large?: boolean;
  readonly grow?: boolean;
  /** True while what stands in it is being used, and cannot be typed over. */
  readonly fixed?: boolean;
}

/** A reading in a dialog or in a row: a small field that stands as the large one does. */
export function ReadingTextField(props: ReadingTextFieldProps) {
  const { label, state, hint, onType, autoFocus = false, next = false } = props;
  const { large = false, grow = false, fixed = false } = props;
  const note = state.is === "refused" || state.is === "asked" ? state.note : null;
  const wrong = state.is === "refused";
  const selects = useSelectOffered(state.is === "offered");
  return (
    <LineField
      label={label}
      value={state.text}
      autoFocus={autoFocus}
      wrong={wrong}
      below={note ? <NoteBelow note={note} wrong={wrong} onType={onType} /> : hint}
      grow={grow}
      onChange={(event) => onType(event.target.value)}
      onKeyDown={(event) => void writesWhatWasMeant(event, note, onType)}
      inputProps={{
        inputMode: "decimal",
        autoComplete: "off",
        readOnly: fixed,
        style: { fontFamily: fonts.reading, ...(large ? { fontSize: "1.4rem" } : {}) },
        ...selects,
        ...readingInput,
        ...(next ? cursorTarget : {}),
      }}
    />
  );
}

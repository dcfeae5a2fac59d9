import Box from "@mui/material/Box";
import { type KeyboardEvent, type ReactNode, type Ref, useId } from "react";
import { colors, fonts } from "../theme/theme";
import { cursorTarget, readingInput } from "./cursor";
import type { FieldState, Note } from "./field";
import { labelTogether } from "../ui/number-text";
import { NoteBelow, writesWhatWasMeant } from "./note-below";
import { useSelectOffered } from "./select-offered";
import { useSay } from "../words/text";

interface ReadingBoxProps {
  readonly label: string;
  /** How the field stands; nothing is saved in it. */
  readonly state: FieldState;
  /** What should be known of a reading that could be saved as it is. */
  readonly caution?: Note | null;
  /** Below the reading where nothing is asked. */
  readonly hint: ReactNode;
  /** True where the cursor should stand next. */
  readonly next: boolean;
  readonly inputRef?: Ref<HTMLInputElement>;
  readonly onType: (text: string) => void;
  /** Left out in a form, which is sent by Enter itself. */
  readonly onEnter?: () => void;
  readonly onLeave?: () => void;
  /** Of two readings that differ, the one that stands. */
  readonly onSettle?: (text: string) => void;
  /** So many steps up or down by an arrow key; left out where a reading is not stepped. */
  readonly onStep?: (steps: number) => void;
}

/** The frame of a reading, saved or not. */
export const frame = (color: string, thick: boolean) => ({
  border: `${thick ? 2 : 1}px solid ${color}`,
  p: thick ? "9px 13px" : "10px 14px",
  borderRadius: "12px",
  bgcolor: colors.sheet,
  minWidth: 0,
});

export const readingText = {
  fontFamily: fonts.reading,
  fontSize: { xs: "1.75rem", sm: "1.9rem" },
  lineHeight: 1.2,
  fontWeight: 500,
};

const inputStyle = {
  ...readingText,
  color: colors.ink,
  width: "100%",
  border: 0,
  p: 0,
  background: "transparent",
  outline: "none",
  minHeight: 40,
} as const;

/** What is said below a field, and how loud. */
function shownNote(state: FieldState, caution: Note | null): { note: Note; wrong: boolean } | null {
  if (state.is === "refused") return { note: state.note, wrong: true };
  if (state.is === "asked") return { note: state.note, wrong: false };
  return caution ? { note: caution, wrong: false } : null;
}

/** Enter goes on, = writes what was meant, the arrows step. */
const keysOf =
  ({ onType, onEnter, onStep }: ReadingBoxProps, note: Note | null) =>
  (event: KeyboardEvent) => {
    if (writesWhatWasMeant(event, note, onType)) return;
    const steps = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (event.key === "Enter" && onEnter) onEnter();
    else if (steps !== undefined && onStep) onStep(steps);
    else return;
    event.preventDefault();
  };

/** One reading, large, at arm's length: typed, sent by Enter. */
export function ReadingBox(props: ReadingBoxProps) {
  const say = useSay();
  const { label, state, caution = null, hint, next, inputRef, onType, onLeave, onSettle } = props;
  const id = useId();
  const shown = shownNote(state, caution);
  const edge = shown ? (shown.wrong ? colors.brick : colors.amber) : null;
  const selects = useSelectOffered(state.is === "offered");
  return (
    <Box
      sx={{
        ...frame(edge ?? colors.lineStrong, edge !== null),
        "&:focus-within": { ...frame(edge ?? colors.teal, true), boxShadow: `0 0 0 4px ${colors.tealPale}` },
      }}
    >
      <Box component="label" htmlFor={id} sx={{ fontSize: "0.92rem", color: colors.ink, display: "block" }}>
        {labelTogether(label)}
      </Box>
      <Box
        component="input"
        id={id}
        ref={inputRef}
        value={state.text}
        inputMode="decimal"
        autoComplete="off"
        enterKeyHint="next"
        aria-invalid={shown?.wrong ?? false}
        aria-describedby={`${id}-note`}
        onChange={(event) => onType(event.target.value)}
        onKeyDown={keysOf(props, shown?.note ?? null)}
        onBlur={onLeave}
        {...selects}
        {...readingInput}
        {...(next ? cursorTarget : {})}
        sx={inputStyle}
      />
      <Box
        id={`${id}-note`}
        role={shown ? (shown.wrong ? "alert" : "status") : undefined}
        sx={{ fontSize: "0.9rem", lineHeight: 1.35 }}
      >
        {shown ? (
          <NoteBelow {...shown} onType={onType} onSettle={onSettle} />
        ) : (
          <Box sx={{ color: colors.inkSoft }}>{state.is === "sending" ? say`saving …` : hint}</Box>
        )}
      </Box>
    </Box>
  );
}

import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type KeyboardEvent, type ReactNode, useContext, useId } from "react";
import type { Field } from "~/core/inputs";
import type { Observation } from "~/core/record";
import { sourceWords } from "~/core/text";
import { colors, fonts } from "../../../theme/theme";
import type { FieldNote } from "./use-saving";
import { WaitingReadings } from "../shared/use-run";

interface ReadingFieldProps {
  field: Field;
  text: string;
  note: FieldNote | null;
  /** The saved reading, where there is one. */
  present: Observation | null;
  /** Something to say in place of the hint: "carried from trial 2". */
  remark?: ReactNode;
  /** True while it is typed a second time, without sight of the first. */
  second?: boolean;
  inputRef: (element: HTMLInputElement | null) => void;
  onType: (text: string) => void;
  onEnter: () => void;
  onLeave: () => void;
  onCorrect: () => void;
  /** Of two readings that differ, the one that stands. */
  onSettle?: (text: string) => void;
  /** So many steps up or down by an arrow key; left out where a reading is not stepped. */
  onStep?: (steps: number) => void;
}

const frame = (color: string, thick: boolean) => ({
  border: `${thick ? 2 : 1}px solid ${color}`,
  p: thick ? "9px 13px" : "10px 14px",
  borderRadius: "12px",
  bgcolor: colors.sheet,
  minWidth: 0,
});

const readingText = {
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

/** One reading, large: typed, sent by Enter, then shown as saved until someone corrects it. */
export function ReadingField(props: ReadingFieldProps) {
  const { field, text, note, present, remark, second, inputRef, onType, onEnter, onLeave, onStep } = props;
  const id = useId();
  const named = `${field.label}${second ? ", once more" : ""}`;
  const label = field.unit === "" ? named : `${named}, ${field.unit}`;
  const refused = note !== null && (note.state === "refused" || note.state === "unreachable");
  const asked = note?.state === "caution" || note?.state === "ask";

  if (present) return <SavedReading {...props} present={present} label={label} />;
  const onKeyDown = keysOf(onEnter, note, onType, onStep);
  return (
    <Box
      sx={{
        ...frame(refused ? colors.brick : asked ? colors.amber : colors.lineStrong, refused || asked),
        "&:focus-within": {
          ...frame(refused ? colors.brick : asked ? colors.amber : colors.teal, true),
          boxShadow: `0 0 0 4px ${colors.tealPale}`,
        },
      }}
    >
      <Box component="label" htmlFor={id} sx={{ fontSize: "0.92rem", color: colors.ink, display: "block" }}>
        {label}
      </Box>
      <Box
        component="input"
        id={id}
        ref={inputRef}
        value={text}
        inputMode="decimal"
        autoComplete="off"
        enterKeyHint="next"
        aria-invalid={refused}
        aria-describedby={`${id}-note`}
        onChange={(event) => onType(event.target.value)}
        onKeyDown={onKeyDown}
        onBlur={onLeave}
        sx={inputStyle}
      />
      <Box
        id={`${id}-note`}
        role={refused ? "alert" : asked ? "status" : undefined}
        sx={{ fontSize: "0.9rem", lineHeight: 1.35 }}
      >
        {note && (refused || asked) ? (
          <Asked note={note} refused={refused} onType={onType} onSettle={props.onSettle} />
        ) : (
          <Box sx={{ color: colors.inkSoft }}>
            {note ? "saving …" : second ? "without looking at the first" : (remark ?? field.hint)}
          </Box>
        )}
      </Box>
    </Box>
  );
}

/** Enter goes on, = takes what was meant, the arrows step. */
function keysOf(
  onEnter: () => void,
  note: FieldNote | null,
  onType: (text: string) => void,
  onStep: ((steps: number) => void) | undefined,
) {
  return (event: KeyboardEvent) => {
    const steps = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (event.key === "Enter") onEnter();
    else if (event.key === "=" && note?.proposal !== undefined) onType(note.proposal);
    else if (steps !== undefined && onStep) onStep(steps);
    else return;
    event.preventDefault();
  };
}

interface AskedProps {
  note: FieldNote;
  refused: boolean;
  onType: (text: string) => void;
  onSettle: ((text: string) => void) | undefined;
}

/** What is wrong, or asked, with what was probably meant one press away. */
function Asked(props: AskedProps) {
  const { note, refused, onType, onSettle } = props;
  const button = (words: string, act: () => void) => (
    <Button
      key={words}
      size="small"
      variant="outlined"
      sx={{ mt: 0.5, mr: 1 }}
      onMouseDown={(event) => event.preventDefault()}
      onClick={act}
    >
      {words}
    </Button>
  );
  return (
    <Box sx={{ color: refused ? colors.brick : colors.amberDeep, fontWeight: 600 }}>
      <div>{note.message}</div>
      {note.choices
        ? note.choices.map((choice) => button(`It is ${choice}`, () => onSettle?.(choice)))
        : note.proposal !== undefined && button(`Write ${note.proposal}`, () => onType(note.proposal ?? ""))}
      {note.choices === undefined && note.proposal !== undefined && (
        <Box
          component="span"
          sx={{ fontWeight: 400, whiteSpace: "nowrap", "@media (pointer: coarse)": { display: "none" } }}
        >
          or press =
        </Box>
      )}
    </Box>
  );
}

/** A reading that is written down: on the server, or waiting in this browser. */
function SavedReading({
  field,
  present,
  label,
  onCorrect,
}: ReadingFieldProps & { present: Observation; label: string }) {
  const waits = useContext(WaitingReadings).has(present.id);
  return (
    <Box sx={{ ...frame(colors.line, false), bgcolor: waits ? colors.amberPale : colors.tealWash }}>
      <Box sx={{ fontSize: "0.92rem", color: colors.inkSoft }}>{label}</Box>
      <Box sx={readingText}>{present.value}</Box>
      <Box
        sx={{
          display: "flex",
          flexWrap: "wrap",
          alignItems: "center",
          columnGap: 1,
          fontSize: "0.9rem",
          color: waits ? colors.amberDeep : colors.tealDeep,
        }}
      >
        <span style={{ whiteSpace: "nowrap" }}>
          {waits ? "… waiting" : "✓ saved"}
          {sourceWords[present.source]}
        </span>
        {!waits && (
          <Button
            size="small"
            onClick={onCorrect}
            sx={{ minHeight: 28, py: 0, px: 0.75, ml: -0.75 }}
            aria-label={`Correct ${field.label}`}
          >
            Correct
          </Button>
        )}
      </Box>
    </Box>
  );
}

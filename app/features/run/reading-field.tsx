import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type ReactNode, useId } from "react";
import type { Field, Observation } from "~/core/run";
import { colors, fonts } from "../../theme/theme";
import type { FieldNote } from "./use-trial-entry";

interface ReadingFieldProps {
  field: Field;
  text: string;
  note: FieldNote | null;
  /** The saved reading, where there is one. */
  present: Observation | null;
  /** Something to say in place of the hint: "carried from trial 2". */
  remark?: ReactNode;
  inputRef: (element: HTMLInputElement | null) => void;
  onType: (text: string) => void;
  onEnter: () => void;
  onLeave: () => void;
  onCorrect: () => void;
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

/** One reading, large: typed, sent by Enter, then shown as saved until someone corrects it. */
export function ReadingField(props: ReadingFieldProps) {
  const { field, text, note, present, remark, inputRef, onType, onEnter, onLeave, onCorrect } = props;
  const id = useId();
  const label = `${field.label}, ${field.unit}`;
  const refused = note !== null && (note.state === "refused" || note.state === "unreachable");
  const asked = note?.state === "caution";

  if (present) {
    return (
      <Box sx={{ ...frame(colors.line, false), bgcolor: colors.tealWash }}>
        <Box sx={{ fontSize: "0.92rem", color: colors.inkSoft }}>{label}</Box>
        <Box sx={readingText}>{present.value}</Box>
        <Box
          sx={{
            display: "flex",
            flexWrap: "wrap",
            alignItems: "center",
            columnGap: 1,
            fontSize: "0.9rem",
            color: colors.tealDeep,
          }}
        >
          <span style={{ whiteSpace: "nowrap" }}>✓ saved</span>
          <Button
            size="small"
            onClick={onCorrect}
            sx={{ minHeight: 28, py: 0, px: 0.75, ml: -0.75 }}
            aria-label={`Correct ${field.label}`}
          >
            Correct
          </Button>
        </Box>
      </Box>
    );
  }
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
        onKeyDown={(event) => {
          if (event.key !== "Enter") return;
          event.preventDefault();
          onEnter();
        }}
        onBlur={onLeave}
        sx={{
          ...readingText,
          color: colors.ink,
          width: "100%",
          border: 0,
          p: 0,
          background: "transparent",
          outline: "none",
          minHeight: 40,
        }}
      />
      <Box
        id={`${id}-note`}
        role={refused ? "alert" : asked ? "status" : undefined}
        sx={{ fontSize: "0.9rem", lineHeight: 1.35 }}
      >
        {refused || asked ? (
          <Box sx={{ color: refused ? colors.brick : colors.amberDeep, fontWeight: 600 }}>
            {note.message}
            {note.proposal !== undefined && (
              <Button
                size="small"
                variant="outlined"
                sx={{ mt: 0.5, display: "block" }}
                onMouseDown={(event) => event.preventDefault()}
                onClick={() => onType(note.proposal ?? "")}
              >
                Write {note.proposal}
              </Button>
            )}
          </Box>
        ) : (
          <Box sx={{ color: colors.inkSoft }}>{note ? "saving …" : (remark ?? field.hint)}</Box>
        )}
      </Box>
    </Box>
  );
}

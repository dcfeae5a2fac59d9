import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type ReactNode, type Ref } from "react";
import type { Field } from "~/core/inputs";
import type { Observation } from "~/core/record";
import { sourceWords, unitText } from "~/core/text";
import type { FieldState, Note } from "../../../entry/field";
import { frame, ReadingBox, readingText } from "../../../entry/reading-box";
import { colors } from "../../../theme/theme";
import { useSay } from "../../../words/text";

interface ReadingFieldProps {
  field: Field;
  state: FieldState;
  caution: Note | null;
  /** The saved reading, where there is one. */
  present: Observation | null;
  /** Something to say in place of the hint: "carried from trial 2". */
  remark?: ReactNode;
  /** True where the cursor should stand next. */
  next: boolean;
  inputRef: Ref<HTMLInputElement>;
  onType: (text: string) => void;
  onEnter: () => void;
  onLeave: () => void;
  onCorrect: () => void;
  /** Lets go of what was typed here when another device had saved its reading. */
  onDrop: () => void;
  /** Of two readings that differ, the one that stands. */
  onSettle: (text: string) => void;
  /** So many steps up or down by an arrow key; left out where a reading is not stepped. */
  onStep?: (steps: number) => void;
}

/** One reading of a trial: typed, sent by Enter, then shown as saved until someone corrects it. */
export function ReadingField(props: ReadingFieldProps) {
  const say = useSay();
  const { field, state, present, remark, onCorrect, onDrop, ...box } = props;
  const second = state.is === "first of two";
  const named = say`${field.label}${second ? say`, second time` : ""}`;
  const label = field.unit === "" ? named : say`${named}, ${unitText(field.unit)}`;
  if (present && (state.is === "saved" || state.is === "waiting")) {
    return <SavedReading {...{ field, state, present, label, onCorrect, onDrop }} />;
  }
  return (
    <ReadingBox
      {...box}
      label={label}
      state={state}
      hint={second ? say`do not look at the first reading` : (remark ?? say(field.hint))}
    />
  );
}

interface SavedReadingProps extends Pick<ReadingFieldProps, "field" | "onCorrect" | "onDrop"> {
  state: Extract<FieldState, { is: "saved" | "waiting" }>;
  present: Observation;
  label: string;
}

/** A reading that is written down: on the server, or waiting in this browser. */
function SavedReading({ field, state, present, label, onCorrect, onDrop }: SavedReadingProps) {
  const say = useSay();
  const waits = state.is === "waiting";
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
          {say`${waits ? say`… waiting` : say`✓ saved`}${sourceWords[present.source]}`}
        </span>
        {!waits && (
          <Button
            size="small"
            onClick={onCorrect}
            sx={{ minHeight: 28, py: 0, px: 0.75, ml: -0.75 }}
            aria-label={say`Correct ${field.label}`}
          >
            {say`Correct`}
          </Button>
        )}
      </Box>
      {state.typedMeanwhile !== null && (
        <Box role="status" sx={{ fontSize: "0.9rem", color: colors.amberDeep, fontWeight: 600 }}>
          {say`Saved from another device while you typed ${state.typedMeanwhile}.`}
          <Button size="small" sx={{ minHeight: 28, py: 0 }} onClick={onDrop}>
            {say`Keep`} {present.value}
          </Button>
        </Box>
      )}
    </Box>
  );
}

import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { type ReactNode, useId } from "react";
import { withPoint } from "~/core/text";
import { absorbanceOf } from "~/core/calibration";
import { fieldKey } from "~/core/method";
import {
  type CuvetteNote,
  type CuvetteTarget,
  readingKey,
  type ReadingKind,
  type useCuvette,
} from "./use-cuvette";
import { colors, fonts } from "../../../theme/theme";
import { Sheet } from "../../../ui/sheet";
import { PhotometerPanel } from "./photometer-panel";
import type { Photometer } from "./use-photometer";

interface CuvetteSheetProps {
  title: string;
  /** What to do with hands before reading. */
  prompt: string;
  /** Color of the solution, where it is known. */
  tint: string | null;
  target: CuvetteTarget;
  cuvette: ReturnType<typeof useCuvette>;
  person: string;
  onPerson: (person: string) => void;
  photometer: Photometer;
  children?: ReactNode;
}

/** The reading in hand, large: which flask, what to do, the number, and who read it. */
export function CuvetteSheet(props: CuvetteSheetProps) {
  const { title, prompt, tint, target, cuvette, person, onPerson, photometer, children } = props;
  const { textOf, type, save, note, busy, kind, setKind, reading } = cuvette;
  const percent = kind === "transmittance";
  const asNumber = Number(withPoint(reading));
  const converted = percent && asNumber > 0 ? `A = ${absorbanceOf(asNumber).toFixed(3)}` : null;
  return (
    <Sheet component="section" aria-label="Reading in hand" sx={{ display: "grid", gap: 1.25 }}>
      <FlaskHead tint={tint} title={title} prompt={prompt} />
      <Box
        component="form"
        noValidate
        onSubmit={(event: React.FormEvent) => {
          event.preventDefault();
          void save();
        }}
        sx={{ display: "grid", gap: 1.25 }}
      >
        {target.fields.length > 0 && <AmountFields target={target} note={note} textOf={textOf} type={type} />}
        <ReadingBox
          label={
            percent ? "Transmittance, %" : kind === "absorbance" ? "Absorbance" : "Absorbance, once more"
          }
          value={reading}
          note={note?.key === readingKey ? note : null}
          hint={converted ?? (busy ? "saving …" : "as the display shows it, zeros and all")}
          onType={(value) => type(readingKey, value)}
        />
        <Box sx={{ display: "flex", gap: 1.25, flexWrap: "wrap", alignItems: "center" }}>
          <TextField
            label="Read by"
            value={person}
            onChange={(event) => onPerson(event.target.value)}
            size="small"
            sx={{ flex: "1 1 120px" }}
            slotProps={{ htmlInput: { maxLength: 60 } }}
          />
          <KindChoice kind={kind} setKind={setKind} target={target} />
          <Button
            type="submit"
            variant="contained"
            disabled={busy}
            sx={{ flex: "1 1 90px", whiteSpace: "nowrap" }}
          >
            Save
          </Button>
        </Box>
      </Box>
      <PhotometerPanel
        photometer={photometer}
        isBlank={target.trialId === null}
        onTake={(shown) => void save(shown)}
      />
      {children}
    </Sheet>
  );
}

interface AmountFieldsProps {
  readonly target: CuvetteTarget;
  readonly note: CuvetteNote | null;
  readonly textOf: (key: string) => string;
  readonly type: (key: string, value: string) => void;
}

function AmountFields({ target, note, textOf, type }: AmountFieldsProps) {
  return (
    <Box sx={{ display: "flex", gap: 1.25, flexWrap: "wrap" }}>
      {target.fields.map((field) => {
        const key = fieldKey(field);
        const wrong = note?.key === key;
        return (
          <TextField
            key={key}
            label={field.unit === "" ? field.label : `${field.label}, ${field.unit}`}
            value={textOf(key)}
            onChange={(event) => type(key, event.target.value)}
            error={wrong}
            helperText={wrong ? note.message : undefined}
            sx={{ flex: "1 1 130px" }}
            slotProps={{ htmlInput: { inputMode: "decimal", style: { fontFamily: fonts.reading } } }}
          />
        );
      })}
    </Box>
  );
}

interface KindChoiceProps {
  readonly kind: ReadingKind;
  readonly setKind: (to: ReadingKind) => void;
  readonly target: CuvetteTarget;
}

function KindChoice({ kind, setKind, target }: KindChoiceProps) {
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      value={kind}
      aria-label="What the display shows"
      onChange={(_event, next: ReadingKind | null) => next && setKind(next)}
    >
      <ToggleButton value="absorbance">A</ToggleButton>
      <ToggleButton value="transmittance">% T</ToggleButton>
      {target.readings.some((f) => f.kind === "absorbance.again") && (
        <ToggleButton value="absorbance.again">check</ToggleButton>
      )}
    </ToggleButtonGroup>
  );
}

interface FlaskHeadProps {
  readonly tint: string | null;
  readonly title: string;
  readonly prompt: string;
}

function FlaskHead({ tint, title, prompt }: FlaskHeadProps) {
  return (
    <Box sx={{ display: "flex", gap: 1.5, alignItems: "flex-start" }}>
      <CuvetteDrawing tint={tint} />
      <Box sx={{ minWidth: 0 }}>
        <Typography variant="h2" data-testid="flask-in-hand">
          {title}
        </Typography>
        <Typography color="textSecondary">{prompt}</Typography>
      </Box>
    </Box>
  );
}

/** A cuvette filled with the color in hand. */
function CuvetteDrawing({ tint }: { tint: string | null }) {
  return (
    <svg width="30" height="52" viewBox="0 0 30 52" aria-hidden="true" style={{ flex: "none" }}>
      <path
        d="M5 2 V48 a2 2 0 0 0 2 2 H23 a2 2 0 0 0 2-2 V2"
        fill="#ffffff"
        stroke={colors.lineStrong}
        strokeWidth="1.6"
      />
      <path
        d="M6.6 14 V47 a1.5 1.5 0 0 0 1.5 1.4 H21.9 a1.5 1.5 0 0 0 1.5-1.4 V14 Z"
        fill={tint ?? "#eef3f2"}
      />
      <path d="M1 31 h3 M26 31 h3" stroke={colors.ink} strokeWidth="1.6" />
    </svg>
  );
}

interface ReadingBoxProps {
  label: string;
  value: string;
  note: { severity: "stop" | "caution" | "waiting"; message: string } | null;
  hint: string;
  onType: (value: string) => void;
}

function ReadingBox({ label, value, note, hint, onType }: ReadingBoxProps) {
  const id = useId();
  const stop = note !== null && note.severity !== "caution";
  const edge = stop ? colors.brick : note ? colors.amber : colors.lineStrong;
  return (
    <Box
      sx={{
        border: `2px solid ${edge}`,
        borderRadius: "12px",
        p: "9px 13px",
        "&:focus-within": {
          borderColor: stop ? colors.brick : colors.teal,
          boxShadow: `0 0 0 4px ${colors.tealPale}`,
        },
      }}
    >
      <Box component="label" htmlFor={id} sx={{ fontSize: "0.92rem", display: "block" }}>
        {label}
      </Box>
      <Box
        component="input"
        id={id}
        value={value}
        inputMode="decimal"
        autoComplete="off"
        aria-invalid={stop}
        aria-describedby={`${id}-note`}
        onChange={(event: React.ChangeEvent<HTMLInputElement>) => onType(event.target.value)}
        sx={{
          fontFamily: fonts.reading,
          fontSize: "1.9rem",
          lineHeight: 1.2,
          fontWeight: 500,
          color: colors.ink,
          width: 1,
          border: 0,
          p: 0,
          bgcolor: "transparent",
          outline: "none",
          minHeight: 40,
        }}
      />
      <Box
        id={`${id}-note`}
        role={stop ? "alert" : "status"}
        sx={{
          fontSize: "0.9rem",
          color: stop ? colors.brick : note ? colors.amberDeep : colors.inkSoft,
          fontWeight: note ? 600 : 400,
        }}
      >
        {note?.message ?? hint}
      </Box>
    </Box>
  );
}

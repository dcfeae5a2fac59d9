import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import { withPoint, msg, unitText } from "~/core/text";
import { absorbanceOf } from "~/core/calibration";
import type { Field } from "~/core/inputs";
import { fieldKey } from "~/core/method";
import { useCursorOn } from "../../../entry/cursor";
import { ReadingBox } from "../../../entry/reading-box";
import { ReadingTextField } from "../../../entry/reading-text-field";
import { type CuvetteTarget, type ReadingKind, type useCuvette } from "./use-cuvette";
import { colors } from "../../../theme/theme";
import { Sheet } from "../../../ui/sheet";
import { PhotometerPanel } from "./photometer-panel";
import type { Photometer } from "./use-photometer";
import { useSay } from "../../../words/text";

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

const readingLabels = {
  absorbance: msg`Absorbance`,
  transmittance: msg`Transmittance, %`,
  "absorbance.again": msg`Second absorbance reading`,
} as const;

/** The reading in hand, large: which flask, what to do, the number, and who read it. */
export function CuvetteSheet(props: CuvetteSheetProps) {
  const say = useSay();
  const { title, prompt, tint, target, cuvette, person, onPerson, photometer, children } = props;
  useCursorOn(title, target.trialId, target.observations.length);
  return (
    <Sheet component="section" aria-label={say`Reading in hand`} sx={{ display: "grid", gap: 1.25 }}>
      <FlaskHead tint={tint} title={title} prompt={prompt} />
      <CuvetteForm target={target} cuvette={cuvette} person={person} onPerson={onPerson} />
      <PhotometerPanel
        photometer={photometer}
        isBlank={target.trialId === null}
        onTake={(text) => void cuvette.save(text)}
      />
      {children}
    </Sheet>
  );
}

interface AmountFieldsProps {
  readonly target: CuvetteTarget;
  readonly cuvette: ReturnType<typeof useCuvette>;
  readonly next: Field | undefined;
}

function AmountFields({ target, cuvette, next }: AmountFieldsProps) {
  const say = useSay();
  if (target.fields.length === 0) return null;
  return (
    <Box sx={{ display: "flex", gap: 1.25, flexWrap: "wrap" }}>
      {target.fields.map((field) => (
        <ReadingTextField
          key={fieldKey(field)}
          label={say(field.unit === "" ? field.label : say`${field.label}, ${unitText(field.unit)}`)}
          state={cuvette.stateOf(field)}
          next={field === next}
          grow
          onType={(text) => cuvette.type(field, text)}
        />
      ))}
    </Box>
  );
}

/** What is typed of the flask, and the reading itself. */
function CuvetteForm({
  target,
  cuvette,
  person,
  onPerson,
}: Pick<CuvetteSheetProps, "target" | "cuvette" | "person" | "onPerson">) {
  const say = useSay();
  const { stateOf, type, save, kind, setKind, reading, after } = cuvette;
  const state = reading ? stateOf(reading) : ({ is: "empty", text: "" } as const);
  const shown = Number(withPoint(state.text));
  const converted = kind === "transmittance" && shown > 0 ? `A = ${absorbanceOf(shown).toFixed(3)}` : null;
  const empty = target.fields.find((field) => stateOf(field).is === "empty");
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event: React.FormEvent) => {
        event.preventDefault();
        void save();
      }}
      sx={{ display: "grid", gap: 1.25 }}
    >
      <AmountFields target={target} cuvette={cuvette} next={empty} />
      {reading && (
        <ReadingBox
          label={say(readingLabels[kind])}
          state={state}
          caution={after}
          next={!empty}
          hint={converted ?? say`as the display shows it, zeros and all`}
          onType={(text) => type(reading, text)}
        />
      )}
      <Box sx={{ display: "flex", gap: 1.25, flexWrap: "wrap", alignItems: "center" }}>
        <TextField
          label={say`Read by`}
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
          disabled={state.is === "sending"}
          sx={{ flex: "1 1 90px", whiteSpace: "nowrap" }}
        >
          {say`Save`}
        </Button>
      </Box>
    </Box>
  );
}

interface KindChoiceProps {
  readonly kind: ReadingKind;
  readonly setKind: (to: ReadingKind) => void;
  readonly target: CuvetteTarget;
}

function KindChoice({ kind, setKind, target }: KindChoiceProps) {
  const say = useSay();
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      value={kind}
      aria-label={say`What the display shows`}
      onChange={(_event, next: ReadingKind | null) => next && setKind(next)}
    >
      <ToggleButton value="absorbance">A</ToggleButton>
      <ToggleButton value="transmittance">% T</ToggleButton>
      {target.readings.some((f) => f.kind === "absorbance.again") && (
        <ToggleButton value="absorbance.again">{say`check`}</ToggleButton>
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

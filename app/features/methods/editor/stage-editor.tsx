import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { Sheet } from "../../../ui/sheet";
import {
  conditionColumns,
  inputColumns,
  reagentColumns,
  relationColumns,
  resultColumns,
  ribbonColumns,
} from "./columns";
import type { StageDraft } from "./draft";
import type { Row } from "./row";
import { PhotometerPart } from "./photometer-part";
import { relationProblem, TypesetRelation } from "./relation-line";
import { Rows } from "./rows";
import { freshPlausibility, plausibilityColumns } from "./plausibility-rows";

interface StageEditorProps {
  stage: StageDraft;
  number: number;
  /** Stages before this one, whose results it can build on. */
  earlier: readonly { readonly value: string; readonly label: string }[];
  substances: readonly Row[];
  /** What does not hold together in this stage, from the check of the whole. */
  problem: string | null;
  onChange: (changes: Partial<StageDraft>) => void;
  onRemove: (() => void) | null;
}

/** A part of the editor of one stage. */
interface StagePart {
  readonly stage: StageDraft;
  readonly onChange: (changes: Partial<StageDraft>) => void;
}

interface TextOf {
  readonly name: keyof StageDraft;
  readonly label: string;
  readonly help?: string;
  readonly rows?: number;
}

/** A field for one of a stage's texts. */
function StageText({ stage, onChange, name, label, help, rows = 1 }: StagePart & TextOf) {
  return (
    <TextField
      size="small"
      label={label}
      value={typeof stage[name] === "string" ? stage[name] : ""}
      onChange={(event) => onChange({ [name]: event.target.value })}
      helperText={help}
      multiline={rows > 1}
      minRows={rows}
    />
  );
}

/** What kind of stage it is, and the way to take it away. */
function StageHead({
  stage,
  number,
  onChange,
  onRemove,
}: StagePart & Pick<StageEditorProps, "number" | "onRemove">) {
  return (
    <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", flexWrap: "wrap" }}>
      <Typography variant="h2" sx={{ flexGrow: 1 }}>
        Stage {number}
      </Typography>
      {stage.kind === "titration" || stage.kind === "preparation" ? (
        <TextField
          select
          size="small"
          label="It is a"
          value={stage.kind}
          onChange={(event) => onChange({ kind: event.target.value as StageDraft["kind"] })}
          sx={{ width: 180 }}
        >
          <MenuItem value="titration">titration</MenuItem>
          <MenuItem value="preparation">preparation</MenuItem>
        </TextField>
      ) : (
        <Typography color="textSecondary">read on a photometer: {photometerKinds[stage.kind]}</Typography>
      )}
      {onRemove && (
        <Button size="small" onClick={onRemove}>
          Take the stage away
        </Button>
      )}
    </Box>
  );
}

/** What is read, how results follow, and which are asked for. */
function Calculation({
  stage,
  earlier,
  problem,
  onChange,
}: StagePart & Pick<StageEditorProps, "earlier" | "problem">) {
  return (
    <>
      <Part title="What is read, in the order of the work">
        <Rows
          name="Reading"
          rows={stage.inputs}
          columnsOf={(row) => inputColumns(row, earlier)}
          fresh={{ is: "pipette", symbol: "", label: "", of: "", per: "trial", value: "25.00" }}
          onChange={(inputs) => onChange({ inputs })}
        />
      </Part>
      {stage.carried?.kind === "calibration" && (
        <Part
          title="The standards and their line"
          note="The amount in each flask, and what is usually taken for it."
        >
          <PhotometerPart stage={stage.carried} onChange={(carried) => onChange({ carried })} />
        </Part>
      )}
      <Part
        title="How results follow"
        note="Letters of what is read; M(NaOH), ratio(HCl, NaOH); units in brackets."
      >
        <Rows
          name="Relation"
          rows={stage.relations}
          columnsOf={() => relationColumns}
          fresh={{ relation: "", title: "", unit: "mol/L" }}
          onChange={(relations) => onChange({ relations })}
          problemOf={(row) => relationProblem(row.relation ?? "", problem)}
          below={(row) => <TypesetRelation source={row.relation ?? ""} />}
        />
        {problem && (
          <Typography role="alert" sx={{ color: "error.main", mt: 1 }}>
            {problem}.
          </Typography>
        )}
      </Part>
      <Part title="What is asked for" note="The first is the stage's result.">
        <Rows
          name="Result"
          rows={stage.results}
          columnsOf={() => resultColumns}
          fresh={{ symbol: "", name: "", unit: "mol/L" }}
          onChange={(results) => onChange({ results })}
        />
      </Part>
    </>
  );
}

/** When titrations agree, and what they are expected to come to. */
function Agreement({ stage, onChange }: StagePart) {
  const amounts = stage.inputs.filter(
    (row) =>
      row.per === "trial" && !["titer", "temperature", "pH", "result", "constant"].includes(row.is ?? ""),
  );
  return (
    <>
      <TextField
        select
        size="small"
        label="What must agree"
        value={stage.agree}
        onChange={(event) => onChange({ agree: event.target.value })}
      >
        <MenuItem value="titers">the titers</MenuItem>
        {amounts.map((row) => (
          <MenuItem key={row.symbol} value={row.symbol ?? ""}>
            titers taken per {row.symbol}
          </MenuItem>
        ))}
        <MenuItem value="results">the results</MenuItem>
      </TextField>
      <StageText
        stage={stage}
        onChange={onChange}
        name="presumed"
        label="Result presumed"
        help="for guidance, plans and the preview"
      />
      <StageText stage={stage} onChange={onChange} name="expectLow" label="Titers from, mL" />
      <StageText stage={stage} onChange={onChange} name="expectHigh" label="Titers to, mL" />
      <TextField
        select
        size="small"
        label="Meniscus, read at the"
        value={stage.meniscus}
        onChange={(event) => onChange({ meniscus: event.target.value })}
      >
        <MenuItem value="bottom">bottom</MenuItem>
        <MenuItem value="top">top (dark liquids)</MenuItem>
      </TextField>
    </>
  );
}

/** What a result is for, and when titrations agree on it. */
function Judgement({ stage, substances, onChange }: StagePart & Pick<StageEditorProps, "substances">) {
  return (
    <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr 1fr" } }}>
      <TextField
        select
        size="small"
        label="It fixes, for the shelf"
        slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        value={stage.assigns}
        onChange={(event) => onChange({ assigns: event.target.value })}
      >
        <MenuItem value="">nothing</MenuItem>
        {substances
          .filter((s) => (s.formula ?? "").trim() !== "")
          .map((s) => (
            <MenuItem key={s.formula} value={s.formula}>
              {s.name} ({s.formula})
            </MenuItem>
          ))}
      </TextField>
      {stage.assigns !== "" && (
        <StageText
          stage={stage}
          onChange={onChange}
          name="equivalents"
          label="Equivalents per mole"
          help="for its normality; empty: none"
        />
      )}
      {stage.kind === "titration" && <Agreement stage={stage} onChange={onChange} />}
    </Box>
  );
}

/** How the end of a titration is seen. */
function EndPoint({ stage, onChange }: StagePart) {
  return (
    <>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
        <StageText stage={stage} onChange={onChange} name="indicator" label="Indicator" />
        <StageText stage={stage} onChange={onChange} name="persistence" label="How long the end must stay" />
        <StageText
          stage={stage}
          onChange={onChange}
          name="persistSeconds"
          label="In seconds, for the stopwatch"
          help="30 where nothing is said"
        />
      </Box>
      <Part title="What the flask looks like on the way">
        <Rows
          name="Color"
          rows={stage.ribbon}
          columnsOf={() => ribbonColumns}
          fresh={{ color: "#eef1ee", looks: "", do: "", end: "" }}
          onChange={(ribbon) => onChange({ ribbon })}
        />
      </Part>
    </>
  );
}

/** What is added, what must hold, what results can be, and what is done. */
function Work({ stage, onChange }: StagePart) {
  return (
    <>
      <Part title="What is added">
        <Rows
          name="Reagent"
          rows={stage.reagents}
          columnsOf={() => reagentColumns}
          fresh={{ name: "", amount: "", exact: "", when: "", last: "" }}
          onChange={(reagents) => onChange({ reagents })}
        />
      </Part>
      <Part title="What must hold">
        <Rows
          name="Condition"
          rows={stage.conditions}
          columnsOf={() => conditionColumns}
          fresh={{ what: "", of: "", from: "", to: "", minutes: "", counts: "", strict: "" }}
          onChange={(conditions) => onChange({ conditions })}
        />
      </Part>
      <Part title="What results can be" note="What fails by more than its ± does not pass as done.">
        <Rows
          name="Plausibility"
          rows={stage.plausible}
          columnsOf={plausibilityColumns}
          fresh={freshPlausibility}
          onChange={(plausible) => onChange({ plausible })}
        />
      </Part>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
        <StageText
          stage={stage}
          onChange={onChange}
          name="steps"
          label="Steps"
          help="one on a line"
          rows={4}
        />
        <StageText
          stage={stage}
          onChange={onChange}
          name="cautions"
          label="Cautions"
          help="one on a line"
          rows={4}
        />
      </Box>
    </>
  );
}

/** One stage: what is read, how results follow, when trials agree, what the flask looks like, what is done. */
export function StageEditor({
  stage,
  number,
  earlier,
  substances,
  problem,
  onChange,
  onRemove,
}: StageEditorProps) {
  const part = { stage, onChange };
  return (
    <Sheet
      component="section"
      aria-label={`Stage ${number}`}
      sx={{ p: 2.25, display: "grid", gap: 2, gridTemplateColumns: "minmax(0,1fr)" }}
    >
      <StageHead {...part} number={number} onRemove={onRemove} />
      <StageText {...part} name="title" label="Title" />
      <Calculation {...part} earlier={earlier} problem={problem} />
      <Judgement {...part} substances={substances} />
      {stage.kind === "titration" && <EndPoint {...part} />}
      <Work {...part} />
    </Sheet>
  );
}

const photometerKinds = {
  calibration: "standards and their line",
  unknown: "an unknown read off a line",
  rate: "absorbance in time",
} as const;

function Part({ title, note, children }: { title: string; note?: string; children: React.ReactNode }) {
  return (
    <Box>
      <Typography variant="h3" sx={{ mb: note ? 0 : 1 }}>
        {title}
      </Typography>
      {note && (
        <Typography variant="body2" color="textSecondary" sx={{ mb: 1 }}>
          {note}
        </Typography>
      )}
      {children}
    </Box>
  );
}

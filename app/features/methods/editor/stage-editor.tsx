import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { Sheet } from "../../../ui/sheet";
import { AcceptPart } from "./accept-part";
import type { StageDraft } from "./draft-types";
import { CalculationPart } from "./calculation-part";
import { editedKind, switchable } from "./kinds/table";
import type { Row } from "./row";
import { WorkPart } from "./work-part";
import { ownParts } from "./kinds/parts";
import { type StagePart, StageText } from "./stage-parts";
import { useSay } from "../../../words/text";
import { type Phrase } from "~/core/text";

interface StageEditorProps {
  stage: StageDraft;
  number: number;
  /** Stages before this one, whose results it can build on. */
  earlier: readonly { readonly value: string; readonly label: string }[];
  substances: readonly Row[];
  /** What the check of the method found in this stage. */
  problem: Phrase | null;
  onChange: (changes: Partial<StageDraft>) => void;
  /** A letter is another one from now on, wherever it stands. */
  onRename: (before: string, after: string) => void;
  onRemove: (() => void) | null;
}

/** What kind of stage it is, and the way to take it away. */
function StageHead({
  stage,
  number,
  onChange,
  onRemove,
}: StagePart & Pick<StageEditorProps, "number" | "onRemove">) {
  const say = useSay();
  return (
    <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", flexWrap: "wrap" }}>
      <Typography variant="h2" sx={{ flexGrow: 1 }}>
        {say`Stage ${number}`}
      </Typography>
      {editedKind(stage).switchable ? (
        <TextField
          select
          size="small"
          label={say`It is a`}
          value={stage.kind}
          onChange={(event) => onChange({ kind: event.target.value as StageDraft["kind"] })}
          sx={{ width: 180 }}
        >
          {switchable.map((kind) => (
            <MenuItem key={kind} value={kind}>
              {say(editedKind({ kind }).words)}
            </MenuItem>
          ))}
        </TextField>
      ) : (
        <Typography color="textSecondary">{say(editedKind(stage).words)}</Typography>
      )}
      {onRemove && (
        <Button size="small" onClick={onRemove}>
          {say`Remove the stage`}
        </Button>
      )}
    </Box>
  );
}

/** What a result is for, and when titrations agree on it. */
function Judgement({ stage, substances, onChange }: StagePart & Pick<StageEditorProps, "substances">) {
  const say = useSay();
  const { Judgement: Own } = ownParts[stage.kind];
  return (
    <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr 1fr" } }}>
      <TextField
        select
        size="small"
        label={say`Result goes to the shelf as`}
        slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        value={stage.assigns}
        onChange={(event) => onChange({ assigns: event.target.value })}
      >
        <MenuItem value="">{say`nothing`}</MenuItem>
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
          label={say`Equivalents per mole`}
          help={say`for its normality; empty: none`}
        />
      )}
      {Own && <Own stage={stage} onChange={onChange} />}
      <AcceptPart stage={stage} onChange={onChange} />
    </Box>
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
  onRename,
  onRemove,
}: StageEditorProps) {
  const say = useSay();
  const part = { stage, onChange };
  const { Course } = ownParts[stage.kind];
  return (
    <Sheet
      component="section"
      aria-label={say`Stage ${number}`}
      sx={{ p: 2.25, display: "grid", gap: 2, gridTemplateColumns: "minmax(0,1fr)" }}
    >
      <StageHead {...part} number={number} onRemove={onRemove} />
      <StageText {...part} name="title" label={say`Title`} />
      <CalculationPart {...part} earlier={earlier} problem={problem} onRename={onRename} />
      <Judgement {...part} substances={substances} />
      {Course && <Course {...part} />}
      <WorkPart {...part} />
    </Sheet>
  );
}

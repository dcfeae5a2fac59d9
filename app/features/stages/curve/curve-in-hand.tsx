import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { lazy, Suspense, useRef, useState } from "react";
import { type Field, meterOf } from "~/core/inputs";
import { fieldKey } from "~/core/method";
import { presentObservation } from "~/core/record";
import type { CurveEvaluation, CurveStageEvaluation } from "~/core/stages";
import { unitText } from "~/core/text";
import { useCursorOn } from "../../../entry/cursor";
import { ReadingBox } from "../../../entry/reading-box";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { together } from "../../../ui/number-text";
import { Sheet } from "../../../ui/sheet";
import { useSay } from "../../../words/text";
import { MeterPanel } from "./meter-panel";
import { type CurveEntry, useCurveEntry } from "./use-curve-entry";
import { type Meter, useBeaker } from "./use-meter";

const PointsDialog = lazy(() => import("./points-dialog").then((m) => ({ default: m.PointsDialog })));

interface CurveInHandProps {
  readonly stage: CurveStageEvaluation;
  /** Null for the next curve, of which nothing is read. */
  readonly curve: CurveEvaluation | null;
  readonly meter: Meter;
}

/** The curve that is being taken: what goes into the beaker, then pair by pair, with what to add next and why. */
export function CurveInHand({ stage, curve, meter }: CurveInHandProps) {
  const say = useSay();
  const { record } = useRunInHand();
  const entry = useCurveEntry(stage, curve);
  useBeaker(meter, record, stage, curve, entry.addedMl());
  const [importing, setImporting] = useState(false);
  const observations = curve?.record.observations ?? [];
  const open = entry.beakerFields.filter(
    (field) => !field.optional && !presentObservation(observations, field.symbol, field.kind),
  );
  const taking = curve !== null && open.length === 0;
  useCursorOn(stage.key, curve?.id, open.length, curve?.points.length);
  return (
    <Sheet component="section" aria-label={say`Curve in hand`} sx={{ display: "grid", gap: 1.5 }}>
      <NextStep {...{ stage, curve, taking }} />
      {!taking && <Beaker {...{ entry, open }} />}
      {taking && <PairForm {...{ entry, curve, meter }} />}
      <MeterPanel {...{ meter, stage, entry, taking }} count={curve?.points.length ?? 0} />
      {taking && (
        <Button size="small" onClick={() => setImporting(true)} sx={{ justifySelf: "start", ml: -1 }}>
          {say`Paste points, or take them from a file`}
        </Button>
      )}
      {importing && curve && (
        <Suspense fallback={null}>
          <PointsDialog stage={stage} curve={curve} onClose={() => setImporting(false)} />
        </Suspense>
      )}
    </Sheet>
  );
}

interface NextStepProps extends Omit<CurveInHandProps, "meter"> {
  readonly taking: boolean;
}

/** What to do now, large: what goes into the beaker, how much to add and why, or that it is enough. */
function NextStep({ stage, curve, taking }: NextStepProps) {
  const say = useSay();
  if (!curve || !taking) {
    const number = curve ? curve.name : stage.trials.length + 1;
    return (
      <Box>
        <Typography variant="h2">{say`Curve ${number}: into the beaker`}</Typography>
        <Typography color="textSecondary">{say`What is weighed or taken, then the burette as it stands.`}</Typography>
      </Box>
    );
  }
  const { next, points } = curve;
  if (points.length === 0)
    return (
      <Box>
        <Typography
          variant="h2"
          data-testid="next-reading"
        >{say`Read the meter before anything is added`}</Typography>
        <Typography color="textSecondary">{say`The first point of the curve, at the start of the burette.`}</Typography>
      </Box>
    );
  return (
    <Box>
      <Typography variant="h2" data-testid="next-reading">
        {next.do === "add" ? (
          <>
            {say`Add`}{" "}
            <span data-testid="advice" style={{ fontFamily: fonts.reading, color: colors.tealDeep }}>
              {next.ml.toFixed(2)}
            </span>{" "}
            {say(unitText("mL"))}
          </>
        ) : (
          say`Enough points`
        )}
      </Typography>
      <Typography color="textSecondary">{together(say(next.why))}.</Typography>
      {next.do === "add" && <ByTheory stage={stage} curve={curve} />}
    </Box>
  );
}

interface ByTheoryProps {
  readonly stage: CurveStageEvaluation;
  readonly curve: CurveEvaluation;
}

/** On the first curve: where the jump comes by what the method presumes, and whether to go by that. */
function ByTheory({ stage: { key, ahead }, curve: { expected } }: ByTheoryProps) {
  const say = useSay();
  const { send } = useRunInHand();
  if (expected.by !== "theory" || expected.ml.length === 0) return null;
  const near = expected.ml.map((ml) => ml.toFixed(1)).join(", ");
  const toggle = () =>
    void send({ intent: "choose", stageKey: key, name: "ahead", value: ahead ? "" : "theory" });
  return (
    <Typography color="textSecondary">
      {together(say`By what the method presumes, the jump comes near ${near} mL.`)}{" "}
      <Button size="small" onClick={toggle} sx={{ verticalAlign: "baseline" }}>
        {ahead ? say`Go by the points alone` : say`Go by that`}
      </Button>
    </Typography>
  );
}

interface BeakerProps {
  readonly entry: CurveEntry;
  readonly open: readonly Field[];
}

/** What is read before the first point, field by field. */
function Beaker({ entry, open }: BeakerProps) {
  const say = useSay();
  return (
    <Box sx={{ display: "grid", gap: 1.25, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
      {open.map((field, i) => (
        <ReadingBox
          key={fieldKey(field)}
          label={say(field.unit === "" ? field.label : say`${field.label}, ${unitText(field.unit)}`)}
          state={entry.stateOf(field)}
          caution={entry.cautionOf(field)}
          hint={say(field.hint)}
          next={i === 0}
          onType={(text) => entry.type(field, text)}
          onEnter={() => void entry.commit(field)}
        />
      ))}
    </Box>
  );
}

interface PairFormProps {
  readonly entry: CurveEntry;
  readonly curve: CurveEvaluation;
  readonly meter: Meter;
}

/** One pair: the burette, Enter, the meter, Enter. With a meter that reads by itself the second Enter takes what it shows, once it is steady. */
function PairForm({ entry, curve, meter }: PairFormProps) {
  const say = useSay();
  const { burette, point, input } = entry;
  const shown = useRef<HTMLInputElement>(null);
  if (!point) return null;
  const { label, unit } = meterOf(input);
  const { reading } = meter;
  const byItself = meter.state === "on" && entry.stateOf(point).is === "empty";
  const toMeter = () => {
    if (entry.heldUp(burette)) return;
    entry.pour();
    // At once, not when the beaker has changed: a second Enter right behind this one would take what was shown before.
    meter.unsettle();
    shown.current?.focus();
  };
  const save = () => {
    if (!byItself) return void entry.savePoint();
    if (reading?.stable) void entry.savePoint({ text: reading.text, unsteady: false });
  };
  const steadyHint = reading?.stable ? say`Enter takes what the meter shows` : say`on its way: wait`;
  const offered = curve.points.length === 0 ? say`as it stands` : say`as advised: type what it is`;
  return (
    <Box sx={{ display: "grid", gap: 1.25, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
      <ReadingBox
        label={say`Burette, ${unitText("mL")}`}
        state={entry.stateOf(burette)}
        caution={entry.cautionOf(burette)}
        hint={entry.stateOf(burette).is === "offered" ? offered : say`then Enter`}
        next
        onType={(text) => entry.type(burette, text)}
        onEnter={toMeter}
      />
      <ReadingBox
        label={unit === "" ? say(label) : say`${label}, ${unitText(unit)}`}
        state={entry.stateOf(point)}
        caution={entry.cautionOf(point)}
        hint={byItself ? steadyHint : say`when it is steady, then Enter`}
        next={false}
        inputRef={shown}
        onType={(text) => entry.type(point, text)}
        onEnter={save}
      />
    </Box>
  );
}

import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useLayoutEffect, useRef } from "react";
import type { TitrationEvaluation, TrialEvaluation } from "~/core/stages";
import { isDraft } from "~/core/change";
import type { Field } from "~/core/inputs";
import { fieldKey } from "~/core/method";
import { useCursor } from "../../../entry/cursor";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { afterPress } from "../../../ui/press";
import { ByInstrument } from "../shared/by-instrument";
import type { CorrectionTarget } from "../shared/correct-dialog";
import { ReadingField } from "./reading-field";
import type { soFar } from "./saved-group";
import { afterDrops } from "./after-drops";
import { savedReading, type TrialEntry } from "./use-trial-entry";
import { type Localized, useSay } from "../../../words/text";
import { unitText } from "~/core/text";

interface ReadingGroupProps {
  entry: TrialEntry;
  fields: readonly Field[];
  total: ReturnType<typeof soFar>;
  /** The field that the one button stands beside; null where that is in another group. */
  last: Field | null;
  quiet: boolean;
  /** The field that the cursor should stand in next. */
  next: Field | null;
  register: (key: string, element: HTMLInputElement | null) => void;
  onAdvance: (field: Field) => void;
  onRefill: (field: Field) => void;
  onCorrect: (target: CorrectionTarget) => void;
}

/** The readings that one quantity comes from, side by side, with what they come to and the button that records them. */
export function ReadingGroup(props: ReadingGroupProps) {
  const say = useSay();
  const { entry, fields, total, last, quiet, next, register, onAdvance, onRefill, onCorrect } = props;
  const { rules } = useRunInHand();
  const { stage, trialId } = entry;
  /** The final reading of the burette that is titrated with; that of a sample's is none. */
  const isEnd = (field: Field) => field.kind === "burette.final" && field.symbol === stage.titer;
  const previous = stage.trials.filter((t) => t.id !== trialId && !t.missing).at(-1);
  const remarkOf = remarksOn(entry, previous, onRefill, say);
  const leave = useLeave(entry, trialId);
  return (
    <Box
      sx={{
        display: "grid",
        gap: 1.5,
        alignItems: "start",
        gridTemplateColumns: { xs: "minmax(0,1fr) minmax(0,1fr)", sm: "repeat(3, minmax(0,1fr))" },
      }}
    >
      {fields.map((field) => (
        <ReadingField
          key={fieldKey(field)}
          field={field}
          state={entry.stateOf(field)}
          caution={entry.cautionOf(field)}
          present={savedReading(entry, field)}
          remark={remarkOf(field)}
          next={next !== null && fieldKey(next) === fieldKey(field)}
          inputRef={(element) => register(fieldKey(field), element)}
          onType={(text) => entry.type(field, text)}
          onEnter={() => onAdvance(field)}
          onSettle={(text) => entry.settle(field, text)}
          {...(field.kind === "burette.final"
            ? { onStep: (steps: number) => entry.type(field, afterDrops(entry, field, steps, rules)) }
            : {})}
          onLeave={() => leave(field)}
          onDrop={() => entry.drop(field)}
          onCorrect={() => onCorrect({ trialId, fieldKey: fieldKey(field) })}
        />
      ))}
      <Box sx={footLayout(total)}>
        <SoFar total={total} fields={fields} />
        {last && (
          <Button
            variant={quiet ? "outlined" : "contained"}
            onClick={() => onAdvance(last)}
            onMouseDown={(event) => event.preventDefault()}
            title={say`or press Enter`}
          >
            {isEnd(last) ? say`Record the end` : say`Record`}
          </Button>
        )}
        {last &&
          isEnd(last) &&
          entry.stateOf(last).text !== "" &&
          entry.stateOf(last).is !== "first of two" && <MaybeButton entry={entry} last={last} />}
        {last && fields.some(isEnd) && <RefillButton entry={entry} />}
      </Box>
      {last && <FromInstrument stage={stage} last={last} trialId={trialId} entry={entry} />}
    </Box>
  );
}

function SoFar({
  total,
  fields,
}: {
  readonly total: ReturnType<typeof soFar>;
  readonly fields: readonly Field[];
}) {
  const say = useSay();
  return (
    total && (
      <Box aria-live="polite">
        <Box sx={{ fontSize: "0.92rem", color: colors.inkSoft }}>
          {say`${total.label}, ${unitText(total.unit)}`}
        </Box>
        <Box
          data-testid={`so-far-${fields[0]?.symbol ?? ""}`}
          sx={{
            fontFamily: fonts.reading,
            fontSize: { xs: "1.75rem", sm: "1.9rem" },
            lineHeight: 1.2,
            color: total.value ? colors.ink : colors.lineStrong,
          }}
        >
          {total.value ?? "–"}
        </Box>
      </Box>
    )
  );
}

/** The burette does not last: refilled in the middle, with a reading before and one after. */
function RefillButton({ entry }: { readonly entry: TrialEntry }) {
  const say = useSay();
  const { refill, setRefill } = entry;
  const toNext = useCursor();
  if (refill === null || refill === "read") return null;
  const begun = refill === "begun";
  return (
    <Button
      size="small"
      onClick={() => {
        setRefill(!begun);
        toNext();
      }}
    >
      {begun ? say`No refill` : say`Refill midway`}
    </Button>
  );
}

function MaybeButton({ entry, last }: { readonly entry: TrialEntry; readonly last: Field }) {
  const say = useSay();
  return (
    <Button
      size="small"
      onClick={() => entry.markPossibleEnd(last)}
      onMouseDown={(event) => event.preventDefault()}
      title={say`or press Alt M`}
      data-act="maybe"
    >
      {say`Possible end point: mark it`}
    </Button>
  );
}

const footLayout = (total: ReturnType<typeof soFar>) =>
  ({
    px: 0.5,
    pt: total ? { sm: 1.1 } : 0,
    display: "flex",
    flexDirection: { xs: "row", sm: "column" },
    gridColumn: { xs: "1 / -1", sm: "auto" },
    justifyContent: { xs: "space-between", sm: "flex-start" },
    alignItems: { xs: "center", sm: "flex-start" },
    gap: 1,
    flexWrap: "wrap",
  }) as const;

interface FromInstrumentProps {
  readonly stage: TitrationEvaluation;
  readonly last: Field;
  readonly trialId: string;
  readonly entry: TrialEntry;
}

function FromInstrument({ stage, last, trialId, entry }: FromInstrumentProps) {
  return (
    <Box sx={{ gridColumn: "1 / -1", "&:empty": { display: "none" } }}>
      <ByInstrument
        stage={stage.definition}
        field={last}
        flask={trialId}
        onTake={(shown) => entry.take(last, shown)}
      />
    </Box>
  );
}

/** Who goes elsewhere keeps what was typed. */
function useLeave(entry: TrialEntry, trialId: string) {
  const latest = useRef(entry);
  useLayoutEffect(() => {
    latest.current = entry;
  });
  return (field: Field) => {
    // The press itself may have changed this flask, or taken another one in hand.
    afterPress(() => (latest.current.trialId === trialId ? latest.current : entry).leave(field));
  };
}

/** What has been read of something that is read as often as people like. */
function readSoFar({ stage, trialId }: TrialEntry, field: Field, say: Localized) {
  const trial = stage.trials.find((t) => t.id === trialId);
  const state = trial?.fields.find((f) => fieldKey(f.field) === fieldKey(field));
  const texts = (state?.readings ?? []).filter((o) => !isDraft(o)).map(({ text }) => text);
  return texts.length === 0 ? undefined : say`read so far: ${texts.join(", ")}`;
}

function remarksOn(
  entry: TrialEntry,
  previous: TrialEvaluation | undefined,
  onRefill: (field: Field) => void,
  say: Localized,
) {
  return (field: Field) => {
    if (field.many) return readSoFar(entry, field, say);
    if (entry.stateOf(field).is !== "offered") return undefined;
    if (field.kind === "volume.taken") return say`as before, or change it: ${field.hint}`;
    const from = previous ? say`carried from ${previous.words}` : say`this lab starts here`;
    return (
      <>
        {from}
        <Button size="small" sx={{ minHeight: 28, py: 0, px: 0.75 }} onClick={() => onRefill(field)}>
          {say`Refilled`}
        </Button>
      </>
    );
  };
}

import Box from "@mui/material/Box";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useRef } from "react";
import { v7 as newId } from "uuid";
import { capitalized, msg } from "~/core/text";
import { nextTrialNumber } from "~/core/record";
import { type Condition, fieldKey, maybeMarks, ribbonNow, timedConditions } from "~/core/method";
import type { Field } from "~/core/inputs";
import { isAdapted } from "~/core/run";
import { unconfirmedVolumes } from "~/core/stages";
import { ColorRibbon } from "../../../ui/color-ribbon";
import { Sheet } from "../../../ui/sheet";
import { ReagentsAhead, type TypedVolumes } from "./ahead";
import type { CorrectionTarget } from "../shared/correct-dialog";
import { KeepTo } from "../shared/conditions";
import { EndWatch } from "./end-watch";
import { FlaskBar } from "./flask-bar";
import { GuidanceLine } from "./guidance-line";
import { MaybeMarks } from "./maybe-marks";
import { PoorIndicator } from "./poor-indicator";
import { ReadingGroup } from "./reading-group";
import { SavedGroup, soFar } from "./saved-group";
import { useCursor, useCursorOn } from "../../../entry/cursor";
import { isOpen, isTouched } from "../../../entry/field";
import { useRunInHand } from "../../../entry/run-context";
import { savedReading, type TrialEntry } from "./use-trial-entry";
import { useSay } from "../../../words/text";

// The theory of end points comes once the readings can be typed.

interface TrialEntrySheetProps {
  entry: TrialEntry;
  onCorrect: (target: CorrectionTarget) => void;
}

/** What stands in the fields for volumes, typed, offered or saved. */
const volumesIn = (entry: TrialEntry): TypedVolumes =>
  new Map(
    entry.fields
      .filter(({ kind }) => kind === "volume.taken" || kind === "mass.tared" || kind === "drops")
      .map((field) => [field.symbol, savedReading(entry, field)?.text ?? entry.stateOf(field).text]),
  );

/** The working place of the trial in hand: the expected end point, the fields in the order of the work, the colors. */
export function TrialEntrySheet({ entry, onCorrect }: TrialEntrySheetProps) {
  const say = useSay();
  const { record: run, rules, send } = useRunInHand();
  const { stage, fields, trialId, closed } = entry;
  const { definition } = stage;
  const record = run.stages.find((s) => s.key === stage.key);
  const inputs = useRef(new Map<string, HTMLInputElement>());
  const trial = stage.trials.find((t) => t.id === trialId) ?? null;
  const groups = [...new Set(fields.map((f) => f.symbol))];
  const presentOf = (field: Field) => savedReading(entry, field);
  const firstOpen = fields.find((f) => isOpen(entry.stateOf(f)));
  const touched = fields.findLast((f) => isTouched(entry.stateOf(f)));
  // Once the set is closed, Enter should not begin another trial by itself.
  const next = closed && !touched && entry.chosen === null ? null : (firstOpen ?? null);

  const toNext = useCursor();
  const unconfirmed = unconfirmedVolumes(definition, record?.observations ?? []).length > 0;
  useCursorOn(entry.completed, entry.chosen, unconfirmed);

  const advance = (from: Field) => {
    if (!entry.commit(from)) return;
    const at = fields.findIndex((f) => fieldKey(f) === fieldKey(from));
    const following = fields.slice(at + 1).find((f) => isOpen(entry.stateOf(f)));
    if (following) inputs.current.get(fieldKey(following))?.focus();
    else toNext();
  };
  const refill = (field: Field) => {
    entry.type(field, "");
    inputs.current.get(fieldKey(field))?.focus();
  };
  const register = (key: string, element: HTMLInputElement | null) => {
    if (element) inputs.current.set(key, element);
    else inputs.current.delete(key);
  };

  // The one button stands beside what is being typed, else beside what waits.
  const last = touched ?? firstOpen;
  const titer = definition.inputs.find((input) => input.is === "titer")?.symbol ?? "";
  const expectsSomething =
    definition.presumed !== undefined || stage.trials.some((t) => t.result && !t.record.struck);
  const conditions = definition.conditions ?? [];
  const untouched = !fields.some((f) => f.symbol === titer && presentOf(f));

  const planned = record?.timers?.find((t) => t.trialId === trialId)?.flask;
  const flask = say(trial ? trial.words : (planned ?? msg`the next flask`));
  const isRough = trial
    ? trial.record.kind === "rough" && trial.record.label === null
    : !planned && entry.kind === "rough";
  const begun = trial ?? planned;
  const heading = isRough
    ? say`Rough trial`
    : capitalized(begun ? flask : msg`trial ${nextTrialNumber(record?.trials ?? [])}`);
  const startTime = (condition: Condition) =>
    void send({
      intent: "start-timer",
      id: newId(),
      stageKey: stage.key,
      trialId: entry.idInHand(),
      what: condition.what,
      flask,
      counts: condition.counts ?? "for",
      seconds: 60 * (condition.minutes ?? 1),
      strict: condition.strict ?? false,
      inSeconds: null,
    }).then(toNext);
  const marks = maybeMarks(trial?.record.observations ?? [], titer);
  const final = fields.find((f) => f.symbol === titer && f.kind === "burette.final");
  const endText = final ? entry.stateOf(final).text : "";
  const temperature = entry.outOfTurn("temperature.flask");

  return (
    <Sheet component="section" aria-label={say`Trial in hand`} sx={{ display: "grid", gap: 1.5 }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, flexWrap: "wrap" }}>
        <Typography variant="h2">{say(heading)}</Typography>
        <Typography variant="body2" color="textSecondary" sx={{ flexGrow: 1 }}>
          {definition.indicator}
        </Typography>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={entry.kind}
          aria-label={say`Does it count?`}
          onChange={(_event, kind: "rough" | "fine" | null) => kind && entry.setKind(kind)}
        >
          <ToggleButton value="rough">{say`rough`}</ToggleButton>
          <ToggleButton value="fine">{say`counts`}</ToggleButton>
        </ToggleButtonGroup>
      </Box>
      <FlaskBar
        entry={entry}
        standing={timedConditions(conditions).find((c) => (c.counts ?? "for") === "for")}
      />
      <EndWatch stage={record} />
      <GuidanceLine
        guidance={entry.guidance}
        missing={firstOpen ?? null}
        closed={closed && !touched}
        first={expectsSomething && firstOpen !== undefined && firstOpen.symbol !== titer}
        stage={definition}
        onDone={toNext}
      />
      {untouched && !closed && (
        <ReagentsAhead
          reagents={definition.reagents ?? []}
          inputs={definition.inputs}
          typed={volumesIn(entry)}
          undiluted={isAdapted(run, definition.key, "undiluted")}
        />
      )}
      <KeepTo
        conditions={conditions}
        timers={record?.timers?.filter((t) => t.trialId === trialId) ?? []}
        onStart={startTime}
        onEnd={(timer) => void send({ intent: "end-timer", timerId: timer.id, outcome: "done" }).then(toNext)}
      />
      {[...groups, ...(temperature ? [null] : [])].map((symbol) => {
        const group =
          symbol === null ? (temperature ? [temperature] : []) : fields.filter((f) => f.symbol === symbol);
        const total = symbol === null ? null : soFar(stage, trial, symbol, rules);
        if (symbol !== null && group.every((field) => presentOf(field))) {
          return (
            <SavedGroup
              key={symbol}
              readings={group.map((field) => ({ field, observation: presentOf(field) }))}
              total={total}
              onCorrect={(field) => onCorrect({ trialId, fieldKey: fieldKey(field) })}
            />
          );
        }
        const own =
          symbol === null
            ? temperature && entry.stateOf(temperature).text !== ""
              ? temperature
              : null
            : last;
        return (
          <ReadingGroup
            key={symbol ?? "warm"}
            entry={entry}
            fields={group}
            total={total}
            last={own && group.includes(own) ? own : null}
            quiet={closed && !touched}
            next={next}
            register={register}
            onAdvance={advance}
            onRefill={refill}
            onCorrect={onCorrect}
          />
        );
      })}
      <MaybeMarks
        marks={marks}
        end={null}
        onChoose={(mark) => final && entry.take(final, mark.text, "typed")}
      />
      <ColorRibbon
        steps={definition.ribbon}
        now={ribbonNow(definition.ribbon, {
          now: endText !== "" && Number.isFinite(Number(endText)) ? Number(endText) : null,
          slowAt: entry.guidance?.slowAt ?? null,
          endNear: entry.guidance?.from === "presumed" ? null : (entry.guidance?.endNear ?? null),
        })}
      />
      <PoorIndicator stageKey={stage.key} />
    </Sheet>
  );
}

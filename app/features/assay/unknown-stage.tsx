import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { v7 as newId } from "uuid";
import { toSignificant } from "~/core/quantity";
import {
  fieldKey,
  plusMinusWords,
  presentObservation,
  type RunEvaluation,
  type SampleEvaluation,
  trialFields,
  trialWords,
  type UnknownEvaluation,
} from "~/core/run";
import { absorberNear, cuvetteOf } from "~/devices";
import { colors, fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { CautionPanel } from "../run/panels";
import { ShelveButton } from "../run/shelve";
import { StageReadings } from "../run/stage-readings";
import { StrikeDialog } from "../run/trial-dialogs";
import type { LiveRun } from "../run/use-run";
import { BootstrapPanel } from "./bootstrap-panel";
import { column } from "./layout";
import { tintOf } from "./tint";
import { CuvetteSheet } from "./cuvette-sheet";
import { LineChart } from "./line-chart";
import { ReadingChip, ReadingDialog, type ReadingTarget } from "./reading-dialog";
import { type CuvetteTarget, useCuvette } from "./use-cuvette";
import { hidden, usePhotometer } from "./use-photometer";
import { useReader, wavelengthOf } from "./use-reader";

interface UnknownStageProps {
  run: LiveRun;
  stage: UnknownEvaluation;
  evaluation: RunEvaluation;
}

/** Usual values of the fields of a flask, and those of the flask before. */
function proposalsOf(stage: UnknownEvaluation): Record<string, string> {
  const last = stage.trials.at(-1);
  const proposals: Record<string, string> = {};
  for (const input of stage.definition.inputs) {
    const usual = input.is === "pipette" || input.is === "flask" ? input.presumed : undefined;
    for (const kind of ["volume.taken", "given"] as const) {
      const before = last && presentObservation(last.record.observations, input.symbol, kind)?.text;
      const value = before ?? (kind === "volume.taken" ? usual : undefined);
      if (value !== undefined) proposals[`${input.symbol}:${kind}`] = value;
    }
  }
  return proposals;
}

/** The unknown: its flasks and readings, the amount read off, carried back to the sample, and what to think of it. */
export function UnknownStageView({ run, stage, evaluation }: UnknownStageProps) {
  const { record, send } = run;
  const { definition } = stage;
  const [person, setPerson] = useReader(record.bench);
  const readOff = definition.inputs.find((i) => i.is === "read-off");
  const symbol = readOff?.reading ?? "A";
  const line = evaluation.stages.find((s) => s.key === stage.lineOf);
  const calibration = line?.kind === "calibration" ? line : null;
  const open = stage.trials.find((t) => t.missing && !t.record.struck);
  const [asked, setAsked] = useState<string | null>(null);
  const [fresh, setFresh] = useState(() => newId());
  const which = asked ?? open?.id ?? "new";
  const sample = stage.trials.find((t) => t.id === which) ?? null;
  const [opened, setOpened] = useState<ReadingTarget | null>(null);
  const [striking, setStriking] = useState<SampleEvaluation | null>(null);
  const locked = record.status !== "open";
  const target = useMemo((): CuvetteTarget => {
    const fields = trialFields(definition, record.houseRules).filter((f) => !f.optional);
    const there = new Set(sample?.fields.filter((f) => f.present).map((f) => fieldKey(f.field)));
    return {
      trialId: sample?.id ?? fresh,
      symbol,
      fields: fields.filter((f) => !there.has(fieldKey(f))),
      proposals: proposalsOf(stage),
      observations: sample?.record.observations ?? [],
    };
  }, [definition, record.houseRules, sample, fresh, symbol, stage]);
  const cuvette = useCuvette({
    draftKey: `cuvette:${record.id}:${stage.key}:${which}`,
    target,
    stage: definition,
    rules: record.houseRules,
    person,
    send,
    onSaved: () => {
      // The same flask stays in hand: an unknown is read several times.
      setAsked(target.trialId);
      setFresh(newId());
    },
  });
  const nm = wavelengthOf(evaluation);
  const strongest = calibration?.definition.strongest ?? 0.7;
  const absorbance = strongest * (0.5 + 0.2 * hidden(record.id));
  const photometer = usePhotometer(record.id, nm, cuvetteOf(absorberNear(nm), nm, absorbance), which);
  const name = sample
    ? trialWords(sample.name).replace(/^trial/, "flask")
    : `flask ${stage.trials.length + 1}`;
  return (
    <>
      <StageReadings
        stage={stage}
        record={record.stages.find((s) => s.key === stage.key)}
        evaluation={evaluation}
        run={record}
        rules={record.houseRules}
        locked={locked}
        send={send}
      />
      <Box
        sx={{
          display: "grid",
          gap: 2,
          mt: 1.25,
          alignItems: "start",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 5fr) minmax(0, 7fr)" },
        }}
      >
        <Box sx={column}>
          {!locked && (
            <CuvetteSheet
              title={`Unknown, ${name}`}
              prompt="Rinse the cuvette with it, fill it, wipe it. Read it as often as the standards were."
              tint={tintOf(calibration?.definition.color ?? "#8899aa", 0.55)}
              target={target}
              cuvette={cuvette}
              person={person}
              onPerson={setPerson}
              photometer={photometer}
              canCheck={false}
            >
              {sample && (
                <Button size="small" onClick={() => setAsked("new")} sx={{ justifySelf: "start", ml: -1 }}>
                  Another flask of it
                </Button>
              )}
            </CuvetteSheet>
          )}
          {stage.trials.length > 0 && (
            <Sheet
              component="section"
              aria-label="Flasks of the unknown"
              sx={{ p: 1.25, display: "grid", gap: 1, order: { xs: 2, md: 0 } }}
            >
              {stage.trials.map((t) => (
                <Flask
                  key={t.id}
                  sample={t}
                  unit={calibration?.definition.axis.unit ?? ""}
                  symbol={symbol}
                  locked={locked}
                  onOpen={setOpened}
                  onTakeUp={() => setAsked(t.id)}
                  onStrike={() =>
                    t.record.struck ? void send({ intent: "restore", trialId: t.id }) : setStriking(t)
                  }
                />
              ))}
            </Sheet>
          )}
          <Box sx={{ order: 9 }}>
            <CautionPanel definition={definition} />
          </Box>
        </Box>
        <Box sx={column}>
          <ResultSheet run={run} stage={stage} evaluation={evaluation} />
          {calibration && <LineChart stage={calibration} unknown={stage} title={record.title} />}
          {calibration && <BootstrapPanel stage={stage} calibration={calibration} />}
        </Box>
      </Box>
      {opened && (
        <ReadingDialog target={opened} stageKey={stage.key} send={send} onClose={() => setOpened(null)} />
      )}
      {striking && <StrikeDialog trial={striking} send={send} onClose={() => setStriking(null)} />}
    </>
  );
}

interface FlaskProps {
  sample: SampleEvaluation;
  unit: string;
  symbol: string;
  locked: boolean;
  onOpen: (target: ReadingTarget) => void;
  onTakeUp: () => void;
  onStrike: () => void;
}

function Flask({ sample, unit, symbol, locked, onOpen, onTakeUp, onStrike }: FlaskProps) {
  const { readings, off, record, shownResult, cautions, problem } = sample;
  const name = trialWords(sample.name).replace(/^trial/, "Flask");
  const taken = sample.fields
    .filter(({ field, present }) => present && !field.many)
    .map(({ field, present }) => `${present?.text ?? ""}${field.unit === "" ? "" : ` ${field.unit}`}`)
    .join(", ");
  return (
    <Box sx={{ borderTop: `1px solid ${colors.line}`, pt: 0.75, "&:first-of-type": { borderTop: 0, pt: 0 } }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, flexWrap: "wrap" }}>
        <Box sx={{ fontWeight: 700, textDecoration: record.struck ? "line-through" : "none" }}>{name}</Box>
        <Box sx={{ color: colors.inkSoft, flexGrow: 1 }}>{taken}</Box>
        {!locked && (
          <>
            <Button size="small" onClick={onTakeUp} sx={{ minWidth: 0 }}>
              read again
            </Button>
            <Button
              size="small"
              onClick={onStrike}
              sx={{ minWidth: 0 }}
              aria-label={`${record.struck ? "Restore" : "Strike out"} ${name.toLowerCase()}`}
            >
              {record.struck ? "restore" : "strike"}
            </Button>
          </>
        )}
      </Box>
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 0.5 }}>
        {readings.map((reading) => (
          <ReadingChip
            key={reading.id}
            reading={reading}
            off={false}
            locked={locked}
            onOpen={() => onOpen({ reading, flask: name.toLowerCase(), trialId: sample.id, symbol })}
          />
        ))}
        {off && (
          <Box sx={{ fontFamily: fonts.reading, color: colors.pinkDeep, fontWeight: 600 }}>
            → {toSignificant(off.x, 4)} {unit}
          </Box>
        )}
        {shownResult && <Box sx={{ color: colors.inkSoft }}>so {shownResult.text}</Box>}
      </Box>
      {record.struck && (
        <Box sx={{ color: colors.amberDeep, fontSize: "0.9rem" }}>struck out: {record.struck.reason}</Box>
      )}
      {problem && <Box sx={{ color: colors.brick }}>{problem}.</Box>}
      {!record.struck &&
        cautions.map(({ message }) => (
          <Alert key={message} severity="warning" sx={{ py: 0, mt: 0.5 }}>
            {message}.
          </Alert>
        ))}
    </Box>
  );
}

function ResultSheet({ run, stage, evaluation }: UnknownStageProps) {
  const { record, send } = run;
  const { shown, combined, also, shares, acceptance, definition } = stage;
  const order = evaluation.stages.findIndex((s) => s.key === stage.key);
  const next = evaluation.stages[order + 1];
  return (
    <Sheet
      component="section"
      aria-label="Result"
      sx={{ order: { xs: 3, md: 0 }, ...(stage.done ? { borderColor: colors.teal, borderWidth: 2 } : {}) }}
    >
      <Typography data-testid="next-reading" sx={{ fontWeight: 700, color: colors.tealDeep, mb: 0.5 }}>
        {stage.next}.
      </Typography>
      <Typography color="textSecondary">{definition.result.name}</Typography>
      <Box data-testid="result" sx={{ fontFamily: fonts.reading, fontSize: "1.9rem", lineHeight: 1.2 }}>
        {shown?.text ?? "–"}
      </Box>
      {shown && combined && (
        <Typography variant="body2" color="textSecondary">
          {combined.count === 1 ? "from one flask" : `mean of ${combined.count} flasks`}, ± is{" "}
          {plusMinusWords[record.houseRules.plusMinus]}.{" "}
          {shares
            .filter((s) => s.part >= 0.01)
            .slice(0, 3)
            .map((s) => `${s.label} ${Math.round(100 * s.part)} %`)
            .join(", ")}{" "}
          of it.
        </Typography>
      )}
      {also.map(({ definition: { symbol, name }, shown: other }) => (
        <Typography key={symbol}>
          {name}: <span style={{ fontFamily: fonts.reading }}>{other.text}</span>
        </Typography>
      ))}
      {acceptance && (
        <Typography data-testid="acceptance" sx={{ mt: 0.5, fontWeight: 600 }}>
          {acceptance.text}
        </Typography>
      )}
      {shown && (
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", mt: 1.25 }}>
          {next && (
            <Button component={Link} to={`?stage=${next.key}`} variant="contained" preventScrollReset>
              Go on: {next.definition.title}
            </Button>
          )}
          <Button component={Link} to={`working?stage=${stage.key}`} relative="path" variant="outlined">
            Show the working
          </Button>
          <ShelveButton stage={stage} record={record} send={send} />
        </Box>
      )}
    </Sheet>
  );
}

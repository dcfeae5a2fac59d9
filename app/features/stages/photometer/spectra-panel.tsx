import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMemo, useRef, useState } from "react";
import { v7 as newId } from "uuid";
import { takenBack, type StageRecord, type TraceRecord } from "~/core/record";
import type { PreparationEvaluation } from "~/core/stages";
import { proposeWavelengths } from "~/core/spectra";
import {
  absorberNear,
  cuvetteOf,
  type PhotometerConnection,
  shownDecimals,
  simulatedPhotometer,
} from "~/devices";
import { lineOfTrace } from "~/formats/lines/line";
import type { ReadTrace } from "~/formats/trace-file";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { Chart } from "../../../ui/chart/chart";
import { Sheet } from "../../../ui/sheet";
import { spectrumOption, shownSpectrum, type ShownSpectrum } from "./spectrum-option";
import { SaveLine } from "../shared/save-line";
import { TraceImport } from "./trace-import";
import { hidden } from "./use-photometer";
import { useReader } from "./use-reader";
import { useSay } from "../../../words/text";
import { type Phrase } from "~/core/text";

interface SpectraPanelProps {
  stage: PreparationEvaluation;
  record: StageRecord | undefined;
}

/** Spectra of a stage, laid over one another, and the wavelength that they speak for. */
export function SpectraPanel({ stage, record }: SpectraPanelProps) {
  const say = useSay();
  const run = useRunInHand();
  const { send } = run;
  const usualNm = stage.definition.spectra?.usualNm ?? 500;
  const [person] = useReader(run.record.bench);
  const [scanning, setScanning] = useState<ShownSpectrum | null>(null);
  const [trouble, setTrouble] = useState<Phrase | null>(null);
  const connection = useRef<PhotometerConnection | null>(null);
  const locked = run.record.status !== "open";
  const traces = (record?.traces ?? []).filter((t) => t.xUnit === "nm" && t.removed?.reason !== takenBack);
  const shown = traces.filter((t) => !t.removed);
  const strongest = [...shown].sort((a, b) => Math.max(...b.absorbance) - Math.max(...a.absorbance))[0];
  const proposals = useMemo(
    () =>
      strongest ? proposeWavelengths({ nm: strongest.x, absorbance: strongest.absorbance }).slice(0, 3) : [],
    [strongest],
  );
  const field = stage.stageFields[0];
  const present = field?.present ?? null;
  const chosenNm = present ? Number(present.value) : null;
  const option = useMemo(
    () =>
      spectrumOption(
        scanning ? [...shown.map(shownSpectrum), scanning] : shown.map(shownSpectrum),
        chosenNm,
        say,
      ),
    [shown, scanning, chosenNm, say],
  );
  const keep = ({ name, x, absorbance, decimals }: ReadTrace, source: TraceRecord["source"]) =>
    send({
      intent: "trace",
      id: newId(),
      stageKey: stage.key,
      trialId: null,
      readings: [],
      name,
      xUnit: "nm",
      x: [...x],
      absorbance: [...absorbance],
      ...(decimals ? { decimals } : {}),
      source,
      person,
    }).then((answer) => setTrouble(answer.status === "done" ? null : answer.message));
  const take = (nm: number) => {
    if (!field) return;
    void send({
      intent: "observe",
      id: newId(),
      stageKey: stage.key,
      trial: null,
      symbol: field.field.symbol,
      kind: field.field.kind,
      text: String(nm),
      supersedes: present?.id ?? null,
      reason: present ? say`another wavelength chosen` : null,
    }).then((answer) => setTrouble(answer.status === "done" ? null : answer.message));
  };
  const scan = () => {
    void (async () => {
      const made = await simulatedPhotometer({
        seed: 1 + Math.round(1000 * (1 + hidden(run.record.id))) + traces.length,
      }).connect();
      if (!made.ok) return setTrouble(made.problem.message);
      connection.current = made.value;
      const absorber = absorberNear(usualNm);
      made.value.insert(cuvetteOf(absorber, usualNm, 0.42 + 0.08 * hidden(run.record.id)));
      const [x, absorbance]: [number[], number[]] = [[], []];
      const to = usualNm > 700 ? 1000 : 760;
      const name = say`scan ${traces.length + 1}`;
      made.value.scan(
        { fromNm: 400, toNm: to, stepNm: 2 },
        (nm, a) => {
          x.push(nm);
          absorbance.push(a);
          if (x.length % 10 === 0) setScanning({ name, x: [...x], absorbance: [...absorbance] });
        },
        () => {
          made.value.disconnect();
          connection.current = null;
          const decimals = { x: 0, absorbance: shownDecimals };
          void keep({ name, x, absorbance, decimals }, "instrument").then(() => setScanning(null));
        },
      );
    })();
  };
  return (
    <Sheet component="section" aria-label={say`Spectra`} sx={{ display: "grid", gap: 1.25, minWidth: 0 }}>
      <Typography variant="h2">{say`Spectrum`}</Typography>
      {shown.length > 0 || scanning ? (
        <Chart
          label={say`Absorbance against wavelength: ${shown.map((t) => t.name).join(", ")}`}
          option={option}
          height={340}
          fileName={`${run.record.title} spectrum`}
          many={shown.some((t) => t.x.length > 2000)}
        />
      ) : (
        <Typography color="textSecondary">
          {say`No spectrum yet. Scan a colored standard against the blank, import a file, or type the usual wavelength (${usualNm} nm).`}
        </Typography>
      )}
      {!locked && (
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "flex-start" }}>
          <Button
            size="small"
            variant={shown.length === 0 ? "contained" : "outlined"}
            disabled={scanning !== null}
            onClick={scan}
          >
            {scanning ? say`Scanning …` : say`Scan with the simulated spectrometer`}
          </Button>
          <TraceImport
            kind="nm"
            label={say`From a file (CSV, JCAMP-DX)`}
            onRead={(read) => {
              void (async () => {
                for (const t of read) await keep(t, "imported");
              })();
            }}
          />
          {chosenNm === null && (
            <Button size="small" onClick={() => take(usualNm)}>
              {say`Take the usual ${usualNm} nm`}
            </Button>
          )}
        </Box>
      )}
      {trouble && <Typography sx={{ color: colors.brick }}>{say(trouble)}</Typography>}
      {proposals.map((p) => (
        <Box
          key={p.nm}
          data-testid="proposed-wavelength"
          sx={{
            display: "flex",
            gap: 1.5,
            alignItems: "flex-start",
            borderTop: `1px solid ${colors.line}`,
            pt: 1,
          }}
        >
          <Box
            sx={{
              fontFamily: fonts.reading,
              fontSize: "1.25rem",
              whiteSpace: "nowrap",
              color: p.best ? colors.ink : colors.inkSoft,
            }}
          >
            {say`${p.nm} nm`}
          </Box>
          <Typography sx={{ flexGrow: 1 }}>{say`${p.reason} A = ${p.absorbance.toFixed(3)}.`}</Typography>
          {!locked && chosenNm !== p.nm && (
            <Button
              variant={p.best && chosenNm === null ? "contained" : "outlined"}
              size="small"
              sx={{ flex: "none" }}
              onClick={() => take(p.nm)}
            >
              {say`Take ${p.nm} nm`}
            </Button>
          )}
        </Box>
      ))}
      {traces.length > 0 && (
        <Box
          component="ul"
          aria-label={say`Spectra kept`}
          sx={{ listStyle: "none", p: 0, m: 0, color: colors.inkSoft }}
        >
          {traces.map((t) => (
            <Box
              component="li"
              key={t.id}
              sx={{ display: "flex", alignItems: "center", gap: 1, flexWrap: "wrap" }}
            >
              <span style={{ textDecoration: t.removed ? "line-through" : "none" }}>
                {say`${t.name}, ${t.x.length} points,`} {t.x[0]} {say`to`} {t.x.at(-1)} {say`nm`}
              </span>
              <SaveLine line={lineOfTrace(t)} />
              {!locked && (
                <Button
                  size="small"
                  onClick={() =>
                    void send(
                      t.removed
                        ? { intent: "bring-back", traceId: t.id }
                        : { intent: "put-away", traceId: t.id, reason: say`not used` },
                    )
                  }
                >
                  {t.removed ? say`Restore` : say`Archive`}
                </Button>
              )}
            </Box>
          ))}
        </Box>
      )}
    </Sheet>
  );
}

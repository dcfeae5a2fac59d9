import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { ComponentType } from "react";
import { ribbonColumns } from "../columns";
import type { StageDraft } from "../draft-types";
import { PhotometerPart } from "../photometer-part";
import { Rows } from "../rows";
import { Part, type StagePart, StageText } from "../stage-parts";
import { useSay } from "../../../../words/text";

/** What the editor shows of a stage beside what all kinds have; each part where it belongs. */
interface OwnParts {
  /** After what is read. */
  readonly Readings?: ComponentType<StagePart>;
  /** Beside what the result is for. */
  readonly Judgement?: ComponentType<StagePart>;
  /** Before what is added and done. */
  readonly Course?: ComponentType<StagePart>;
}

/** When titrations agree, and what they are expected to come to. */
function Agreement({ stage, onChange }: StagePart) {
  const say = useSay();
  const amounts = stage.inputs.filter(
    (row) =>
      row.per === "trial" && !["titer", "temperature", "pH", "result", "constant"].includes(row.is ?? ""),
  );
  return (
    <>
      <TextField
        select
        size="small"
        label={say`What must agree`}
        value={stage.agree}
        onChange={(event) => onChange({ agree: event.target.value })}
      >
        <MenuItem value="titers">{say`the titers`}</MenuItem>
        {amounts.map((row) => (
          <MenuItem key={row.symbol} value={row.symbol ?? ""}>
            {say`titers taken per`} {row.symbol}
          </MenuItem>
        ))}
        <MenuItem value="results">{say`the results`}</MenuItem>
      </TextField>
      <StageText
        stage={stage}
        onChange={onChange}
        name="presumed"
        label={say`Result presumed`}
        help={say`for guidance, plans and the preview`}
      />
      <StageText stage={stage} onChange={onChange} name="expectLow" label={say`Titers from, mL`} />
      <StageText stage={stage} onChange={onChange} name="expectHigh" label={say`Titers to, mL`} />
      <TextField
        select
        size="small"
        label={say`Meniscus, read at the`}
        value={stage.meniscus}
        onChange={(event) => onChange({ meniscus: event.target.value })}
      >
        <MenuItem value="bottom">{say`bottom`}</MenuItem>
        <MenuItem value="top">{say`top (dark liquids)`}</MenuItem>
      </TextField>
    </>
  );
}

/** How the end of a titration is seen. */
function EndPoint({ stage, onChange }: StagePart) {
  const say = useSay();
  return (
    <>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
        <StageText stage={stage} onChange={onChange} name="indicator" label={say`Indicator`} />
        <StageText
          stage={stage}
          onChange={onChange}
          name="persistence"
          label={say`How long the end-point color must persist`}
        />
        <StageText
          stage={stage}
          onChange={onChange}
          name="persistSeconds"
          label={say`Persistence, s (for the stopwatch)`}
          help={say`30 if empty`}
        />
        <StageText
          stage={stage}
          onChange={onChange}
          name="flaskPh"
          label={say`pH in the flask`}
          help={say`decides which indicator shows the end of a metal or redox titration; leave empty for acid and base`}
        />
        <StageText
          stage={stage}
          onChange={onChange}
          name="flaskAmmonia"
          label={say`Free ammonia in the flask, mol/L`}
          help={say`of an ammonia buffer; it holds copper, zinc and nickel back`}
        />
        <StageText
          stage={stage}
          onChange={onChange}
          name="flaskMagnesium"
          label={say`Magnesium added as its EDTA complex, mol/L`}
          help={say`sharpens the end with eriochrome black T`}
        />
      </Box>
      <Part title={say`Flask color during the titration`}>
        <Rows
          name={say`Color`}
          rows={stage.ribbon}
          columnsOf={() => ribbonColumns}
          fresh={{ color: "#eef1ee", looks: "", do: "", end: "" }}
          onChange={(ribbon) => onChange({ ribbon })}
        />
      </Part>
    </>
  );
}

/** The standards of a photometer's line. */
function Standards({ stage, onChange }: StagePart) {
  const say = useSay();
  return stage.carried?.kind === "calibration" ? (
    <Part
      title={say`The standards and their line`}
      note={say`The amount in each flask, and what is usually taken for it.`}
    >
      <PhotometerPart stage={stage.carried} onChange={(carried) => onChange({ carried })} />
    </Part>
  ) : null;
}

export const ownParts: Readonly<Record<StageDraft["kind"], OwnParts>> = {
  titration: { Judgement: Agreement, Course: EndPoint },
  preparation: {},
  calibration: { Readings: Standards },
  unknown: {},
  rate: {},
  curve: {},
  isotherm: {},
};

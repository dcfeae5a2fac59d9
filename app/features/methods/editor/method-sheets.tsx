import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { MethodProblem } from "~/core/stages";
import { type Result, problemText } from "~/core/result";
import type { Method } from "~/core/method";
import { type Preview } from "./preview";
import { familyTitles } from "../families";
import { fonts } from "../../../theme/theme";
import { Sheet } from "../../../ui/sheet";
import { substanceColumns } from "./columns";
import type { MethodDraft } from "./draft-types";
import { Equations } from "./equations";
import { PreviewPanel } from "./preview-panel";
import { SavePanel } from "./save-panel";
import { Rows } from "./rows";
import { useSay } from "../../../words/text";
import { type Phrase } from "~/core/text";

export function WhatItIs({ draft, change }: SheetProps) {
  const say = useSay();
  return (
    <Sheet component="section" aria-label={say`What it is`} sx={{ p: 2.25, display: "grid", gap: 1.75 }}>
      <Typography variant="h2">{say`What it is`}</Typography>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "2fr 1fr" } }}>
        <TextField
          size="small"
          label={say`Title`}
          value={draft.title}
          onChange={(event) => change({ title: event.target.value })}
        />
        <TextField
          select
          size="small"
          label={say`Family`}
          value={draft.family}
          onChange={(event) => change({ family: event.target.value as Method["family"] })}
        >
          {Object.keys(familyTitles).map((family) => (
            <MenuItem key={family} value={family}>
              {family}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      <TextField
        size="small"
        label={say`What it is for`}
        value={draft.purpose}
        onChange={(event) => change({ purpose: event.target.value })}
        multiline
      />
    </Sheet>
  );
}

export function ReactionSheet({ draft, change }: SheetProps) {
  const say = useSay();
  return (
    <Sheet component="section" aria-label={say`Reaction`} sx={{ p: 2.25 }}>
      <Typography variant="h2" sx={{ mb: 1.5 }}>
        {say`Reaction`}
      </Typography>
      <Equations rows={draft.equations} onChange={(equations) => change({ equations })} />
      <Typography variant="h3" sx={{ mt: 2, mb: 1 }}>
        {say`Substances by name`}
      </Typography>
      <Rows
        name={say`Substance`}
        rows={draft.substances}
        columnsOf={() => substanceColumns}
        fresh={{ formula: "", name: "" }}
        onChange={(substances) => change({ substances })}
      />
    </Sheet>
  );
}

interface BesideTheDraftProps {
  readonly method: Method;
  readonly problem: MethodProblem | null;
  readonly missing: readonly Phrase[];
  /** What is read and never used. */
  readonly unused: readonly Phrase[];
  readonly shown: Result<Preview> | null;
}

export function BesideTheDraft({ method, problem, missing, unused, shown }: BesideTheDraftProps) {
  const say = useSay();
  return (
    <Box
      sx={{
        position: { lg: "sticky" },
        top: 12,
        display: "grid",
        gap: 2,
        maxHeight: { lg: "96vh" },
        overflowY: "auto",
      }}
    >
      <SavePanel
        method={method}
        problem={problem}
        markedInStage={problem?.path[0] === "stages"}
        missing={missing}
        unused={unused}
      />
      <Sheet component="section" aria-label={say`Preview from made-up readings`}>
        <Typography variant="h2">{say`Preview`}</Typography>
        <Typography variant="body2" color="textSecondary" sx={{ mb: 1 }}>
          {say`From made-up readings at a simulated bench.`}
        </Typography>
        {shown === null && <Typography>{say`Available once the method passes the check.`}</Typography>}
        {shown && !shown.ok && <Typography>{say(problemText(shown.problem))}.</Typography>}
        {shown?.ok && <PreviewPanel preview={shown.value} />}
      </Sheet>
      <Typography variant="body2" color="textSecondary" sx={{ fontFamily: fonts.text }}>
        {say`How relations are written: letters, + − * / ^, units in brackets as in 25 [°C], M(NaCl), ratio(HCl, NaOH), equivalents(MnO4-), ln, log10, sqrt, mean, min, max.`}
      </Typography>
    </Box>
  );
}

interface SheetProps {
  readonly draft: MethodDraft;
  readonly change: (changes: Partial<MethodDraft>) => void;
}

export function SafetySheet({ draft, change }: SheetProps) {
  const say = useSay();
  const lines = (key: "protection" | "hazards" | "waste" | "glassware", label: string) => (
    <TextField
      size="small"
      label={label}
      value={draft[key]}
      onChange={(event) => change({ [key]: event.target.value })}
      helperText={say`one per line`}
      multiline
      minRows={3}
    />
  );
  return (
    <Sheet component="section" aria-label={say`Safety and glassware`} sx={{ p: 2.25 }}>
      <Typography variant="h2" sx={{ mb: 1.5 }}>
        {say`Safety and glassware`}
      </Typography>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
        {lines("hazards", say`Hazards`)}
        {lines("protection", say`Wear`)}
        {lines("waste", say`Waste`)}
        {lines("glassware", say`Glassware and instruments`)}
      </Box>
    </Sheet>
  );
}

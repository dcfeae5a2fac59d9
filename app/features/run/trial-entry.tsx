import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useEffect, useEffectEvent, useRef } from "react";
import { capitalized, type Field, fieldKey, type HouseRules, isDraft, trialWords } from "~/core/run";
import { colors, fonts } from "../../theme/theme";
import { ColorRibbon } from "../../ui/color-ribbon";
import { Sheet } from "../../ui/sheet";
import type { CorrectionTarget } from "./correct-dialog";
import { GuidanceLine } from "./guidance-line";
import { KeepTo } from "./conditions";
import { ReadingField } from "./reading-field";
import { SavedGroup, soFar } from "./saved-group";
import type { TrialEntry } from "./use-trial-entry";

interface TrialEntrySheetProps {
  entry: TrialEntry;
  rules: HouseRules;
  onCorrect: (target: CorrectionTarget) => void;
}

/** The working place of the trial in hand: where the end should come, the fields in the order of the work, the colors. */
export function TrialEntrySheet({ entry, rules, onCorrect }: TrialEntrySheetProps) {
  const { stage, fields, trialId, closed } = entry;
  const inputs = useRef(new Map<string, HTMLInputElement>());
  const trial = stage.trials.find((t) => t.id === trialId) ?? null;
  const previous = stage.trials.filter((t) => t.id !== trialId && !t.missing).at(-1);
  const groups = [...new Set(fields.map((f) => f.symbol))];

  const presentOf = (field: Field) => {
    const found = trial?.fields.find((f) => fieldKey(f.field) === fieldKey(field))?.present ?? null;
    return found && isDraft(found) ? null : found;
  };
  const firstOpen = fields.find((f) => !presentOf(f));

  // The cursor stands in the first field that waits, at the start and for each new trial, where a keyboard is at hand.
  // Only a new trial moves it; within a trial the person does.
  const begun = useRef(false);
  const standInFirst = useEffectEvent(() => {
    // Once the set is closed, Enter should not begin another trial by itself.
    if (closed || !firstOpen) return;
    if (!begun.current && !window.matchMedia("(pointer: fine)").matches) return;
    begun.current = true;
    inputs.current.get(fieldKey(firstOpen))?.focus();
  });
  useEffect(() => standInFirst(), [entry.completed]);

  const advance = (from: Field) => {
    if (!entry.commit(from)) return;
    const at = fields.findIndex((f) => fieldKey(f) === fieldKey(from));
    const following = fields.slice(at + 1).find((f) => !presentOf(f));
    if (following) inputs.current.get(fieldKey(following))?.focus();
  };

  const remarkOf = (field: Field) => {
    if (!offered(field) || entry.textOf(field) === "") return undefined;
    if (field.kind === "volume.taken") return `as before, or change it; ${field.hint}`;
    return (
      <>
        carried from {trialWords(previous?.name ?? "")}
        <Button size="small" sx={{ minHeight: 28, py: 0, px: 0.75 }} onClick={() => refill(field)}>
          Refilled
        </Button>
      </>
    );
  };
  const refill = (field: Field) => {
    entry.type(field, "");
    inputs.current.get(fieldKey(field))?.focus();
  };

  const offered = (field: Field) => stage.proposals.get(fieldKey(field)) === entry.textOf(field);
  const touched = [...fields].reverse().find((f) => entry.textOf(f) !== "" && !offered(f) && !presentOf(f));
  // The one button stands beside what is being typed, else beside what waits.
  const last = touched ?? firstOpen;
  const name = trial?.name ?? "rough";
  const titer = stage.definition.inputs.find((input) => input.is === "titer")?.symbol;
  const expectsSomething =
    stage.definition.presumed !== undefined || stage.trials.some((t) => t.result && !t.record.struck);

  return (
    <Sheet component="section" aria-label="Trial in hand" sx={{ display: "grid", gap: 1.5 }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, flexWrap: "wrap" }}>
        <Typography variant="h2">
          {name === "rough" ? "Rough trial" : capitalized(trialWords(name))}
        </Typography>
        <Typography variant="body2" color="textSecondary" sx={{ flexGrow: 1 }}>
          {stage.definition.indicator}
        </Typography>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={entry.kind}
          aria-label="Does it count?"
          onChange={(_event, kind: "rough" | "fine" | null) => kind && entry.setKind(kind)}
        >
          <ToggleButton value="rough">rough</ToggleButton>
          <ToggleButton value="fine">counts</ToggleButton>
        </ToggleButtonGroup>
      </Box>
      <GuidanceLine
        guidance={entry.guidance}
        missing={firstOpen ?? null}
        closed={closed && !touched}
        first={expectsSomething && firstOpen !== undefined && firstOpen.symbol !== titer}
      />
      <KeepTo conditions={stage.definition.conditions ?? []} />
      {groups.map((symbol) => {
        const group = fields.filter((f) => f.symbol === symbol);
        const total = soFar(stage, trial, symbol, rules);
        if (group.every((field) => presentOf(field))) {
          return (
            <SavedGroup
              key={symbol}
              readings={group.map((field) => ({ field, value: presentOf(field)?.value ?? "" }))}
              total={total}
              onCorrect={(field) => trial && onCorrect({ trialId: trial.id, fieldKey: fieldKey(field) })}
            />
          );
        }
        return (
          <Box
            key={symbol}
            sx={{
              display: "grid",
              gap: 1.5,
              alignItems: "start",
              gridTemplateColumns: { xs: "minmax(0,1fr) minmax(0,1fr)", sm: "repeat(3, minmax(0,1fr))" },
            }}
          >
            {group.map((field) => (
              <ReadingField
                key={fieldKey(field)}
                field={field}
                text={entry.textOf(field)}
                note={entry.noteOf(field)}
                present={presentOf(field)}
                remark={remarkOf(field)}
                inputRef={(element) => {
                  if (element) inputs.current.set(fieldKey(field), element);
                  else inputs.current.delete(fieldKey(field));
                }}
                onType={(text) => entry.type(field, text)}
                onEnter={() => advance(field)}
                onLeave={() => {
                  const text = entry.textOf(field);
                  if (text !== "" && text !== stage.proposals.get(fieldKey(field))) entry.commit(field);
                }}
                onCorrect={() => trial && onCorrect({ trialId: trial.id, fieldKey: fieldKey(field) })}
              />
            ))}
            <Box
              sx={{
                px: 0.5,
                pt: total ? { sm: 1.1 } : 0,
                display: "flex",
                flexDirection: { xs: "row", sm: "column" },
                gridColumn: { xs: "1 / -1", sm: "auto" },
                justifyContent: { xs: "space-between", sm: "flex-start" },
                alignItems: { xs: "center", sm: "flex-start" },
                gap: 1,
              }}
            >
              {total && (
                <Box aria-live="polite">
                  <Box sx={{ fontSize: "0.92rem", color: colors.inkSoft }}>
                    {total.label}, {total.unit}
                  </Box>
                  <Box
                    data-testid={`so-far-${symbol}`}
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
              )}
              {last?.symbol === symbol && (
                <Button
                  variant={closed && !touched ? "outlined" : "contained"}
                  onClick={() => advance(last)}
                  onMouseDown={(event) => event.preventDefault()}
                  title="or press Enter"
                >
                  {last.kind === "burette.final" ? "Record the end" : "Record"}
                </Button>
              )}
            </Box>
          </Box>
        );
      })}
      <ColorRibbon steps={stage.definition.ribbon} />
    </Sheet>
  );
}

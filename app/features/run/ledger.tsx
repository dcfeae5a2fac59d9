import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import IconButton from "@mui/material/IconButton";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import visuallyHidden from "@mui/utils/visuallyHidden";
import { useState } from "react";
import { Link } from "react-router";
import { inUnit, toDecimals } from "~/core/quantity";
import {
  type FieldState,
  fieldKey,
  type HouseRules,
  massDecimals,
  type TitrationEvaluation,
  type TrialEvaluation,
  trialWords,
} from "~/core/run";
import { colors, fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import type { CorrectionTarget } from "./correct-dialog";

export interface LedgerActions {
  readonly onCorrect: (target: CorrectionTarget) => void;
  readonly onStrike: (trialId: string) => void;
  readonly onRestore: (trialId: string) => void;
  readonly onMark: (trialId: string, kind: "rough" | "fine") => void;
  readonly onLabel: (trialId: string) => void;
}

interface LedgerProps extends LedgerActions {
  runId: string;
  stage: TitrationEvaluation;
  rules: HouseRules;
  locked: boolean;
}

interface Column {
  readonly key: string;
  readonly head: string;
  readonly field?: string;
  readonly value?: (trial: TrialEvaluation) => string;
}

/** A column for each reading, with the mass and the titer behind the readings they come from. */
function columnsOf(stage: TitrationEvaluation, rules: HouseRules): Column[] {
  const { definition } = stage;
  const columns = definition.inputs.flatMap((input): Column[] => {
    const { symbol } = input;
    const computed = (head: string, unit: string, decimals: number): Column => ({
      key: symbol,
      head,
      value: (trial) => {
        const q = trial.symbols.get(symbol);
        return q ? toDecimals(inUnit(q, unit), decimals) : "";
      },
    });
    switch (input.is) {
      case "mass":
        return [
          { key: `${symbol}:b`, head: "Before, g", field: `${symbol}:mass.before` },
          { key: `${symbol}:a`, head: "After, g", field: `${symbol}:mass.after` },
          computed("Mass, g", "g", massDecimals(rules)),
        ];
      case "pipette":
        return [{ key: symbol, head: "Aliquot, mL", field: `${symbol}:volume.taken` }];
      case "titer":
        return [
          { key: `${symbol}:i`, head: "Initial", field: `${symbol}:burette.initial` },
          { key: `${symbol}:f`, head: "Final", field: `${symbol}:burette.final` },
          computed("Titer, mL", "mL", rules.burette.decimals),
        ];
      default:
        return [];
    }
  });
  return [
    ...columns,
    { key: "result", head: definition.result.unit, value: (trial) => trial.shownResult?.value ?? "" },
  ];
}

function ReadingCell({
  state,
  trial,
  locked,
  onCorrect,
}: {
  state: FieldState | undefined;
  trial: TrialEvaluation;
  locked: boolean;
  onCorrect: LedgerActions["onCorrect"];
}) {
  if (!state) return null;
  const { present, history, field } = state;
  const old = history.filter((o) => o.id !== present?.id && o.text !== "");
  return (
    <>
      {old.map((o) => (
        <Box key={o.id} component="s" sx={{ display: "block", color: colors.inkSoft }}>
          {o.text}
        </Box>
      ))}
      {present ? (
        present.id.startsWith("draft:") || locked ? (
          <Box component="span" sx={{ color: locked ? "inherit" : colors.inkSoft }}>
            {present.value}
          </Box>
        ) : (
          <ButtonBase
            onClick={() => onCorrect({ trialId: trial.id, fieldKey: fieldKey(field) })}
            aria-label={`${field.label} ${present.value ?? ""}, correct`}
            sx={{
              font: "inherit",
              px: 0.5,
              mx: -0.5,
              minHeight: 28,
              borderRadius: "6px",
              "&:hover": { bgcolor: colors.tealPale },
            }}
          >
            {present.value}
          </ButtonBase>
        )
      ) : (
        "…"
      )}
    </>
  );
}

/** Why a trial does not count, and what was corrected in it. */
function noteOf(trial: TrialEvaluation, members: readonly string[]): string {
  const { record, fields, cautions, eligible, missing } = trial;
  const parts: string[] = [];
  if (record.struck)
    parts.push(
      `struck out: ${record.struck.reason}${record.struck.person ? ` (${record.struck.person})` : ""}`,
    );
  else if (record.kind === "rough") parts.push("rough, not used");
  else if (missing) parts.push("running");
  else if (eligible && !members.includes(trial.id)) parts.push("outside the set");
  for (const { history, field } of fields) {
    const correction = history.filter((o) => o.supersedes && o.reason && o.text !== "").at(-1);
    if (correction)
      parts.push(
        `${field.label.toLowerCase()}: ${correction.reason}${correction.person ? `, ${correction.person}` : ""}`,
      );
  }
  return [...parts, ...cautions.map((c) => c.message)].join("; ");
}

/** The trials of a stage, each reading as typed, corrections struck through above what holds now. */
export function Ledger({ runId, stage, rules, locked, ...actions }: LedgerProps) {
  const [menu, setMenu] = useState<{ anchor: HTMLElement; trial: TrialEvaluation } | null>(null);
  const columns = columnsOf(stage, rules);
  const trials = stage.trials.filter((t) =>
    t.fields.some((f) => f.history.some((o) => !o.id.startsWith("draft:"))),
  );
  const close = (act?: () => void) => () => {
    setMenu(null);
    act?.();
  };
  const chosen = menu?.trial;
  // A result opens into its working.
  const cellOf = (key: string, trial: TrialEvaluation, value: Column["value"]) => {
    const text = value?.(trial) ?? "";
    if (key !== "result" || text === "" || trial.fields.some((f) => f.present?.id.startsWith("draft:")))
      return text;
    return (
      <Box
        component={Link}
        to={`/runs/${runId}/working?stage=${stage.key}&trial=${trial.id}`}
        aria-label={`${text} ${stage.definition.result.unit}, working of ${trialWords(trial.name)}`}
        sx={{ color: "inherit", textDecorationColor: colors.lineStrong, textUnderlineOffset: 3 }}
      >
        {text}
      </Box>
    );
  };
  return (
    <Sheet component="section" aria-label="Trials of this stage" sx={{ px: 0, pb: 0.5 }}>
      <Typography variant="h2" sx={{ px: 2, mb: 0.5 }}>
        Trials of this stage
      </Typography>
      {trials.length === 0 ? (
        <Typography color="textSecondary" sx={{ px: 2, pb: 1.5 }}>
          Each trial comes to stand here, reading by reading.
        </Typography>
      ) : (
        <Box
          sx={{ overflowX: "auto", position: "relative" }}
          role="region"
          aria-label="Ledger"
          // A table that may scroll sideways must be reachable by keyboard.
          tabIndex={0}
        >
          <Box component="table" sx={tableStyle}>
            <thead>
              <tr>
                <th scope="col" style={{ textAlign: "left" }}>
                  Trial
                </th>
                {columns.map(({ key, head }) => (
                  <th scope="col" key={key}>
                    {head}
                  </th>
                ))}
                <th scope="col">
                  <Box component="span" sx={visuallyHidden}>
                    Actions
                  </Box>
                </th>
              </tr>
            </thead>
            {trials.map((trial) => {
              const { record, name } = trial;
              const note = noteOf(trial, stage.agreement.members);
              const faint = record.struck !== null || record.kind === "rough";
              return (
                <Box component="tbody" key={trial.id} sx={{ color: faint ? colors.inkSoft : colors.ink }}>
                  <tr>
                    <th scope="row" style={{ textAlign: "left", fontWeight: 600 }}>
                      {record.struck ? <s>{name}</s> : name}
                    </th>
                    {columns.map(({ key, field, value }) => (
                      <td
                        key={key}
                        style={record.struck && !field ? { textDecoration: "line-through" } : undefined}
                      >
                        {field ? (
                          <ReadingCell
                            state={trial.fields.find((f) => fieldKey(f.field) === field)}
                            trial={trial}
                            locked={locked}
                            onCorrect={actions.onCorrect}
                          />
                        ) : (
                          cellOf(key, trial, value)
                        )}
                      </td>
                    ))}
                    <td style={{ padding: 0 }}>
                      <IconButton
                        size="small"
                        aria-label={`Actions for ${trialWords(name)}`}
                        onClick={(event) => setMenu({ anchor: event.currentTarget, trial })}
                        sx={{ width: 36, height: 36, color: colors.ink, fontWeight: 700 }}
                      >
                        ⋯
                      </IconButton>
                    </td>
                  </tr>
                  {note && (
                    <tr className="note">
                      <td colSpan={columns.length + 2}>{note}</td>
                    </tr>
                  )}
                </Box>
              );
            })}
          </Box>
        </Box>
      )}
      <Menu open={menu !== null} anchorEl={menu?.anchor} onClose={close()}>
        {chosen?.result && (
          <MenuItem component={Link} to={`/runs/${runId}/working?stage=${stage.key}&trial=${chosen.id}`}>
            Show its working
          </MenuItem>
        )}
        {chosen &&
          !locked && [
            <MenuItem
              key="mark"
              onClick={close(() =>
                actions.onMark(chosen.id, chosen.record.kind === "rough" ? "fine" : "rough"),
              )}
            >
              {chosen.record.kind === "rough" ? "Let it count" : "Mark as rough"}
            </MenuItem>,
            chosen.record.struck ? (
              <MenuItem key="restore" onClick={close(() => actions.onRestore(chosen.id))}>
                Restore
              </MenuItem>
            ) : (
              <MenuItem key="strike" onClick={close(() => actions.onStrike(chosen.id))}>
                Strike out …
              </MenuItem>
            ),
            <MenuItem key="label" onClick={close(() => actions.onLabel(chosen.id))}>
              Rename …
            </MenuItem>,
          ]}
      </Menu>
    </Sheet>
  );
}

const tableStyle = {
  width: "100%",
  borderCollapse: "collapse",
  "& th, & td": { px: 0.9, py: 0.5, textAlign: "right", whiteSpace: "nowrap" },
  "& th:first-of-type, & td:first-of-type": { pl: 2 },
  "& thead th": {
    fontSize: "0.88rem",
    fontWeight: 600,
    color: colors.inkSoft,
    borderBottom: `1px solid ${colors.lineStrong}`,
  },
  "& tbody td": { fontFamily: fonts.reading, fontSize: "0.98rem" },
  "& tbody + tbody tr:first-of-type > *": { borderTop: `1px solid ${colors.line}` },
  "& tr.note td": {
    fontFamily: fonts.text,
    fontSize: "0.88rem",
    textAlign: "left",
    whiteSpace: "normal",
    color: colors.inkSoft,
    pt: 0,
  },
} as const;

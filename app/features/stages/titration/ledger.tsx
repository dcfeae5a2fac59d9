import Box from "@mui/material/Box";
import IconButton from "@mui/material/IconButton";
import Typography from "@mui/material/Typography";
import visuallyHidden from "@mui/utils/visuallyHidden";
import { lazy, Suspense, useState } from "react";
import { fieldKey } from "~/core/method";
import { isDraft } from "~/core/change";
import type { TitrationEvaluation, TrialEvaluation } from "~/core/stages";
import { printedUnit } from "~/core/quantity";
import { together } from "../../../ui/number-text";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { Sheet } from "../../../ui/sheet";
import type { CorrectionTarget } from "../shared/correct-dialog";
import { ReadingCell, ResultCell } from "./ledger-cells";
import { type Column, columnsOf, noteOf } from "./ledger-columns";
import type { TrialActions } from "./trial-menu";
import { useSay } from "../../../words/text";

// Comes when somebody opens it.
const TrialMenu = lazy(() => import("./trial-menu").then((m) => ({ default: m.TrialMenu })));

interface LedgerProps extends TrialActions {
  onCorrect: (target: CorrectionTarget) => void;
  runId: string;
  stage: TitrationEvaluation;
}

/** The trials of a stage, each reading as typed, corrections struck through above what holds now. */
export function Ledger({ runId, stage, onCorrect, ...actions }: LedgerProps) {
  const say = useSay();
  const { rules } = useRunInHand();
  const [menu, setMenu] = useState<{ anchor: HTMLElement; trial: TrialEvaluation } | null>(null);
  const columns = columnsOf(stage, rules);
  const trials = stage.trials.filter((t) => t.fields.some((f) => f.history.some((o) => !isDraft(o))));
  const workingHref = (trial: TrialEvaluation) =>
    `/runs/${runId}/working?stage=${stage.key}&trial=${trial.id}`;
  return (
    <Sheet component="section" aria-label={say`Trials of this stage`} sx={{ px: 0, pb: 0.5 }}>
      <Typography variant="h2" sx={{ px: 2, mb: 0.5 }}>
        {say`Trials of this stage`}
      </Typography>
      {trials.length === 0 ? (
        <Typography color="textSecondary" sx={{ px: 2, pb: 1.5 }}>
          {say`Trials appear here, reading by reading.`}
        </Typography>
      ) : (
        <Box
          sx={{ overflowX: "auto", position: "relative" }}
          role="region"
          aria-label={say`Ledger`}
          // A table that may scroll sideways must be reachable by keyboard.
          tabIndex={0}
        >
          <Box component="table" sx={tableStyle}>
            <LedgerHead columns={columns} />
            {trials.map((trial) => (
              <TrialRows
                key={trial.id}
                trial={trial}
                columns={columns}
                stage={stage}
                onCorrect={onCorrect}
                workingHref={workingHref(trial)}
                onMenu={(anchor) => setMenu({ anchor, trial })}
              />
            ))}
          </Box>
        </Box>
      )}
      <Suspense>
        {menu && (
          <TrialMenu
            {...menu}
            titer={stage.titer}
            definition={stage.definition}
            workingHref={workingHref(menu.trial)}
            actions={actions}
            onClose={() => setMenu(null)}
          />
        )}
      </Suspense>
    </Sheet>
  );
}

interface TrialRowsProps {
  readonly trial: TrialEvaluation;
  readonly columns: readonly Column[];
  readonly stage: TitrationEvaluation;
  readonly onCorrect: (target: CorrectionTarget) => void;
  readonly workingHref: string;
  readonly onMenu: (anchor: HTMLElement) => void;
}

/** A trial with all its readings, and beneath it what there is to say of it. */
function TrialRows({ trial, columns, stage, onCorrect, workingHref, onMenu }: TrialRowsProps) {
  const say = useSay();
  const { waiting } = useRunInHand();
  const { record, name } = trial;
  const note = noteOf(trial, stage.agreement, waiting);
  const faint = record.struck !== null || record.kind === "rough";
  return (
    <Box component="tbody" sx={{ color: faint ? colors.inkSoft : colors.ink }}>
      <tr>
        <th scope="row" style={{ textAlign: "left", fontWeight: 600 }}>
          {record.struck ? <s>{say(name)}</s> : say(name)}
        </th>
        {columns.map(({ key, field, value }) => (
          <td key={key} style={record.struck && !field ? { textDecoration: "line-through" } : undefined}>
            {field ? (
              <ReadingCell
                state={trial.fields.find((f) => fieldKey(f.field) === field)}
                trial={trial}
                onCorrect={onCorrect}
              />
            ) : key === "result" ? (
              <ResultCell
                text={value?.(trial) ?? ""}
                unit={printedUnit(stage.definition.result.unit)}
                trial={trial}
                workingHref={workingHref}
              />
            ) : (
              value?.(trial)
            )}
          </td>
        ))}
        <td style={{ padding: 0 }}>
          <IconButton
            size="small"
            aria-label={say`Actions for ${trial.words}`}
            onClick={(event) => onMenu(event.currentTarget)}
            sx={{ width: 36, height: 36, color: colors.ink, fontWeight: 700 }}
          >
            ⋯
          </IconButton>
        </td>
      </tr>
      {note && (
        <tr className="note">
          <td colSpan={columns.length + 2}>{together(say(note))}</td>
        </tr>
      )}
    </Box>
  );
}

function LedgerHead({ columns }: { readonly columns: Column[] }) {
  const say = useSay();
  return (
    <thead>
      <tr>
        <th scope="col" style={{ textAlign: "left" }}>
          {say`Trial`}
        </th>
        {columns.map(({ key, head }) => (
          <th scope="col" key={key}>
            {say(head)}
          </th>
        ))}
        <th scope="col">
          <Box component="span" sx={visuallyHidden}>
            {say`Actions`}
          </Box>
        </th>
      </tr>
    </thead>
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

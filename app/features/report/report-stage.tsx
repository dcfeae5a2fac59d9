import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ReportDocument, ReportStage } from "~/formats/report/document";
import type { ReportCell } from "~/formats/report/trials";
import { unitText } from "~/core/text";
import { colors, fonts } from "../../theme/theme";
import { sentence, together } from "../../ui/number-text";
import { ShareBar } from "../../ui/share-bar";
import { useSay } from "../../words/text";
import { StagePicture } from "../stages/pictures/stage-picture";
import { Formulas } from "../working/step";
import { stacked } from "./stacked";
import { Table } from "./table";

interface ReportStageProps {
  readonly stage: ReportStage;
  readonly report: ReportDocument;
  /** True where each step of the working is written out. */
  readonly full: boolean;
}

/** One stage of a report: readings, trials, picture, result with its ±, what speaks for it, working. */
export function ReportStageView({ stage, report, full }: ReportStageProps) {
  const say = useSay();
  return (
    <Box component="section" aria-label={stage.title} sx={stacked(1.25)}>
      <Typography variant="h2" sx={{ borderTop: `1px solid ${colors.line}`, pt: 2, breakAfter: "avoid" }}>
        {stage.title}
      </Typography>
      {stage.readings.length > 0 && (
        <Box component="dl" sx={{ m: 0, display: "flex", flexWrap: "wrap", columnGap: 3, rowGap: 0.5 }}>
          {stage.readings.map(({ label, text, unit, bottle }, i) => (
            <Box key={i} sx={{ display: "flex", gap: 0.75, flexWrap: "wrap" }}>
              <Box component="dt" sx={{ color: colors.inkSoft }}>
                {say(label)}
              </Box>
              <Box component="dd" sx={{ m: 0, fontFamily: fonts.reading }}>
                {text} {say(unitText(unit))}
                {bottle !== null && ` (${bottle})`}
              </Box>
            </Box>
          ))}
        </Box>
      )}
      <Trials stage={stage} />
      <Box sx={{ maxWidth: 620, breakInside: "avoid" }}>
        <StagePicture stage={stage.evaluation} title={report.title} />
      </Box>
      <Results stage={stage} report={report} />
      {full && <Working stage={stage} />}
    </Box>
  );
}

const Cell = ({ text, was }: ReportCell) => {
  const say = useSay();
  return (
    <>
      {was.map((one, i) => (
        <Box key={i} component="span" sx={{ color: colors.inkSoft, mr: 0.75 }} title={one.why ?? ""}>
          <s>{one.text}</s>
        </Box>
      ))}
      {together(say(text))}
    </>
  );
};

/** All trials, those that were struck out among them. */
function Trials({ stage: { table } }: Pick<ReportStageProps, "stage">) {
  const say = useSay();
  if (!table) return null;
  return (
    <Table heads={[say`Trial`, ...table.heads.map((head) => say(head)), ""]}>
      {table.rows.map((row, i) => (
        <tr key={i} style={row.struck ? { color: colors.inkSoft } : undefined}>
          <td>{say(row.name)}</td>
          {row.cells.map((cell, j) => (
            <td key={j} style={{ fontFamily: fonts.reading }}>
              {row.struck ? <s>{say(cell.text)}</s> : <Cell {...cell} />}
            </td>
          ))}
          <td>{say(row.remark)}</td>
        </tr>
      ))}
    </Table>
  );
}

function Results({ stage, report }: Omit<ReportStageProps, "full">) {
  const say = useSay();
  const [first] = stage.results;
  return (
    <Box sx={{ ...stacked(0.75), breakInside: "avoid" }}>
      {stage.results.map(({ name, shown }, i) => (
        <Box key={i}>
          {say(name)}:{" "}
          <Box component="span" sx={{ fontFamily: fonts.reading, fontWeight: i === 0 ? 700 : 400 }}>
            {together(say(shown.text))}
          </Box>
          {shown.nearestWhole !== undefined && say`, nearest whole number ${shown.nearestWhole}`}
        </Box>
      ))}
      {stage.problem !== null && <Typography>{say`No result: ${stage.problem}.`}</Typography>}
      {stage.reasons.length > 0 && (
        <Typography>{together(stage.reasons.map((reason) => say(reason)).join(" "))}</Typography>
      )}
      {stage.warnings.map((warning, i) => (
        <Typography key={i} sx={{ color: colors.amberDeep }}>
          {together(say(warning))}
        </Typography>
      ))}
      {first && first.shown.plusMinus !== "0" && stage.shares.length > 0 && (
        <Box sx={{ mt: 0.5, maxWidth: 720 }}>
          <Typography variant="h3" sx={{ mb: 0.5 }}>
            {say`Uncertainty budget (± is ${report.plusMinus})`}
          </Typography>
          <ShareBar shares={stage.shares} />
        </Box>
      )}
      {stage.improvement !== null && (
        <Typography variant="body2">{together(sentence(say(stage.improvement)))}</Typography>
      )}
    </Box>
  );
}

function Working({ stage: { working, key } }: Pick<ReportStageProps, "stage">) {
  const say = useSay();
  if (working.length === 0) return null;
  return (
    <Box>
      <Typography variant="h3" sx={{ mb: 0.5, breakAfter: "avoid" }}>
        {say`Working`}
      </Typography>
      <Box component="ol" sx={{ m: 0, pl: 3, ...stacked(1.25) }}>
        {working.map((step) => (
          <Box component="li" key={`${key}/${step.id}`} sx={{ breakInside: "avoid" }}>
            <Typography sx={{ fontWeight: 600 }}>{say(step.title)}</Typography>
            <Formulas step={step} />
          </Box>
        ))}
      </Box>
    </Box>
  );
}

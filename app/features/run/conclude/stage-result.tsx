import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import { type ComputedEvaluation, improvementOfStage, plusMinusWords, reasonsOf } from "~/core/stages";
import type { RunRecord } from "~/core/run";
import { sentences, unitText } from "~/core/text";
import { colors, fonts } from "../../../theme/theme";
import { sentence, together } from "../../../ui/number-text";
import { ShareBar } from "../../../ui/share-bar";
import { Sheet } from "../../../ui/sheet";
import { useSay } from "../../../words/text";
import { StagePicture } from "../../stages/pictures/stage-picture";
import { Implausible, WholeNumber } from "../../stages/shared/footing";
import { ShelveButton } from "../../stages/shared/shelve";
import { screensOf } from "../../stages/table";

interface StageResultProps {
  readonly stage: ComputedEvaluation;
  readonly record: RunRecord;
  /** True for what the run was for. */
  readonly main: boolean;
}

/** What a stage came to: its trials on their rail or line, the result with its uncertainty budget, and what speaks for it. */
export function StageResult({ stage, record, main }: StageResultProps) {
  const say = useSay();
  const improvement = improvementOfStage(stage);
  const hasPlusMinus = stage.shown !== null && stage.shown.plusMinus !== "0";
  const picture = <StagePicture stage={stage} title={record.title} />;
  return (
    <Sheet
      component="section"
      aria-label={stage.definition.title}
      sx={{
        display: "grid",
        gap: main ? 3 : 1.5,
        alignContent: "start",
        minWidth: 0,
        ...(main
          ? {
              p: { xs: 2, sm: 3 },
              gridTemplateColumns: { xs: "minmax(0, 1fr)", lg: "minmax(0, 1fr) minmax(0, 1fr)" },
            }
          : { gridTemplateColumns: "minmax(0, 1fr)" }),
      }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Typography variant="h3">{stage.definition.title}</Typography>
        <Found stage={stage} main={main} />
        <WhatSpeaksForIt stage={stage} record={record} />
        <ResultActions stage={stage} record={record} />
      </Box>
      <Box sx={{ minWidth: 0, display: "grid", gap: 2, alignContent: "start" }}>
        {picture}
        {hasPlusMinus && stage.shares.length > 0 && (
          <Box>
            <Typography variant="h3" sx={{ mb: 0.75 }}>
              {say`Uncertainty budget (± is ${plusMinusWords[record.houseRules.plusMinus]})`}
            </Typography>
            <ShareBar shares={stage.shares} />
            {improvement && (
              <Typography variant="body2" sx={{ mt: 1 }} data-testid={`improvement-${stage.key}`}>
                {together(sentence(say(improvement.text)))}
              </Typography>
            )}
          </Box>
        )}
      </Box>
    </Sheet>
  );
}

/** The result itself, and what was found beside it. */
function Found({ stage, main }: Pick<StageResultProps, "stage" | "main">) {
  const say = useSay();
  const { shown, also, definition } = stage;
  return (
    <>
      <Typography variant="h2" sx={{ mt: 0.25 }}>
        {definition.result.name}
      </Typography>
      <WholeNumber stage={stage} />
      <Box
        data-testid={`result-${stage.key}`}
        sx={{ fontFamily: fonts.reading, lineHeight: 1.2, my: main ? 1 : 0.5 }}
      >
        {shown ? (
          <>
            <Box
              component="span"
              sx={{ fontSize: main ? { xs: "2.2rem", sm: "3rem" } : "1.7rem", fontWeight: 500 }}
            >
              {shown.value}
            </Box>
            <Box
              component="span"
              sx={{ fontSize: main ? { xs: "1.2rem", sm: "1.5rem" } : "1.05rem", color: colors.inkSoft }}
            >
              {shown.plusMinus === "0" ? "" : ` ± ${shown.plusMinus}`} {say(unitText(shown.unit))}
            </Box>
          </>
        ) : (
          <Box component="span" sx={{ fontSize: "1.2rem", fontFamily: fonts.text }}>
            {say`no result yet`}
          </Box>
        )}
      </Box>
      {also.map(({ definition: { symbol, name }, shown: other }) => (
        <Typography key={symbol}>
          {say(name)}: <span style={{ fontFamily: fonts.reading }}>{together(say(other.text))}</span>
        </Typography>
      ))}
    </>
  );
}

/** Agreement, verdict, what it was held against and what it rests on; and what speaks against it. */
function WhatSpeaksForIt({ stage, record }: Pick<StageResultProps, "stage" | "record">) {
  const say = useSay();
  const { Facts } = screensOf(stage);
  const reasons = say(sentences(reasonsOf(stage)));
  return (
    <>
      <Facts stage={stage} record={record} />
      <Implausible stage={stage} />
      {reasons !== "" && <Typography sx={{ mt: 1 }}>{together(reasons)}</Typography>}
    </>
  );
}

function ResultActions({ stage, record }: Pick<StageResultProps, "stage" | "record">) {
  const say = useSay();
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mt: 1 }}>
      {stage.shown && (
        <Button
          component={Link}
          to={`working?stage=${stage.key}`}
          relative="path"
          size="small"
          sx={{ ml: -1 }}
        >
          {say`Show the working`}
        </Button>
      )}
      <ShelveButton stage={stage} record={record} />
    </Box>
  );
}

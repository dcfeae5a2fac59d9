import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import type { RunEvaluation } from "~/core/stages";
import { knownWords, type RunRecord } from "~/core/run";
import { standsOn } from "~/core/working";
import { colors, fonts } from "../../../theme/theme";
import { together } from "../../../ui/number-text";
import { Sheet } from "../../../ui/sheet";
import { useSay } from "../../../words/text";

interface StandsOnProps {
  readonly record: RunRecord;
  readonly evaluation: RunEvaluation;
}

interface Standing {
  readonly key: string;
  readonly title: string;
  readonly text: string;
  /** Where it can be looked at; null for what is of this run. */
  readonly to: string | null;
}

/** Bottles and purities first, then each result that the next one rests on. A purity that a bottle tells is told once. */
function linksOf({ record, evaluation }: StandsOnProps, say: ReturnType<typeof useSay>): readonly Standing[] {
  const last = evaluation.stages.at(-1)?.key ?? "";
  const { solutions = [], houseRules } = record;
  const names = new Set(solutions.map(({ name }) => name.toLowerCase()));
  const bottles = solutions.map((bottle): Standing => ({
    ...{ key: bottle.assignmentId, title: `${bottle.code} ${bottle.name}` },
    ...{ text: say(knownWords(bottle, houseRules.plusMinus)), to: `/shelf/${bottle.solutionId}` },
  }));
  const own = standsOn(evaluation, record.method, last)
    .filter(({ title }) => !names.has(title.toLowerCase()))
    .map(({ title, text }): Standing => ({ key: title, title, text: say(text), to: null }));
  return [...bottles, ...own];
}

/** The chain of standards: purities and bottles at its start, then each result that the next one rests on. */
export function StandsOn(props: StandsOnProps) {
  const say = useSay();
  const chain = linksOf(props, say);
  return (
    <Sheet component="section" aria-labelledby="chain-of-standards">
      <Typography id="chain-of-standards" variant="h2" sx={{ mb: 1 }}>
        {say`Chain of standards`}
      </Typography>
      <Box component="ol" sx={{ listStyle: "none", m: 0, p: 0 }}>
        {chain.map((link, i) => (
          <ChainLink key={link.key} link={link} last={i === chain.length - 1} />
        ))}
      </Box>
    </Sheet>
  );
}

const thread = {
  position: "absolute",
  left: 7,
  top: 16,
  bottom: -6,
  width: "2px",
  bgcolor: colors.lineStrong,
} as const;
const bead = {
  width: 14,
  height: 14,
  mt: "5px",
  borderRadius: "50%",
  border: `2px solid ${colors.teal}`,
  zIndex: 1,
} as const;

function ChainLink({ link: { title, text, to }, last }: { readonly link: Standing; readonly last: boolean }) {
  return (
    <Box
      component="li"
      sx={{
        display: "grid",
        gridTemplateColumns: "16px minmax(0, 1fr)",
        columnGap: 1.25,
        position: "relative",
        pb: last ? 0 : 1.25,
      }}
    >
      {!last && <Box aria-hidden="true" sx={thread} />}
      <Box aria-hidden="true" sx={{ ...bead, bgcolor: last ? colors.teal : colors.sheet }} />
      <Box sx={{ minWidth: 0 }}>
        {to === null ? (
          <span>{title}</span>
        ) : (
          <Box component={Link} to={to} sx={{ color: colors.teal, fontWeight: 650 }}>
            {title}
          </Box>
        )}
        <Box sx={{ fontFamily: fonts.reading, fontSize: "0.95rem", color: colors.inkSoft }}>
          {together(text)}
        </Box>
      </Box>
    </Box>
  );
}

import Box from "@mui/material/Box";
import visuallyHidden from "@mui/utils/visuallyHidden";
import { Link } from "react-router";
import type { Bead } from "~/core/stages";
import { colors, fonts } from "../theme/theme";
import { useSay } from "../words/text";
import { msg } from "~/core/text";

const radius = 10;

function BeadDrawing({ state }: { state: Bead["state"] }) {
  const c = radius + 4;
  return (
    <svg width={2 * c} height={2 * c} aria-hidden="true" style={{ flex: "none", display: "block" }}>
      {state === "current" && <circle cx={c} cy={c} r={radius + 3.5} fill={colors.pinkBand} opacity={0.75} />}
      <circle
        cx={c}
        cy={c}
        r={radius - 1}
        fill={state === "done" ? colors.teal : colors.sheet}
        stroke={state === "ahead" ? colors.lineStrong : colors.teal}
        strokeWidth={2}
      />
      {state === "current" && (
        <path
          d={`M${c} ${c - radius + 1} a${radius - 1} ${radius - 1} 0 0 0 0 ${2 * (radius - 1)} z`}
          fill={colors.teal}
        />
      )}
      {state === "done" && (
        <path
          d={`M${c - 4} ${c} l3 3.2 l5 -6`}
          fill="none"
          stroke="#fff"
          strokeWidth={2}
          strokeLinecap="round"
        />
      )}
    </svg>
  );
}

const stateWords = { done: "done", current: msg`in progress`, ahead: "ahead" } as const;

interface ChainProps {
  beads: readonly Bead[];
  /** Where a bead leads; without it the chain is only looked at. */
  hrefOf?: (key: string) => string;
  /** Key of the stage that is being looked at. */
  viewed?: string;
  compact?: boolean;
}

/** The stages of a run as beads on a line, each with its key number when done. */
export function Chain({ beads, hrefOf, viewed, compact = false }: ChainProps) {
  const say = useSay();
  return (
    <Box
      component="ol"
      aria-label={say`Stages`}
      sx={{
        listStyle: "none",
        m: 0,
        p: 0,
        display: "grid",
        gridTemplateColumns: { xs: "1fr", sm: `repeat(${beads.length}, minmax(0, 1fr))` },
        rowGap: 1,
      }}
    >
      {beads.map((bead, i) => {
        const words = <BeadWords compact={compact} bead={bead} beads={beads} />;
        return (
          <Box
            component="li"
            key={bead.key}
            aria-current={bead.key === viewed ? "step" : undefined}
            sx={{ position: "relative", display: { xs: "flex", sm: "block" }, gap: 1, pr: 1 }}
          >
            <Box sx={{ ml: "-4px" }}>
              <BeadDrawing state={bead.state} />
            </Box>
            {i < beads.length - 1 && <Connector />}
            {hrefOf ? (
              <Box
                component={Link}
                to={hrefOf(bead.key)}
                preventScrollReset
                sx={{
                  display: "block",
                  color: colors.ink,
                  textDecoration: "none",
                  pb: 0.25,
                  borderBottom: "3px solid transparent",
                  width: "fit-content",
                  "&:hover span:first-of-type": { textDecoration: "underline" },
                  ...(bead.key === viewed && { borderBottomColor: colors.teal }),
                }}
              >
                {words}
              </Box>
            ) : (
              <Box>{words}</Box>
            )}
          </Box>
        );
      })}
    </Box>
  );
}

interface BeadWordsProps {
  readonly compact: boolean;
  readonly bead: Bead;
  readonly beads: readonly Bead[];
}

function BeadWords({ compact, bead, beads }: BeadWordsProps) {
  const say = useSay();
  return (
    <>
      <Box
        component="span"
        sx={{ fontWeight: 700, fontSize: compact ? "0.92rem" : "1rem", lineHeight: 1.25 }}
      >
        {say(bead.title)}
        <Box component="span" sx={visuallyHidden}>
          , {say(stateWords[bead.state])}
        </Box>
      </Box>
      <Box
        component="span"
        sx={{
          display: "block",
          color: colors.inkSoft,
          fontFamily: /\d ± /.test(say(bead.fact)) ? fonts.reading : fonts.text,
          fontSize: compact ? "0.8rem" : "0.95rem",
          whiteSpace: beads.length > 3 ? "normal" : "nowrap",
          minHeight: { xs: 0, sm: "1.4em" },
        }}
      >
        {say(bead.fact)}
      </Box>
      {bead.source !== undefined && (
        <Box
          component="span"
          sx={{ display: "block", color: colors.inkSoft, fontSize: compact ? "0.8rem" : "0.9rem" }}
        >
          {say(bead.source)}
        </Box>
      )}
    </>
  );
}

function Connector() {
  return (
    <Box
      aria-hidden="true"
      sx={{
        position: "absolute",
        bgcolor: colors.lineStrong,
        left: { xs: 9, sm: 26 },
        right: { sm: 2 },
        top: { xs: 27, sm: 13 },
        bottom: { xs: -8, sm: "auto" },
        width: { xs: "2px", sm: "auto" },
        height: { sm: "2px" },
      }}
    />
  );
}

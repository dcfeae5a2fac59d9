import Box from "@mui/material/Box";
import { colors, fonts } from "../../theme/theme";
import { useSay } from "../../words/text";
import { type Phrase } from "~/core/text";

/** A bottle, a jar or a run in the lineage picture. */
export interface LineageNode {
  readonly id: string;
  readonly title: string;
  readonly fact: Phrase;
  readonly small: Phrase;
  readonly kind: "solid" | "solution" | "run";
  readonly past: boolean;
  readonly to: string;
}

/** Of every card, in pixels. */
export const [width, height] = [252, 84];

interface NodeCardProps {
  node: LineageNode;
  left: number;
  top: number;
  selected: boolean;
  bright: boolean;
  onSelect: () => void;
}

const titleLine = {
  fontWeight: 650,
  fontSize: "0.9rem",
  lineHeight: 1.2,
  whiteSpace: "nowrap",
  overflow: "hidden",
  textOverflow: "ellipsis",
} as const;

const factLine = {
  fontFamily: fonts.reading,
  fontSize: "0.86rem",
  whiteSpace: "nowrap",
  overflow: "hidden",
  textOverflow: "ellipsis",
  my: 0.25,
} as const;

/** A card to select; what is past its date is marked. */
export function NodeCard({ node, left, top, selected, bright, onSelect }: NodeCardProps) {
  const say = useSay();
  const { title, fact, small, kind, past } = node;
  return (
    <Box
      component="button"
      type="button"
      aria-pressed={selected}
      onClick={onSelect}
      sx={{
        position: "absolute",
        left,
        top,
        width,
        height,
        textAlign: "left",
        font: "inherit",
        color: colors.ink,
        cursor: "pointer",
        px: 1.25,
        py: 0.75,
        bgcolor: kind === "solid" ? colors.tealPale : kind === "run" ? colors.ground : colors.sheet,
        border: selected
          ? `3px solid ${colors.teal}`
          : `1.5px ${kind === "run" ? "dashed" : "solid"} ${colors.lineStrong}`,
        borderRadius: kind === "solid" ? "4px" : "14px",
        borderLeft: past ? `7px solid ${colors.amber}` : undefined,
        opacity: bright ? 1 : 0.4,
        overflow: "hidden",
      }}
    >
      <Box sx={titleLine} title={title}>
        {title}
      </Box>
      <Box sx={factLine}>{say(fact)}</Box>
      <Box
        sx={{
          color: past ? colors.amberDeep : colors.inkSoft,
          fontSize: "0.82rem",
          whiteSpace: "nowrap",
          overflow: "hidden",
          textOverflow: "ellipsis",
        }}
      >
        {say(past ? say`past its date; ${small}` : small)}
      </Box>
    </Box>
  );
}

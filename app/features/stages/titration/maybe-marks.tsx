import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { MaybeMark } from "~/core/method";
import { colors, fonts } from "../../../theme/theme";
import { useSay } from "../../../words/text";

interface MaybeMarksProps {
  marks: readonly MaybeMark[];
  /** The end that stands, as typed; null while there is none. */
  end: string | null;
  onChoose: (mark: MaybeMark) => void;
}

/** Places where the end may have been; one of them can be chosen for the end, whatever was read after it. */
export function MaybeMarks({ marks, end, onChoose }: MaybeMarksProps) {
  const say = useSay();
  if (marks.length === 0) return null;
  return (
    <Box
      component="ul"
      aria-label={say`Possible end points`}
      sx={{ listStyle: "none", m: 0, p: 0, display: "flex", flexWrap: "wrap", gap: 1 }}
    >
      {marks.map((mark) => {
        const stands = mark.text === end;
        return (
          <Box
            component="li"
            key={mark.id}
            sx={{
              display: "flex",
              alignItems: "center",
              gap: 1,
              border: `1.5px dashed ${stands ? colors.teal : colors.pink}`,
              borderRadius: "999px",
              pl: 1.75,
              pr: 0.75,
              minHeight: 44,
            }}
          >
            <Box component="span" sx={{ fontFamily: fonts.reading, fontSize: "1.15rem" }}>
              {mark.text}
            </Box>
            <Box component="span" sx={{ color: colors.inkSoft, fontSize: "0.92rem" }}>
              {mark.reason ?? say`possible`}
            </Box>
            {stands ? (
              <Box component="span" sx={{ color: colors.tealDeep, pr: 1 }}>
                {say`✓ the end point`}
              </Box>
            ) : (
              <Button
                size="small"
                onClick={() => onChoose(mark)}
                aria-label={say`${mark.text} was the end point`}
              >
                {say`That was the end point`}
              </Button>
            )}
          </Box>
        );
      })}
    </Box>
  );
}

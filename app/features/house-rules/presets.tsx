import Box from "@mui/material/Box";
import type { RulesPreset } from "~/catalog/rules/presets";
import type { HouseRules } from "~/core/rules";
import { colors } from "../../theme/theme";
import { type RuleTexts, textsOfRules } from "~/core/rules";
import { useSay } from "../../words/text";

interface PresetsProps {
  presets: readonly RulesPreset[];
  texts: RuleTexts;
  onChoose: (rules: HouseRules) => void;
}

const same = (texts: RuleTexts, rules: HouseRules) =>
  Object.entries(textsOfRules(rules)).every(([name, text]) => texts[name] === text);

/** House rules under a name, to begin with: choosing one fills the form and saves nothing yet. */
export function Presets({ presets, texts, onChoose }: PresetsProps) {
  const say = useSay();
  return (
    <Box
      role="group"
      aria-label={say`Begin with`}
      sx={{
        display: "grid",
        gap: 1.25,
        mb: 2,
        gridTemplateColumns: "repeat(auto-fit, minmax(200px, 1fr))",
      }}
    >
      {presets.map(({ key, name, about, rules }) => {
        const on = same(texts, rules);
        return (
          <Box
            key={key}
            component="button"
            type="button"
            aria-pressed={on}
            onClick={() => onChoose(rules)}
            sx={{
              font: "inherit",
              display: "flex",
              flexDirection: "column",
              justifyContent: "flex-start",
              textAlign: "left",
              cursor: "pointer",
              bgcolor: on ? colors.tealWash : colors.sheet,
              color: colors.ink,
              border: `${on ? 2 : 1}px solid ${on ? colors.teal : colors.line}`,
              borderRadius: "12px",
              p: on ? "11px 13px" : "12px 14px",
              "&:hover": { borderColor: colors.teal },
            }}
          >
            <Box component="span" sx={{ fontWeight: 700, display: "block" }}>
              {on ? "● " : "○ "}
              {say(name)}
            </Box>
            <Box component="span" sx={{ color: colors.inkSoft, fontSize: "0.95rem" }}>
              {say(about)}
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}

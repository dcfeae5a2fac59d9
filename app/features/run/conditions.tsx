import Box from "@mui/material/Box";
import type { Condition } from "~/core/run";
import { colors } from "../../theme/theme";

/** A condition as one reads it at the bench: the number first, then what it is for. */
export function conditionWords({ what, celsius, minutes, strict }: Condition): string {
  const time =
    minutes === undefined
      ? null
      : `${strict ? "just " : ""}${minutes >= 120 ? `${minutes / 60} h` : `${minutes} min`}`;
  const numbers = [celsius && `${celsius[0]} to ${celsius[1]} °C`, time].filter(Boolean).join(", ");
  return numbers === "" ? what : `${numbers}: ${what}`;
}

/** What must hold while this flask is titrated, at the place where one looks while doing it. */
export function KeepTo({ conditions }: { conditions: readonly Condition[] }) {
  const telling = conditions.filter((c) => c.celsius ?? c.minutes);
  if (telling.length === 0) return null;
  return (
    <Box
      component="ul"
      aria-label="Keep to"
      sx={{
        listStyle: "none",
        m: 0,
        pl: 1.25,
        py: 0,
        borderLeft: `4px solid ${colors.amber}`,
        color: colors.amberDeep,
      }}
    >
      {telling.map((condition) => (
        <Box component="li" key={condition.what} sx={{ fontWeight: condition.strict ? 700 : 400 }}>
          {conditionWords(condition)}
        </Box>
      ))}
    </Box>
  );
}

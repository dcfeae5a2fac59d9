import Box, { type BoxProps } from "@mui/material/Box";
import { colors } from "../theme/theme";

/** A white sheet on the bench: the ground of everything that is read or filled in. */
export function Sheet({ sx, ...rest }: BoxProps) {
  return (
    <Box
      {...rest}
      sx={[
        { bgcolor: colors.sheet, border: `1px solid ${colors.line}`, borderRadius: "12px", p: 2 },
        ...(Array.isArray(sx) ? (sx as object[]) : [sx ?? {}]),
      ]}
    />
  );
}

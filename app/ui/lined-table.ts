import { colors } from "../theme/theme";

/** A table to read: quiet lines between rows, a stronger one below the heads. */
export const linedTable = {
  width: 1,
  borderCollapse: "collapse",
  "& th, & td": { textAlign: "left", px: { xs: 1, md: 1.5 }, py: 0.9, verticalAlign: "top" },
  "& th": { color: colors.inkSoft, fontWeight: 600, borderBottom: `2px solid ${colors.line}` },
  "& tbody tr + tr td": { borderTop: `1px solid ${colors.line}` },
} as const;

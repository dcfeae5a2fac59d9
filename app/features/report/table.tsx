import Box from "@mui/material/Box";
import { colors } from "../../theme/theme";
import { useSay } from "../../words/text";

interface TableProps {
  readonly heads: readonly React.ReactNode[];
  readonly children: React.ReactNode;
}

/** A table of a report: thin rules, figures under each other, moved sideways where it is too wide. */
export function Table({ heads, children }: TableProps) {
  const say = useSay();
  return (
    <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label={say`Table`}>
      <Box
        component="table"
        sx={{
          borderCollapse: "collapse",
          fontSize: "0.92rem",
          fontVariantNumeric: "tabular-nums",
          "& th, & td": { textAlign: "left", verticalAlign: "top", py: 0.5, pr: 2.5 },
          "& th": { fontWeight: 600, borderBottom: `1.5px solid ${colors.lineStrong}` },
          "& td": { borderBottom: `1px solid ${colors.line}` },
          "& tr": { breakInside: "avoid" },
          "@media print": { fontSize: "9pt" },
        }}
      >
        <thead>
          <tr>
            {heads.map((head, i) => (
              <th key={i} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>{children}</tbody>
      </Box>
    </Box>
  );
}

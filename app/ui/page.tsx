import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";

interface PageProps {
  title: ReactNode;
  /** A line below the title. */
  note?: ReactNode;
  /** Buttons beside the title. */
  actions?: ReactNode;
  /** How wide the content may get, for what is read as text. */
  width?: number;
  children: ReactNode;
}

/** How far the content of every screen stands from its edges. */
export const pageMargins = { maxWidth: 1480, mx: "auto", px: { xs: 1.5, sm: 2.5 }, py: 2 } as const;

export const noPrint = { "@media print": { display: "none" } } as const;

/** A screen with its title, what it is for, and what can be done with it. */
export function Page({ title, note, actions, width, children }: PageProps) {
  return (
    <Box component="main" sx={pageMargins}>
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "flex-start", gap: 1.5, mb: 2 }}>
        <Box sx={{ flex: "1 1 320px", minWidth: 0 }}>
          <Typography variant="h1">{title}</Typography>
          {note && <Typography color="textSecondary">{note}</Typography>}
        </Box>
        {actions && <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", ...noPrint }}>{actions}</Box>}
      </Box>
      <Box sx={{ maxWidth: width }}>{children}</Box>
    </Box>
  );
}

import Box from "@mui/material/Box";
import { NavLink } from "react-router";
import { StayAwake } from "../live/stay-awake";
import { colors } from "../theme/theme";

const places = [
  { to: "/", label: "Bench" },
  { to: "/shelf", label: "Shelf" },
  { to: "/methods", label: "Methods" },
  { to: "/calculate", label: "Calculate" },
  { to: "/house-rules", label: "House rules" },
  { to: "/instruments", label: "Instruments" },
  { to: "/lab", label: "Lab" },
];

const placeStyle = {
  display: "flex",
  alignItems: "center",
  px: 0.5,
  minWidth: 44,
  flexShrink: 0,
  justifyContent: "center",
  color: "#c3cccb",
  textDecoration: "none",
  whiteSpace: "nowrap",
  borderBottom: "3px solid transparent",
  borderTop: "3px solid transparent",
  "&:hover": { color: "#fff" },
  "&.active": { color: "#fff", borderBottomColor: colors.pink },
  "&:focus-visible": { outlineColor: "#fff", outlineOffset: -4 },
} as const;

/** The dark bar on top: the product's name and its main places. */
export function TopBar() {
  return (
    <Box
      component="header"
      sx={{ bgcolor: colors.ink, color: "#fff", px: { xs: 1, sm: 2.5 }, "@media print": { display: "none" } }}
    >
      <Box
        component="nav"
        aria-label="Main"
        sx={{
          display: "flex",
          alignItems: "stretch",
          gap: { xs: 1.25, sm: 1.5, md: 3 },
          minHeight: 48,
          fontSize: { xs: "0.92rem", sm: "1rem" },
          // On a narrow screen the places may run on beyond its edge, and are drawn along.
          overflowX: { xs: "auto", md: "visible" },
          maxWidth: 1480,
          mx: "auto",
        }}
      >
        <Box
          component="span"
          sx={{
            // On a phone the places need the room.
            display: { xs: "none", sm: "flex" },
            alignItems: "center",
            gap: 1,
            fontWeight: 700,
            whiteSpace: "nowrap",
            mr: 0.5,
          }}
        >
          <Box component="img" src="/bead.svg" alt="" sx={{ width: 26, height: 26 }} />
          Steady Bead
        </Box>
        {places.map(({ to, label }) => (
          <Box key={to} component={NavLink} to={to} end={false} sx={placeStyle}>
            {label}
          </Box>
        ))}
        <StayAwake />
      </Box>
    </Box>
  );
}

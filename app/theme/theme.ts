import { createTheme } from "@mui/material/styles";

/**
 * The white-tile bench: warm off-white ground, white sheets, ink, deep teal for work. Pink belongs to the end point alone,
 * amber is caution, brick is error. Every text color stands on white and on the ground with a contrast of at least 4.5.
 */
export const colors = {
  ground: "#f3f2ec",
  sheet: "#ffffff",
  ink: "#1c282c",
  inkSoft: "#56625f",
  line: "#dcd9cb",
  lineStrong: "#8b938f",
  teal: "#0f5a5e",
  tealDeep: "#0b4548",
  tealPale: "#deecea",
  tealWash: "#f0f6f5",
  pink: "#d9588f",
  pinkDeep: "#9c2a5e",
  pinkPale: "#f7e5ed",
  pinkBand: "#eab9d0",
  amber: "#c98a16",
  amberDeep: "#7a4f05",
  amberPale: "#fdf0d8",
  brick: "#9d3526",
  brickPale: "#fae9e5",
} as const;

/** Names in single quotes: the chart library writes them into attributes as they are. */
export const fonts = {
  text: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif",
  reading: "'Atkinson Hyperlegible Mono Variable', ui-monospace, monospace",
} as const;

const focusRing = { outline: `3px solid ${colors.teal}`, outlineOffset: 2 };

export const theme = createTheme({
  palette: {
    mode: "light",
    primary: { main: colors.teal, dark: colors.tealDeep, contrastText: "#ffffff" },
    secondary: { main: colors.ink },
    error: { main: colors.brick },
    warning: { main: colors.amber },
    background: { default: colors.ground, paper: colors.sheet },
    text: { primary: colors.ink, secondary: colors.inkSoft },
    divider: colors.line,
  },
  shape: { borderRadius: 10 },
  typography: {
    fontFamily: fonts.text,
    fontSize: 15,
    h1: { fontSize: "1.45rem", fontWeight: 700, lineHeight: 1.25 },
    h2: { fontSize: "1.1rem", fontWeight: 700, lineHeight: 1.3 },
    h3: { fontSize: "0.9rem", fontWeight: 650, lineHeight: 1.3, color: colors.inkSoft },
    button: { textTransform: "none", fontWeight: 650, fontSize: "1rem" },
    body1: { fontSize: "1rem", lineHeight: 1.5 },
    body2: { fontSize: "0.9rem", lineHeight: 1.45 },
    caption: { fontSize: "0.85rem", lineHeight: 1.4 },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        a: { color: colors.teal },
        "::placeholder": { color: `${colors.inkSoft} !important`, opacity: "1 !important" },
        body: { fontFeatureSettings: '"ss01" 0', WebkitFontSmoothing: "antialiased" },
        ":focus-visible": focusRing,
        // A value that is offered stands selected: in our color, and legible.
        "::selection": { background: colors.pinkBand, color: colors.ink },
        // Who asked the system for less motion gets none.
        "@media (prefers-reduced-motion: reduce)": {
          "*, *::before, *::after": { transition: "none !important", animation: "none !important" },
        },
      },
    },
    // A ring says where the keyboard is, a darker shade what is pressed: no waves.
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      styleOverrides: {
        root: { "&:focus-visible": focusRing, "&:active": { filter: "brightness(0.92)" } },
      },
    },
    MuiButton: {
      defaultProps: { disableElevation: true },
      styleOverrides: {
        root: { borderRadius: 10, minHeight: 40, paddingInline: 16 },
        sizeLarge: { minHeight: 48, fontSize: "1.05rem" },
        sizeSmall: { minHeight: 34, paddingInline: 10, fontSize: "0.92rem" },
        outlined: { borderColor: colors.ink, color: colors.ink, backgroundColor: colors.sheet },
      },
    },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          color: colors.inkSoft,
          minHeight: 40,
          textTransform: "none",
          paddingInline: 12,
          "&.Mui-selected, &.Mui-selected:hover": { color: "#ffffff", backgroundColor: colors.teal },
        },
      },
    },
    MuiPaper: { defaultProps: { elevation: 0 } },
    MuiDialog: { styleOverrides: { paper: { borderRadius: 14 } } },
    MuiDialogTitle: { styleOverrides: { root: { fontSize: "1.25rem", fontWeight: 700 } } },
    MuiTooltip: { styleOverrides: { tooltip: { backgroundColor: colors.ink, fontSize: "0.85rem" } } },
    MuiTextField: { defaultProps: { fullWidth: true } },
  },
});

import { createTheme, type Theme } from "@mui/material/styles";

/** Colours that carry a meaning; each always comes with a glyph and a word. */
interface Signals {
  support: string;
  conflict: string;
  open: string;
  caution: string;
  absent: string;
  /** Flat washes behind them. */
  openWash: string;
  cautionWash: string;
  chosenWash: string;
}

declare module "@mui/material/styles" {
  interface Palette {
    signal: Signals;
    rule: string;
    ground: string;
  }
  interface PaletteOptions {
    signal?: Signals;
    rule?: string;
    ground?: string;
  }
}

export type Look = "paper" | "night" | "sun";

interface Inks {
  mode: "light" | "dark";
  ground: string;
  sheet: string;
  ink: string;
  faded: string;
  rule: string;
  accent: string;
  onAccent: string;
  signal: Signals;
}

const looks: Record<Look, Inks> = {
  // A working paper: warm ground, ink that is nearly black and slightly green.
  paper: {
    mode: "light",
    ground: "#f5efe1",
    sheet: "#fbf8ef",
    ink: "#16241b",
    faded: "#4c584d",
    rule: "#c6bb9f",
    accent: "#1f4a33",
    onAccent: "#fdfaf2",
    signal: {
      support: "#1f5c33",
      conflict: "#8e2a1c",
      open: "#6b4a00",
      caution: "#8a1f3d",
      absent: "#565c66",
      openWash: "#f3e3b4",
      cautionWash: "#f6dcdd",
      chosenWash: "#dbe6c9",
    },
  },
  night: {
    mode: "dark",
    ground: "#121713",
    sheet: "#1a211c",
    ink: "#ece6d4",
    faded: "#b3b3a1",
    rule: "#48534a",
    accent: "#a9cf9b",
    onAccent: "#0f1a12",
    signal: {
      support: "#9fd29a",
      conflict: "#f0a08f",
      open: "#e6c46a",
      caution: "#f2a3b5",
      absent: "#aab0ba",
      openWash: "#3a321a",
      cautionWash: "#43222b",
      chosenWash: "#26402c",
    },
  },
  // For full sun on a wet screen: nothing between black and white but the washes.
  sun: {
    mode: "light",
    ground: "#ffffff",
    sheet: "#ffffff",
    ink: "#000000",
    faded: "#1c1c1c",
    rule: "#000000",
    accent: "#00351a",
    onAccent: "#ffffff",
    signal: {
      support: "#00401a",
      conflict: "#7a0d00",
      open: "#4a3000",
      caution: "#75002b",
      absent: "#2b2f36",
      openWash: "#ffeaa0",
      cautionWash: "#ffd9e0",
      chosenWash: "#cdf0b8",
    },
  },
};

export const serif = '"Literata Variable", "Garten Signs", Georgia, serif';
const sans = '"Source Sans 3 Variable", "Garten Signs", "Noto Sans", sans-serif';

/** A finger in a wet glove still hits this. */
const TOUCH_TARGET = 44;

export function themeOf(look: Look): Theme {
  const inks = looks[look];
  const line = `1px solid ${inks.rule}`;
  return createTheme({
    palette: {
      mode: inks.mode,
      primary: { main: inks.accent, contrastText: inks.onAccent },
      error: { main: inks.signal.conflict },
      warning: { main: inks.signal.open },
      success: { main: inks.signal.support },
      text: { primary: inks.ink, secondary: inks.faded },
      background: { default: inks.ground, paper: inks.sheet },
      divider: inks.rule,
      rule: inks.rule,
      ground: inks.ground,
      signal: inks.signal,
    },
    shape: { borderRadius: 2 },
    typography: {
      fontFamily: sans,
      fontSize: 15,
      htmlFontSize: 16,
      fontWeightRegular: look === "sun" ? 500 : 400,
      h1: { fontFamily: serif, fontSize: "1.55rem", fontWeight: 600, lineHeight: 1.25 },
      h2: { fontFamily: serif, fontSize: "1.2rem", fontWeight: 600, lineHeight: 1.3 },
      h3: { fontFamily: sans, fontSize: "0.95rem", fontWeight: 700, lineHeight: 1.35 },
      body1: { fontSize: "1.0625rem", lineHeight: 1.5 },
      body2: { fontSize: "0.9375rem", lineHeight: 1.45 },
      caption: { fontSize: "0.85rem", lineHeight: 1.4 },
      button: { textTransform: "none", fontWeight: 600, fontSize: "1rem" },
    },
    transitions: { create: () => "none" },
    components: {
      MuiCssBaseline: {
        styleOverrides: {
          // A page that grows longer than the screen doesn't jump aside for its scroll bar.
          // Nor does what is scrolled to stand below the bar at the bottom of a phone.
          // What the browser draws itself, such as the sign of a calendar, is light on dark at night.
          html: {
            scrollbarGutter: "stable",
            colorScheme: look === "night" ? "dark" : "light",
            "@media (max-width: 599.95px)": { scrollPaddingBottom: 72 },
          },
          body: { fontVariantNumeric: "tabular-nums" },
          // What tells the place of a sensitive taxon is for the screen alone.
          "@media print": { "[data-kept-back]": { display: "none !important" } },
          ":focus-visible": { outline: `3px solid ${inks.accent}`, outlineOffset: "2px" },
        },
      },
      MuiButtonBase: {
        defaultProps: { disableRipple: true, disableTouchRipple: true },
        styleOverrides: { root: { fontFamily: sans } },
      },
      MuiButton: {
        defaultProps: { disableElevation: true, variant: "outlined" },
        styleOverrides: {
          root: { minHeight: TOUCH_TARGET, paddingInline: 16, borderWidth: look === "sun" ? 2 : 1 },
          outlined: { borderColor: inks.ink, color: inks.ink },
        },
      },
      MuiIconButton: { styleOverrides: { root: { minWidth: TOUCH_TARGET, minHeight: TOUCH_TARGET, borderRadius: 2 } } },
      MuiSkeleton: { defaultProps: { animation: false } },
      MuiPaper: { defaultProps: { elevation: 0, square: true }, styleOverrides: { root: { backgroundImage: "none" } } },
      MuiDialog: { styleOverrides: { paper: { border: `2px solid ${inks.ink}` } } },
      MuiTextField: { defaultProps: { variant: "outlined", fullWidth: true } },
      MuiInputLabel: { styleOverrides: { root: { color: inks.faded } } },
      MuiOutlinedInput: {
        styleOverrides: {
          root: { backgroundColor: inks.sheet, minHeight: TOUCH_TARGET },
          notchedOutline: { borderColor: inks.faded },
        },
      },
      // A page that is locked while a menu is open may move under the finger, and the menu would take that for a change of mind.
      MuiPopover: { defaultProps: { disableScrollLock: true } },
      MuiMenuItem: { styleOverrides: { root: { minHeight: TOUCH_TARGET } } },
      MuiMenu: { styleOverrides: { paper: { border: line } } },
      MuiAutocomplete: { styleOverrides: { paper: { border: line } } },
      MuiLink: { defaultProps: { underline: "always" }, styleOverrides: { root: { color: inks.accent } } },
      MuiFormHelperText: { styleOverrides: { root: { fontSize: "0.9rem", marginLeft: 0, color: inks.faded } } },
    },
  });
}

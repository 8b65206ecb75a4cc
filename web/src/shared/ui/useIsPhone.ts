import { useMediaQuery, type Theme } from "@mui/material";

/** Whether the page is as narrow as a phone's: one column, one thumb. */
export const useIsPhone = () => useMediaQuery((theme: Theme) => theme.breakpoints.down("sm"), { noSsr: true });

/** The same once, before anything is drawn. */
export const isPhoneNow = () => window.matchMedia("(max-width: 599.95px)").matches;

import { CssBaseline, ThemeProvider } from "@mui/material";
import { createContext, useContext, useMemo, useState, type ReactNode } from "react";
import { themeOf, type Look } from "./theme";

const STORED = "garten.look";
const looks: Look[] = ["paper", "night", "sun"];
const LookContext = createContext<{ look: Look; choose: (look: Look) => void }>({ look: "paper", choose: () => {} });

export const useLook = () => useContext(LookContext);

function firstLook(): Look {
  const stored = localStorage.getItem(STORED) as Look | null;
  if (stored && looks.includes(stored)) return stored;
  return window.matchMedia("(prefers-color-scheme: dark)").matches ? "night" : "paper";
}

export function LookProvider({ children }: { children: ReactNode }) {
  const [look, setLook] = useState<Look>(firstLook);
  const theme = useMemo(() => themeOf(look), [look]);
  const value = useMemo(
    () => ({
      look,
      choose: (next: Look) => {
        localStorage.setItem(STORED, next);
        setLook(next);
      },
    }),
    [look],
  );
  return (
    <LookContext value={value}>
      <ThemeProvider theme={theme}>
        <CssBaseline />
        {children}
      </ThemeProvider>
    </LookContext>
  );
}

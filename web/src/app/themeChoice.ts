import { createContext, useEffect, useMemo, useState } from "react";
import type { ThemeName } from "./palette";

interface Choice {
  theme: ThemeName;
  toggle: () => void;
}

const KEY = "orthomer-theme";
const DARK = "(prefers-color-scheme: dark)";

export const ThemeChoice = createContext<Choice>({ theme: "paper", toggle: () => undefined });

const kept = (): ThemeName | undefined => {
  const name = localStorage.getItem(KEY);
  return name === "night" || name === "paper" ? name : undefined;
};
const ofDevice = (): ThemeName => (window.matchMedia(DARK).matches ? "night" : "paper");

/** Paper or night: as chosen in this browser, else as the device has it, also when that changes at dusk. */
export function useThemeChoice(): Choice {
  const [theme, setTheme] = useState<ThemeName>(() => kept() ?? ofDevice());
  useEffect(() => {
    document.documentElement.dataset.theme = theme;
  }, [theme]);
  useEffect(() => {
    const device = window.matchMedia(DARK);
    const changed = () => setTheme(kept() ?? ofDevice());
    device.addEventListener("change", changed);
    return () => device.removeEventListener("change", changed);
  }, []);
  return useMemo(() => {
    const toggle = () => {
      const next: ThemeName = theme === "paper" ? "night" : "paper";
      localStorage.setItem(KEY, next);
      setTheme(next);
    };
    return { theme, toggle };
  }, [theme]);
}

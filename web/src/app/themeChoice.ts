import { createContext, useMemo, useState } from "react";
import type { ThemeName } from "./theme";

interface Choice {
  theme: ThemeName;
  toggle: () => void;
}

const KEY = "orthomer-theme";

export const ThemeChoice = createContext<Choice>({ theme: "paper", toggle: () => undefined });

/** Paper or night, remembered in this browser. */
export function useThemeChoice(): Choice {
  const [theme, setTheme] = useState<ThemeName>(() =>
    localStorage.getItem(KEY) === "night" ? "night" : "paper",
  );
  return useMemo(() => {
    const toggle = () => {
      const next: ThemeName = theme === "paper" ? "night" : "paper";
      localStorage.setItem(KEY, next);
      setTheme(next);
    };
    return { theme, toggle };
  }, [theme]);
}

// The one place for colours, radii and type. Components read them as CSS variables or through Ant Design's tokens.
import { theme as antd, type ThemeConfig } from "antd";

export type ThemeName = "paper" | "night";

interface Palette {
  ground: string;
  surface: string;
  sunken: string;
  ink: string;
  muted: string;
  hairline: string;
  left: string;
  right: string;
  behind: string;
  level: string;
  ahead: string;
  accent: string;
  danger: string;
}

/** Client's left is blue, right burnt orange; behind plum, level stone, ahead pine; brass is the next thing to do. */
export const palettes: Record<ThemeName, Palette> = {
  paper: {
    ground: "#f5f0e6",
    surface: "#fbf8f1",
    sunken: "#ece5d7",
    ink: "#26221c",
    muted: "#625b50",
    hairline: "#d8cfbd",
    left: "#1c5a9e",
    right: "#a8480a",
    behind: "#86286a",
    level: "#6a645a",
    ahead: "#1d6547",
    accent: "#805a0c",
    danger: "#a3271c",
  },
  night: {
    ground: "#191815",
    surface: "#22201c",
    sunken: "#121110",
    ink: "#f0e9dc",
    muted: "#b5ac9c",
    hairline: "#403b33",
    left: "#82b4f0",
    right: "#f2a662",
    behind: "#e09aca",
    level: "#aaa397",
    ahead: "#76cba1",
    accent: "#dcb25b",
    danger: "#f2958a",
  },
};

const RADIUS_PX = 3;
const FONT = '"Atkinson Hyperlegible Next Variable", "Atkinson Hyperlegible Next", system-ui, sans-serif';

/** Makes the palette available to style sheets. */
export function applyPalette(name: ThemeName): void {
  const root = document.documentElement;
  for (const [token, colour] of Object.entries(palettes[name])) {
    root.style.setProperty(`--${token}`, colour);
  }
  root.style.setProperty("--radius", `${RADIUS_PX}px`);
  root.style.setProperty("--font", FONT);
  root.style.colorScheme = name === "night" ? "dark" : "light";
  root.dataset.theme = name;
}

/** Ant Design in the same colours. */
export function antdTheme(name: ThemeName): ThemeConfig {
  const palette = palettes[name];
  return {
    algorithm: name === "night" ? antd.darkAlgorithm : antd.defaultAlgorithm,
    token: {
      colorPrimary: palette.accent,
      colorInfo: palette.accent,
      colorError: palette.danger,
      colorWarning: palette.accent,
      colorSuccess: palette.ahead,
      colorBgBase: palette.surface,
      colorBgLayout: palette.ground,
      colorBgContainer: palette.surface,
      colorTextBase: palette.ink,
      colorTextSecondary: palette.muted,
      colorTextTertiary: palette.muted,
      colorTextDescription: palette.muted,
      colorTextPlaceholder: palette.muted,
      colorTextDisabled: palette.muted,
      colorBorder: palette.hairline,
      colorBorderSecondary: palette.hairline,
      colorTextLightSolid: palette.ground,
      borderRadius: RADIUS_PX,
      fontFamily: FONT,
      fontSize: 15,
      boxShadow: "none",
      boxShadowSecondary: `0 0 0 1px ${palette.hairline}`,
      motionDurationMid: "0.12s",
      motionDurationSlow: "0.16s",
    },
    components: {
      Button: { primaryShadow: "none", defaultShadow: "none", fontWeight: 600 },
      Segmented: {
        trackBg: palette.sunken,
        itemSelectedBg: palette.surface,
        itemColor: palette.muted,
        itemSelectedColor: palette.ink,
      },
    },
  };
}

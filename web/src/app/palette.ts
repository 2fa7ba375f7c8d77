// The one place for colours, sizes, spaces and type. The build writes them as CSS variables; Ant Design reads them through its tokens.

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

export const RADIUS_PX = 3;
export const FONT =
  '"Atkinson Hyperlegible Next Variable", "Atkinson Hyperlegible Next", system-ui, sans-serif';

/** Distances, by their px: nothing stands apart by another one. */
const SPACES_PX = [2, 4, 6, 8, 12, 16, 20, 24, 32, 48];

/** Sizes of type, px. */
const TEXT_PX = { tiny: 12, small: 13, plain: 14, body: 15, large: 17, title: 20, head: 26, huge: 34 };
export const BODY_PX = TEXT_PX.body;

const sizes = (): string =>
  [
    ...SPACES_PX.map((px) => `--space-${px}:${px}px`),
    ...Object.entries(TEXT_PX).map(([name, px]) => `--text-${name}:${px}px`),
  ].join(";");

const declared = (name: ThemeName): string =>
  [
    `color-scheme:${name === "night" ? "dark" : "light"}`,
    ...Object.entries(palettes[name]).map(([token, colour]) => `--${token}:${colour}`),
  ].join(";");

/** The palettes as a style sheet: what `public/theme.js` chose before anything is drawn, else what the device asks for. */
export const paletteCss = (): string =>
  [
    `:root{--radius:${RADIUS_PX}px;--font:${FONT};${sizes()};${declared("paper")}}`,
    // Also of a part of a page: a camera is dark whatever the theme.
    `[data-theme=night]{${declared("night")}}`,
  ].join("\n");

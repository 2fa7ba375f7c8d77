// Ant Design in the palette's colours.
import { theme as antd, type ThemeConfig } from "antd";
import { BODY_PX, FONT, palettes, RADIUS_PX, type ThemeName } from "./palette";

/** Height of what is pressed by a finger, px; the same number stands in base.css. */
const FINGER_PX = 44;

/** For a theme, and for fingers or a mouse. */
export function antdTheme(name: ThemeName, fingers: boolean): ThemeConfig {
  const palette = palettes[name];
  return {
    algorithm: name === "night" ? antd.darkAlgorithm : antd.defaultAlgorithm,
    token: {
      colorPrimary: palette.accent,
      colorInfo: palette.accent,
      colorError: palette.danger,
      colorWarning: palette.accent,
      colorSuccess: palette.ahead,
      colorWarningBg: palette.sunken,
      colorWarningBorder: palette.accent,
      colorErrorBg: palette.sunken,
      colorErrorBorder: palette.danger,
      colorBgBase: palette.surface,
      colorBgLayout: palette.ground,
      colorBgContainer: palette.surface,
      colorBgElevated: palette.surface,
      colorBgContainerDisabled: palette.sunken,
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
      fontSize: BODY_PX,
      ...(fingers ? { controlHeight: FINGER_PX, controlHeightSM: FINGER_PX } : {}),
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

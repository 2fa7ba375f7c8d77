// Ant Design in the palette's colours.
import { theme as antd, type ThemeConfig } from "antd";
import { FONT, palettes, RADIUS_PX, type ThemeName } from "./palette";

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

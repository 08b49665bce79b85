import { theme, type ThemeConfig } from 'antd';
import type { Palette } from './tokens.ts';

export const SANS = "'IBM Plex Sans', system-ui, sans-serif";

/** The look as tokens of the component library: paper, ink, hairlines, no shadows. */
export function antTheme(palette: Palette): ThemeConfig {
  return {
    algorithm: palette.dark ? theme.darkAlgorithm : theme.defaultAlgorithm,
    token: {
      colorPrimary: palette.ink,
      colorLink: palette.ink,
      colorInfo: palette.ink,
      colorSuccess: palette.good,
      colorError: palette.wrong,
      colorText: palette.ink,
      colorTextSecondary: palette.quiet,
      colorTextPlaceholder: palette.quiet,
      colorBgBase: palette.paper,
      colorBgContainer: palette.paper,
      colorBgElevated: palette.paper,
      colorBorder: palette.hairline,
      colorBorderSecondary: palette.hairline,
      colorSplit: palette.hairline,
      fontFamily: SANS,
      fontSize: 13,
      borderRadius: 3,
      controlHeight: 28,
      boxShadow: 'none',
      boxShadowSecondary: `0 0 0 1px ${palette.hairline}`,
      motionDurationMid: '0.1s',
    },
    components: {
      Button: {
        primaryShadow: 'none',
        defaultShadow: 'none',
        dangerShadow: 'none',
        primaryColor: palette.paper,
      },
      Input: { activeShadow: 'none' },
      InputNumber: { activeShadow: 'none' },
      Segmented: { itemSelectedBg: palette.paper, trackBg: 'transparent' },
    },
  };
}

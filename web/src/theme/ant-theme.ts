import { theme, type ThemeConfig } from 'antd';
import { type Palette, SANS } from './tokens.ts';

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
      Button: { primaryShadow: 'none', defaultShadow: 'none', primaryColor: palette.paper },
    },
  };
}

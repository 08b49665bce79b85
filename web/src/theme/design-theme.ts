import { theme, type ThemeConfig } from 'antd';
import { mixed, type Palette, SANS } from '@schritt/plot/palette';

/**
 * The look as tokens of the component library: paper, ink, hairlines, no shadows.
 *
 * @param motion whether components move when they open and close
 */
export function designTheme(palette: Palette, motion: boolean): ThemeConfig {
  const { ink, paper, quiet, hairline, highlight } = palette;
  const edge = mixed(paper, ink, 0.28);
  return {
    algorithm: palette.dark ? theme.darkAlgorithm : theme.defaultAlgorithm,
    hashed: false,
    token: {
      motion,
      colorPrimary: ink,
      colorPrimaryHover: ink,
      colorLink: ink,
      colorLinkHover: ink,
      colorInfo: ink,
      colorSuccess: palette.good,
      colorError: palette.wrong,
      colorText: ink,
      colorTextSecondary: quiet,
      colorTextDescription: quiet,
      colorTextPlaceholder: quiet,
      colorTextLightSolid: paper,
      colorBgBase: paper,
      colorBgContainer: paper,
      colorBgElevated: paper,
      colorBorder: edge,
      colorBorderSecondary: hairline,
      colorSplit: hairline,
      fontFamily: SANS,
      fontSize: 13,
      fontWeightStrong: 600,
      borderRadius: 3,
      borderRadiusSM: 3,
      borderRadiusLG: 3,
      controlHeight: 28,
      controlHeightSM: 24,
      controlItemBgActive: mixed(paper, highlight, 0.6),
      boxShadow: `0 0 0 1px ${edge}`,
      boxShadowSecondary: `0 0 0 1px ${edge}`,
      linkDecoration: 'underline',
    },
    components: {
      Button: {
        primaryShadow: 'none',
        defaultShadow: 'none',
        primaryColor: paper,
        textTextColor: quiet,
        textTextHoverColor: ink,
        textTextActiveColor: ink,
        defaultHoverBorderColor: ink,
        paddingInlineSM: 7,
        contentFontSizeSM: 13,
      },
      Descriptions: { labelColor: quiet, itemPaddingBottom: 4 },
      Modal: { titleFontSize: 16 },
      Segmented: {
        trackBg: mixed(paper, ink, 0.06),
        itemColor: quiet,
        itemHoverColor: ink,
        itemSelectedBg: paper,
        itemSelectedColor: ink,
      },
      Slider: {
        trackBg: ink,
        trackHoverBg: ink,
        railBg: edge,
        railHoverBg: edge,
        handleColor: ink,
        handleActiveColor: ink,
        railSize: 2,
      },
      Table: {
        rowSelectedBg: mixed(paper, highlight, 0.45),
        rowSelectedHoverBg: mixed(paper, highlight, 0.45),
        cellPaddingBlockSM: 10,
      },
      Tabs: {
        itemColor: quiet,
        itemHoverColor: ink,
        itemSelectedColor: ink,
        titleFontSizeSM: 13,
        horizontalItemGutter: 18,
        horizontalItemPaddingSM: '3px 0',
        horizontalMargin: '0',
      },
    },
  };
}

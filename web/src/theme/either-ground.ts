import { DARK, LIGHT, methodMark, type Palette } from '@schritt/plot/palette';

/** Methods whose colours differ. */
const METHODS = 12;

function either(light: string, dark: string): string {
  return `light-dark(${light}, ${dark})`;
}

/**
 * The palette of what is made before it is known on which ground it is shown: each colour is one for a light ground and
 * one for a dark one, of which a browser takes the one that the system asks for. Only style sheets know such colours.
 */
export const EITHER_GROUND: Palette = {
  dark: false,
  paper: either(LIGHT.paper, DARK.paper),
  ink: either(LIGHT.ink, DARK.ink),
  quiet: either(LIGHT.quiet, DARK.quiet),
  hairline: either(LIGHT.hairline, DARK.hairline),
  gridFine: either(LIGHT.gridFine, DARK.gridFine),
  gridCoarse: either(LIGHT.gridCoarse, DARK.gridCoarse),
  highlight: either(LIGHT.highlight, DARK.highlight),
  good: either(LIGHT.good, DARK.good),
  wrong: either(LIGHT.wrong, DARK.wrong),
  // all of them, since colours of methods behind the sixth are mixed, and these cannot be
  methods: Array.from({ length: METHODS }, (_, place) =>
    either(methodMark(LIGHT, place).color, methodMark(DARK, place).color),
  ),
};

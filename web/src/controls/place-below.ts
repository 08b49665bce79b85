/** Room between a button and what it opens, and between that and the edges of the window, in px. */
const GAP = 4;

interface Size {
  readonly width: number;
  readonly height: number;
}

/** Where a panel stands that a button opens: below it, and inside of the window, in px. */
export function placeBelow(
  button: { readonly left: number; readonly bottom: number },
  panel: Size,
  window: Size,
): { readonly left: number; readonly top: number } {
  const inside = (wished: number, own: number, room: number): number =>
    Math.max(GAP, Math.min(wished, room - own - GAP));
  return {
    left: inside(button.left, panel.width, window.width),
    top: inside(button.bottom + GAP, panel.height, window.height),
  };
}

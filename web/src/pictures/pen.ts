/** What draws: a canvas, or a sheet of vectors. */
export interface Pen extends Pick<
  CanvasRenderingContext2D,
  | 'beginPath'
  | 'closePath'
  | 'fill'
  | 'fillRect'
  | 'fillStyle'
  | 'fillText'
  | 'font'
  | 'globalAlpha'
  | 'lineTo'
  | 'lineWidth'
  | 'measureText'
  | 'moveTo'
  | 'rect'
  | 'restore'
  | 'save'
  | 'stroke'
  | 'strokeStyle'
  | 'textAlign'
> {
  readonly clip: () => void;
}

import type { Pen } from './pen.ts';

/** A number to the hundredth of a pixel. */
function at(value: number): string {
  return String(Math.round(value * 100) / 100);
}

function escaped(text: string): string {
  return text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');
}

/** A colour as it is written; pictures draw with no gradients or patterns. */
function colour(style: Pen['fillStyle']): string {
  return typeof style === 'string' ? escaped(style) : 'none';
}

interface State {
  fillStyle: Pen['fillStyle'];
  strokeStyle: Pen['strokeStyle'];
  font: string;
  globalAlpha: number;
  lineWidth: number;
  textAlign: CanvasTextAlign;
  clip: string | null;
}

const ANCHOR: Partial<Record<CanvasTextAlign, string>> = { center: 'middle', right: 'end', end: 'end' };

/** A pen that writes what it draws as elements of an SVG (SVG 1.1) instead of painting it. */
export class SvgPen implements Pen {
  readonly #parts: string[] = [];
  readonly #defs: string[] = [];
  readonly #saved: State[] = [];
  #now: State = {
    fillStyle: '#000',
    strokeStyle: '#000',
    font: '11px sans-serif',
    globalAlpha: 1,
    lineWidth: 1,
    textAlign: 'start',
    clip: null,
  };
  #path = '';
  /** Lengths of dashes and gaps of strokes; null for lines without gaps. */
  dash: string | null = null;
  readonly #measure: (text: string, font: string) => TextMetrics;

  /** @param measure how wide a text is in a font; only its width is used */
  constructor(measure: (text: string, font: string) => TextMetrics) {
    this.#measure = measure;
  }

  get fillStyle(): Pen['fillStyle'] {
    return this.#now.fillStyle;
  }
  set fillStyle(value: Pen['fillStyle']) {
    this.#now.fillStyle = value;
  }
  get strokeStyle(): Pen['strokeStyle'] {
    return this.#now.strokeStyle;
  }
  set strokeStyle(value: Pen['strokeStyle']) {
    this.#now.strokeStyle = value;
  }
  get font(): string {
    return this.#now.font;
  }
  set font(value: string) {
    this.#now.font = value;
  }
  get globalAlpha(): number {
    return this.#now.globalAlpha;
  }
  set globalAlpha(value: number) {
    this.#now.globalAlpha = value;
  }
  get lineWidth(): number {
    return this.#now.lineWidth;
  }
  set lineWidth(value: number) {
    this.#now.lineWidth = value;
  }
  get textAlign(): CanvasTextAlign {
    return this.#now.textAlign;
  }
  set textAlign(value: CanvasTextAlign) {
    this.#now.textAlign = value;
  }

  save(): void {
    this.#saved.push({ ...this.#now });
  }
  restore(): void {
    this.#now = this.#saved.pop() ?? this.#now;
  }
  beginPath(): void {
    this.#path = '';
  }
  moveTo(x: number, y: number): void {
    this.#path += `M${at(x)} ${at(y)}`;
  }
  lineTo(x: number, y: number): void {
    this.#path += `L${at(x)} ${at(y)}`;
  }
  closePath(): void {
    this.#path += 'Z';
  }
  rect(x: number, y: number, width: number, height: number): void {
    this.#path += `M${at(x)} ${at(y)}h${at(width)}v${at(height)}h${at(-width)}Z`;
  }
  arc(x: number, y: number, radius: number): void {
    const r = at(radius);
    this.#path += `M${at(x - radius)} ${at(y)}a${r} ${r} 0 1 0 ${at(2 * radius)} 0a${r} ${r} 0 1 0 ${at(-2 * radius)} 0Z`;
  }
  clip(): void {
    this.#defs.push(`<clipPath id="clip${this.#defs.length}"><path d="${this.#path}"/></clipPath>`);
    this.#now.clip = `clip${this.#defs.length - 1}`;
  }
  stroke(): void {
    const { strokeStyle, lineWidth } = this.#now;
    this.#put(
      `<path d="${this.#path}" fill="none" stroke="${colour(strokeStyle)}" stroke-width="${at(lineWidth)}"${this.dash === null ? '' : ` stroke-dasharray="${this.dash}"`}`,
    );
  }
  fill(): void {
    this.#put(`<path d="${this.#path}" fill="${colour(this.#now.fillStyle)}"`);
  }
  fillRect(x: number, y: number, width: number, height: number): void {
    this.#put(
      `<rect x="${at(x)}" y="${at(y)}" width="${at(width)}" height="${at(height)}" fill="${colour(this.#now.fillStyle)}"`,
    );
  }
  fillText(text: string, x: number, y: number): void {
    const { font, fillStyle, textAlign } = this.#now;
    this.#put(
      `<text x="${at(x)}" y="${at(y)}" style="font:${escaped(font)}" fill="${colour(fillStyle)}" text-anchor="${ANCHOR[textAlign] ?? 'start'}"`,
      escaped(text),
    );
  }
  measureText(text: string): TextMetrics {
    return this.#measure(text, this.#now.font);
  }

  #put(start: string, content: string | null = null): void {
    const { globalAlpha, clip } = this.#now;
    const alpha = globalAlpha < 1 ? ` opacity="${at(globalAlpha)}"` : '';
    const within = clip === null ? '' : ` clip-path="url(#${clip})"`;
    const end = content === null ? '/>' : `>${content}</text>`;
    this.#parts.push(`${start}${alpha}${within}${end}`);
  }

  /** The sheet, with a title for those who do not see it. */
  sheet(width: number, height: number, title: string): string {
    return [
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${at(width)} ${at(height)}" width="${at(width)}" height="${at(height)}" role="img">`,
      `<title>${escaped(title)}</title>`,
      ...(this.#defs.length > 0 ? [`<defs>${this.#defs.join('')}</defs>`] : []),
      ...this.#parts,
      '</svg>',
      '',
    ].join('\n');
  }
}

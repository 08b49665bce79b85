import { plainName } from './plain-name.ts';
import type { Picture } from './picture.ts';

/** A cell of a table of comma-separated values (RFC 4180); no text becomes a formula of a spreadsheet. */
function cell(value: string | number): string {
  if (typeof value === 'number') return Number.isFinite(value) ? String(value) : '';
  const safe = /^[=+\-@\t\r]/.test(value) ? `'${value}` : value;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

/** The data of a picture: a line for each point, with the series that it belongs to. */
export function pictureData({ series }: Picture): string {
  const lines = series.flatMap(({ label, points }) =>
    points.map(({ x, y }) => [label, x, y].map(cell).join(',')),
  );
  return ['series,x,y', ...lines, ''].join('\r\n');
}

/** What a file of the picture is called: its title in plain letters. */
export function pictureName({ title }: Picture): string {
  return plainName(title, 'picture');
}

/** The picture as a PNG, on its ground instead of nothing. */
export async function picturePng(canvas: HTMLCanvasElement, ground: string): Promise<Blob | null> {
  const sheet = document.createElement('canvas');
  sheet.width = canvas.width;
  sheet.height = canvas.height;
  const pen = sheet.getContext('2d');
  if (pen === null) return null;
  pen.fillStyle = ground;
  pen.fillRect(0, 0, sheet.width, sheet.height);
  pen.drawImage(canvas, 0, 0);
  return new Promise((done) => sheet.toBlob(done, 'image/png'));
}

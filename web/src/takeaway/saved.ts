import type { Choice } from './choice.ts';
import type { Taken } from './use-taken.ts';

const KINDS = {
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  svg: 'image/svg+xml',
  text: 'text/plain;charset=utf-8',
} as const;

/** A picture as pixels, so many times as large as it is drawn. */
async function pixels(svg: string, scale: number): Promise<Blob | null> {
  const image = new Image();
  const address = URL.createObjectURL(new Blob([svg], { type: KINDS.svg }));
  try {
    image.src = address;
    await image.decode();
    const canvas = document.createElement('canvas');
    canvas.width = Math.round(image.naturalWidth * scale);
    canvas.height = Math.round(image.naturalHeight * scale);
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
    return await new Promise((done) => canvas.toBlob(done, 'image/png'));
  } finally {
    URL.revokeObjectURL(address);
  }
}

/** The file that is saved; null where it cannot be made. */
export async function savedFile(choice: Choice, { text, bytes }: Taken): Promise<Blob | null> {
  if (text === null) return null;
  if (bytes !== null) return new Blob([bytes], { type: KINDS.xlsx });
  if (choice.what !== 'picture') return new Blob([text], { type: KINDS.text });
  return choice.pictureAs === 'png' ? pixels(text, choice.scale) : new Blob([text], { type: KINDS.svg });
}

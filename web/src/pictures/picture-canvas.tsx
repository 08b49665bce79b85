import type { ReactNode } from 'react';
import type { Picture, PictureEvents } from './picture.ts';
import { usePicture } from './use-picture.ts';

/** A picture in the room that its surroundings give it. */
export function PictureCanvas({
  picture,
  onPoint,
  onChoose,
}: { readonly picture: Picture } & PictureEvents): ReactNode {
  const canvas = usePicture(picture, { onPoint, onChoose });
  return <canvas ref={canvas} role="img" aria-label={picture.title} />;
}

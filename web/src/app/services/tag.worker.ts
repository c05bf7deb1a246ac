import jsQR from 'jsqr';

export interface PictureOfTag {
  readonly id: number;
  readonly pixels: ImageData;
}
/** The text of the code that is in the picture; `null` where none is. */
export interface TagInPicture {
  readonly id: number;
  readonly text: string | null;
}

/** Looks for a printed code in a picture, off the page's own thread, so that what the camera sees keeps moving. */
addEventListener('message', ({ data: { id, pixels } }: MessageEvent<PictureOfTag>) => {
  const found = jsQR(pixels.data, pixels.width, pixels.height, { inversionAttempts: 'dontInvert' });
  postMessage({ id, text: found?.data ?? null } satisfies TagInPicture);
});

import type { FoundCard, KnownArea, PhotoMeasure, Picture, WantedArea } from '@vestigia/core';
import { MOST_MEGAPIXELS, findCard, measurePhoto } from '@vestigia/core';

/** What the page asks of a picture. */
export interface PhotoAsk {
  readonly bitmap: ImageBitmap;
  readonly known: readonly KnownArea[];
  readonly wanted: readonly WantedArea[];
  /** How far the known patches may all be from what they are said to be, ΔE00. */
  readonly knownWithin: number;
}

/** Whether the printed card lies in it. */
export interface CardAsk {
  readonly bitmap: ImageBitmap;
}

/** Works off the page's own thread, so that nothing stands still meanwhile. */
addEventListener('message', ({ data }: MessageEvent<PhotoAsk | CardAsk>) =>
  postMessage('known' in data ? measure(data) : find(data)),
);

const isTooLarge = ({ width, height }: ImageBitmap): boolean => (width * height) / 1e6 > MOST_MEGAPIXELS;

function pixelsOf(bitmap: ImageBitmap): Picture {
  const { width, height } = bitmap;
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('no room to lay the picture out');
  context.drawImage(bitmap, 0, 0);
  return { width, height, data: context.getImageData(0, 0, width, height).data };
}

function measure({ bitmap, known, wanted, knownWithin }: PhotoAsk): PhotoMeasure {
  // Said before its pixels are laid out: those are what takes the memory.
  if (isTooLarge(bitmap))
    return { ok: false, refusal: { code: 'tooLarge', megapixels: (bitmap.width * bitmap.height) / 1e6 } };
  return measurePhoto(pixelsOf(bitmap), known, wanted, knownWithin);
}

const find = ({ bitmap }: CardAsk): FoundCard =>
  isTooLarge(bitmap) ? { ok: false, reason: 'notFound' } : findCard(pixelsOf(bitmap));

import type { KnownArea, PhotoMeasure, WantedArea } from '@vestigia/core';
import { MOST_MEGAPIXELS, measurePhoto } from '@vestigia/core';

/** What the page asks of a picture. */
export interface PhotoAsk {
  readonly bitmap: ImageBitmap;
  readonly known: readonly KnownArea[];
  readonly wanted: readonly WantedArea[];
}

/** Measures off the page's own thread, so that nothing stands still meanwhile. */
addEventListener('message', ({ data }: MessageEvent<PhotoAsk>) => postMessage(measure(data)));

function measure({ bitmap, known, wanted }: PhotoAsk): PhotoMeasure {
  const { width, height } = bitmap;
  const megapixels = (width * height) / 1e6;
  // Said before its pixels are laid out: those are what takes the memory.
  if (megapixels > MOST_MEGAPIXELS) return { ok: false, refusal: { code: 'tooLarge', megapixels } };
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('no room to lay the picture out');
  context.drawImage(bitmap, 0, 0);
  return measurePhoto({ width, height, data: context.getImageData(0, 0, width, height).data }, known, wanted);
}

import type { KnownArea, PhotoMeasure, WantedArea } from '@vestigia/core';
import { measurePhoto } from '@vestigia/core';

/** What the page asks of a picture. */
export interface PhotoAsk {
  readonly bitmap: ImageBitmap;
  readonly known: readonly KnownArea[];
  readonly wanted: readonly WantedArea[];
}

const MOST_PIXELS = 50e6;

/** Measures off the page's own thread, so that nothing stands still meanwhile. */
addEventListener('message', ({ data }: MessageEvent<PhotoAsk>) => postMessage(measure(data)));

function measure({ bitmap, known, wanted }: PhotoAsk): PhotoMeasure {
  const { width, height } = bitmap;
  if (width * height > MOST_PIXELS)
    return { ok: false, refusal: { code: 'tooLarge', megapixels: (width * height) / 1e6 } };
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
  if (!context) return { ok: false, refusal: { code: 'noPatch' } };
  context.drawImage(bitmap, 0, 0);
  return measurePhoto({ width, height, data: context.getImageData(0, 0, width, height).data }, known, wanted);
}

import '@angular/localize/init';
import type { FoundCard, KnownArea, PhotoMeasure, Picture, WantedArea } from '@vestigia/core';
import { MOST_MEGAPIXELS, findCard, measurePhoto } from '@vestigia/core';

/** A picture to be opened: it stays here, since handing it to and fro would hold the page up. */
export interface OpenAsk {
  readonly id: string;
  readonly file: Blob;
}

/** What the page asks of a picture that lies open. */
export interface PhotoAsk {
  readonly id: string;
  readonly known: readonly KnownArea[];
  readonly wanted: readonly WantedArea[];
  /** How far the known patches may all be from what they are said to be, ΔE00. */
  readonly knownWithin: number;
}

/** A picture that lies open: its size, as much of it as a page shows, and the printed card where it was found. */
export interface OpenedPhoto {
  readonly width: number;
  readonly height: number;
  readonly preview: ImageBitmap;
  readonly card: FoundCard;
}

const SHOWN_PX = 1200;
const opened = new Map<string, ImageBitmap>();

/** Works off the page's own thread, so that nothing stands still meanwhile. */
addEventListener('message', ({ data }: MessageEvent<OpenAsk | PhotoAsk>) => {
  if ('known' in data) postMessage(measure(data));
  else
    void open(data).then(
      (photo) => postMessage(photo, { transfer: [photo.preview] }),
      () => postMessage(null),
    );
});

async function open({ id, file }: OpenAsk): Promise<OpenedPhoto> {
  const bitmap = await createImageBitmap(file);
  opened.set(id, bitmap);
  const { width, height } = bitmap;
  const share = Math.min(1, SHOWN_PX / width);
  const preview = await createImageBitmap(bitmap, {
    resizeWidth: Math.max(1, Math.round(width * share)),
    resizeHeight: Math.max(1, Math.round(height * share)),
    resizeQuality: 'medium',
  });
  const card: FoundCard = isTooLarge(bitmap) ? { ok: false, reason: 'notFound' } : findCard(pixelsOf(bitmap));
  return { width, height, preview, card };
}

const isTooLarge = ({ width, height }: ImageBitmap): boolean => (width * height) / 1e6 > MOST_MEGAPIXELS;

function pixelsOf(bitmap: ImageBitmap): Picture {
  const { width, height } = bitmap;
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('no room to lay the picture out');
  context.drawImage(bitmap, 0, 0);
  return { width, height, data: context.getImageData(0, 0, width, height).data };
}

function measure({ id, known, wanted, knownWithin }: PhotoAsk): PhotoMeasure {
  const bitmap = opened.get(id);
  if (!bitmap) throw new Error('that picture is not open');
  // Said before its pixels are laid out: those are what takes the memory.
  if (isTooLarge(bitmap))
    return { ok: false, refusal: { code: 'tooLarge', megapixels: (bitmap.width * bitmap.height) / 1e6 } };
  return measurePhoto(pixelsOf(bitmap), known, wanted, knownWithin);
}

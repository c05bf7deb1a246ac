import { smallerSize } from './smaller-picture';

export interface PictureAsk {
  readonly id: number;
  readonly file: Blob;
}
/** `null`: it is to be sent as it is. */
export interface PictureAnswer {
  readonly id: number;
  readonly smaller: Blob | null;
}

const QUALITY = 0.86;

/** Makes large pictures smaller off the page's own thread, so that hands go on meanwhile. */
addEventListener('message', ({ data }: MessageEvent<PictureAsk>) => {
  void smaller(data.file).then(
    (blob) => postMessage({ id: data.id, smaller: blob } satisfies PictureAnswer),
    // What this browser can't open may still be one that others can.
    () => postMessage({ id: data.id, smaller: null } satisfies PictureAnswer),
  );
});

async function smaller(file: Blob): Promise<Blob | null> {
  const picture = await createImageBitmap(file);
  const size = smallerSize(picture.width, picture.height, file.size);
  if (!size) return null;
  const canvas = new OffscreenCanvas(size.width, size.height);
  const context = canvas.getContext('2d');
  if (!context) return null;
  context.imageSmoothingQuality = 'high';
  context.drawImage(picture, 0, 0, size.width, size.height);
  picture.close();
  const packed = await canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY });
  return packed.size < file.size ? packed : null;
}

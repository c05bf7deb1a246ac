import { DestroyRef, Injectable, inject } from '@angular/core';
import type { PhotoMeasure } from '@vestigia/core';
import type { PhotoAsk } from './photo.worker';

/** Measures photographs in a worker of its own, one after another. */
@Injectable()
export class PhotoMeasurer {
  private worker: Worker | undefined;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.worker?.terminate());
  }

  /** Opens a picture as it is to be seen, turned as its camera says. Rejects where it can’t be opened. */
  open(file: File): Promise<ImageBitmap> {
    return createImageBitmap(file);
  }

  measure(ask: PhotoAsk): Promise<PhotoMeasure> {
    const worker = (this.worker ??= new Worker(new URL('./photo.worker', import.meta.url), { type: 'module' }));
    return new Promise((done, fail) => {
      worker.onmessage = ({ data }: MessageEvent<PhotoMeasure>) => done(data);
      worker.onerror = (event) => fail(new Error(event.message));
      worker.postMessage(ask);
    });
  }
}

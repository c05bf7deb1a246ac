import { DestroyRef, Injectable, inject } from '@angular/core';
import type { FoundCard, PhotoMeasure } from '@vestigia/core';
import type { CardAsk, PhotoAsk } from './photo.worker';

/** Measures photographs in a worker of its own, one after another. */
@Injectable()
export class PhotoMeasurer {
  private worker: Worker | undefined;
  private last: Promise<unknown> = Promise.resolve();

  constructor() {
    inject(DestroyRef).onDestroy(() => this.worker?.terminate());
  }

  /** Opens a picture as it is to be seen, turned as its camera says. Rejects where it can’t be opened. */
  open(file: File): Promise<ImageBitmap> {
    return createImageBitmap(file);
  }

  measure(ask: PhotoAsk): Promise<PhotoMeasure> {
    return this.ask<PhotoMeasure>(ask);
  }

  /** Looks for the printed card. */
  findCard(bitmap: ImageBitmap): Promise<FoundCard> {
    return this.ask<FoundCard>({ bitmap });
  }

  private ask<T>(what: PhotoAsk | CardAsk): Promise<T> {
    const answer = this.last.then(
      () =>
        new Promise<T>((done, fail) => {
          const worker = (this.worker ??= new Worker(new URL('./photo.worker', import.meta.url), { type: 'module' }));
          worker.onmessage = ({ data }: MessageEvent<T>) => done(data);
          worker.onerror = (event) => fail(new Error(event.message));
          worker.postMessage(what);
        }),
    );
    this.last = answer.catch(() => undefined);
    return answer;
  }
}

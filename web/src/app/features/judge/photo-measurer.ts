import { DestroyRef, Injectable, inject } from '@angular/core';
import type { PhotoMeasure } from '@vestigia/core';
import type { OpenAsk, OpenedPhoto, PhotoAsk } from './photo.worker';

/** Opens and measures photographs in a worker of its own, one after another. */
@Injectable()
export class PhotoMeasurer {
  private worker: Worker | undefined;
  private last: Promise<unknown> = Promise.resolve();

  constructor() {
    inject(DestroyRef).onDestroy(() => this.worker?.terminate());
  }

  /** Opens a picture as it is to be seen, turned as its camera says. Rejects where it can’t be opened. */
  async open(id: string, file: Blob): Promise<OpenedPhoto> {
    const photo = await this.ask<OpenedPhoto | null>({ id, file });
    if (!photo) throw new Error('the picture can’t be opened');
    return photo;
  }

  measure(ask: PhotoAsk): Promise<PhotoMeasure> {
    return this.ask<PhotoMeasure>(ask);
  }

  /** Lets go of every picture that lies open. */
  forget(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.last = Promise.resolve();
  }

  private ask<T>(what: OpenAsk | PhotoAsk): Promise<T> {
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

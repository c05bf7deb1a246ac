import { Injectable, signal } from '@angular/core';
import type { OnDestroy } from '@angular/core';
import type { TagInPicture } from './tag.worker';

/** A code of 25 mm is read across a hand's breadth at this size; larger only takes longer. */
const LONGEST_PX = 900;

/** Finds the code of a tag in what a camera sees. Provided by the page that looks, and ended with it. */
@Injectable()
export class TagFinder implements OnDestroy {
  private readonly worker = new Worker(new URL('./tag.worker', import.meta.url), { type: 'module' });
  private readonly canvas = document.createElement('canvas');
  private readonly asked = new Map<number, (text: string | null) => void>();
  private nextId = 0;
  /** It can read nothing on this page. */
  readonly broken = signal(false);

  constructor() {
    this.worker.addEventListener('message', ({ data }: MessageEvent<TagInPicture>) => this.answer(data));
    // While the server is away it can't even be loaded: nothing is found then, and nobody is left waiting.
    this.worker.addEventListener('error', () => {
      this.broken.set(true);
      this.answerAll();
    });
  }

  /** The text of the code in a picture; `null` where none is found. */
  find(picture: HTMLVideoElement | ImageBitmap): Promise<string | null> {
    const isVideo = picture instanceof HTMLVideoElement;
    const [width, height] = isVideo ? [picture.videoWidth, picture.videoHeight] : [picture.width, picture.height];
    const scale = Math.min(1, LONGEST_PX / Math.max(width, height, 1));
    this.canvas.width = Math.round(width * scale);
    this.canvas.height = Math.round(height * scale);
    const context = this.canvas.getContext('2d', { willReadFrequently: true });
    if (this.broken() || !context || this.canvas.width === 0 || this.canvas.height === 0) return Promise.resolve(null);
    context.drawImage(picture, 0, 0, this.canvas.width, this.canvas.height);
    const pixels = context.getImageData(0, 0, this.canvas.width, this.canvas.height);
    const id = (this.nextId += 1);
    return new Promise((resolve) => {
      this.asked.set(id, resolve);
      this.worker.postMessage({ id, pixels }, [pixels.data.buffer]);
    });
  }

  ngOnDestroy(): void {
    this.worker.terminate();
    this.answerAll();
  }

  private answerAll(): void {
    for (const answer of this.asked.values()) answer(null);
    this.asked.clear();
  }

  private answer({ id, text }: TagInPicture): void {
    this.asked.get(id)?.(text);
    this.asked.delete(id);
  }
}

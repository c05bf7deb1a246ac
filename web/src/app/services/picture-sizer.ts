import { Injectable, signal } from '@angular/core';
import type { PictureAnswer } from './picture.worker';

const ORIGINALS = 'vestigia-originals';
/** Whatever holds it up, a picture isn't kept waiting for longer. */
const PATIENCE_MS = 15_000;

/** Large photographs are made smaller before they are sent, unless somebody wants this tablet's kept as they were taken. */
@Injectable({ providedIn: 'root' })
export class PictureSizer {
  readonly keepsOriginals = signal(localStorage.getItem(ORIGINALS) !== null);
  private worker: Worker | undefined;
  private nextId = 0;
  private readonly asked = new Map<number, (smaller: Blob | null) => void>();

  keepOriginals(keep: boolean): void {
    this.keepsOriginals.set(keep);
    if (keep) localStorage.setItem(ORIGINALS, 'yes');
    else localStorage.removeItem(ORIGINALS);
  }

  /** The picture as it is to be sent. What can't be made smaller is sent as it is. */
  async toSend(file: File): Promise<File> {
    if (this.keepsOriginals() || !file.type.startsWith('image/')) return file;
    const smaller = await this.ask(file);
    if (!smaller) return file;
    return new File([smaller], `${file.name.replace(/\.\w+$/, '')}.jpg`, { type: smaller.type });
  }

  private ask(file: File): Promise<Blob | null> {
    const id = (this.nextId += 1);
    return new Promise<Blob | null>((resolve) => {
      this.asked.set(id, resolve);
      setTimeout(() => resolve(null), PATIENCE_MS);
      this.atWork().postMessage({ id, file });
      // A browser that can do no such thing sends it as it is.
    }).catch(() => null);
  }

  private atWork(): Worker {
    if (this.worker) return this.worker;
    const worker = new Worker(new URL('./picture.worker', import.meta.url), { type: 'module' });
    worker.addEventListener('message', ({ data }: MessageEvent<PictureAnswer>) => {
      this.asked.get(data.id)?.(data.smaller);
      this.asked.delete(data.id);
    });
    worker.addEventListener('error', () => {
      // It is of no more use: while the server is away it can't even be loaded. The next picture tries anew.
      worker.terminate();
      this.worker = undefined;
      for (const answer of this.asked.values()) answer(null);
      this.asked.clear();
    });
    return (this.worker = worker);
  }
}

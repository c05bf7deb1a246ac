import { TestBed } from '@angular/core/testing';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { PictureSizer } from './picture-sizer';

type Told = (event: { data?: unknown }) => void;
class FakeWorker {
  static readonly made: FakeWorker[] = [];
  readonly heard = new Map<string, Told>();
  readonly asked: { id: number }[] = [];
  readonly terminate = vi.fn();
  constructor() {
    FakeWorker.made.push(this);
  }
  addEventListener(kind: string, told: Told): void {
    this.heard.set(kind, told);
  }
  postMessage(ask: { id: number }): void {
    this.asked.push(ask);
  }
}

describe('a photograph before it is sent', () => {
  const photo = new File(['a large photograph'], 'hank.png', { type: 'image/png' });
  const at = (i: number): FakeWorker => FakeWorker.made[i]!;
  let sizer: PictureSizer;
  beforeEach(() => {
    localStorage.clear();
    FakeWorker.made.length = 0;
    vi.stubGlobal('Worker', FakeWorker);
    sizer = TestBed.inject(PictureSizer);
  });
  afterEach(() => {
    vi.unstubAllGlobals();
    vi.useRealTimers();
  });

  it('is the smaller one, under its own name', async () => {
    const sent = sizer.toSend(photo);
    at(0).heard.get('message')?.({ data: { id: 1, smaller: new Blob(['small'], { type: 'image/jpeg' }) } });
    expect([(await sent).name, (await sent).type, (await sent).size]).toEqual(['hank.jpg', 'image/jpeg', 5]);
  });

  it('is the one that was taken where it is to be kept so, and where it is no picture', async () => {
    const sheet = new File(['x'], 'sheet.pdf', { type: 'application/pdf' });
    expect(await sizer.toSend(sheet)).toBe(sheet);
    sizer.keepOriginals(true);
    expect(await sizer.toSend(photo)).toBe(photo);
    expect(FakeWorker.made).toEqual([]);
  });

  it('is never lost: a worker that can’t be loaded lets it go as it is, and the next one tries anew', async () => {
    const first = sizer.toSend(photo);
    at(0).heard.get('error')?.({});
    expect(await first).toBe(photo);
    const second = sizer.toSend(photo);
    expect(FakeWorker.made).toHaveLength(2);
    at(1).heard.get('message')?.({ data: { id: 2, smaller: null } });
    expect(await second).toBe(photo);
  });

  it('waits for no worker that says nothing', async () => {
    vi.useFakeTimers();
    const sent = sizer.toSend(photo);
    await vi.advanceTimersByTimeAsync(15_000);
    expect(await sent).toBe(photo);
  });
});

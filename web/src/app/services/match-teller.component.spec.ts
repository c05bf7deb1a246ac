import { TestBed } from '@angular/core/testing';
import type { MatchQuestions } from '@vestigia/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { MatchTeller } from './match-teller';

/** A worker that answers when it is told to. */
class SlowWorker {
  static readonly all: SlowWorker[] = [];
  onmessage: ((event: { data: unknown }) => void) | undefined;
  onerror: ((event: { message: string }) => void) | undefined;
  readonly asked: unknown[] = [];
  isEnded = false;
  constructor() {
    SlowWorker.all.push(this);
  }
  postMessage(ask: unknown): void {
    this.asked.push(ask);
  }
  terminate(): void {
    this.isEnded = true;
  }
}

describe('asking the match', () => {
  const ask = { readings: [], strengths: [] } as MatchQuestions['fits']['ask'];
  let teller: MatchTeller;
  beforeEach(() => {
    SlowWorker.all.length = 0;
    vi.stubGlobal('Worker', SlowWorker);
    teller = TestBed.inject(MatchTeller);
  });
  afterEach(() => vi.unstubAllGlobals());

  it('asks the worker again that has answered: it still knows what it learnt', () => {
    const heard: unknown[] = [];
    teller.tell('fits', ask).subscribe((a) => heard.push(a));
    SlowWorker.all[0]?.onmessage?.({ data: null });
    teller.tell('fits', ask).subscribe((a) => heard.push(a));
    SlowWorker.all[0]?.onmessage?.({ data: null });
    expect(heard).toEqual([null, null]);
    expect(SlowWorker.all).toHaveLength(1);
    expect(SlowWorker.all[0]?.isEnded).toBe(false);
  });
  it('ends one that is at work when nobody waits for it any more, and asks another', () => {
    teller.tell('fits', ask).subscribe().unsubscribe();
    expect(SlowWorker.all[0]?.isEnded).toBe(true);
    teller.tell('fits', ask).subscribe();
    expect(SlowWorker.all).toHaveLength(2);
  });
  it('asks two beside each other of two, and keeps one of them', () => {
    teller.tell('fits', ask).subscribe();
    teller.tell('fits', ask).subscribe();
    for (const worker of SlowWorker.all) worker.onmessage?.({ data: null });
    expect(SlowWorker.all.map((w) => w.isEnded)).toEqual([false, true]);
  });
  it('says so where one fails, and doesn’t ask that one again', () => {
    const failed = vi.fn();
    teller.tell('fits', ask).subscribe({ error: failed });
    SlowWorker.all[0]?.onerror?.({ message: 'out of memory' });
    expect(failed).toHaveBeenCalledWith(new Error('out of memory'));
    expect(SlowWorker.all[0]?.isEnded).toBe(true);
  });
});

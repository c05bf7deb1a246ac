import { TestBed } from '@angular/core/testing';
import type { MatchQuestions } from '@vestigia/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { MatchTeller } from './match-teller';

/** A worker that answers when it is told to, what it was asked first. */
class SlowWorker {
  static readonly all: SlowWorker[] = [];
  onmessage: ((event: { data: unknown }) => void) | undefined;
  onerror: ((event: { message: string }) => void) | undefined;
  readonly asked: { id: number }[] = [];
  isEnded = false;
  constructor() {
    SlowWorker.all.push(this);
  }
  postMessage(ask: { id: number }): void {
    this.asked.push(ask);
  }
  answer(answer: unknown): void {
    this.onmessage?.({ data: { id: this.asked.shift()!.id, answer } });
  }
  terminate(): void {
    this.isEnded = true;
  }
}

describe('asking the match', () => {
  const ask = { readings: [], strengths: [] } as MatchQuestions['fits']['ask'];
  let teller: MatchTeller;
  const [one, other] = [() => SlowWorker.all[0]!, () => SlowWorker.all[1]!];
  beforeEach(() => {
    vi.useFakeTimers();
    SlowWorker.all.length = 0;
    vi.stubGlobal('Worker', SlowWorker);
    teller = TestBed.inject(MatchTeller);
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it('asks one worker, one question after another: it keeps in mind what it learnt', () => {
    const heard: unknown[] = [];
    teller.tell('fits', ask).subscribe((a) => heard.push(a));
    teller.tell('fits', ask).subscribe((a) => heard.push(a));
    one().answer('first');
    one().answer('second');
    teller.tell('fits', ask).subscribe((a) => heard.push(a));
    one().answer('third');
    expect(heard).toEqual(['first', 'second', 'third']);
    expect(SlowWorker.all).toHaveLength(1);
  });
  it('what is asked otherwise while it works is answered next, and the answer nobody waits for is heard by nobody', () => {
    const [left, heard] = [vi.fn(), vi.fn()];
    teller.tell('fits', ask).subscribe(left).unsubscribe();
    teller.tell('fits', ask).subscribe(heard);
    vi.advanceTimersByTime(10_000);
    expect(one().isEnded).toBe(false);
    one().answer('old');
    one().answer('new');
    expect(left).not.toHaveBeenCalled();
    expect(heard).toHaveBeenCalledWith('new');
  });
  it('is ended while it works for nobody, and another is asked then; one that is done stays', () => {
    teller.tell('fits', ask).subscribe().unsubscribe();
    vi.advanceTimersByTime(10_000);
    expect(one().isEnded).toBe(true);
    const heard = vi.fn();
    const asking = teller.tell('fits', ask).subscribe(heard);
    other().answer('told');
    asking.unsubscribe();
    vi.advanceTimersByTime(10_000);
    expect(heard).toHaveBeenCalledWith('told');
    expect(other().isEnded).toBe(false);
  });
  it('tells how far it has learnt, until it answers', () => {
    const learning = vi.fn();
    teller.learning.subscribe(learning);
    teller.tell('fits', ask).subscribe();
    const [{ id } = { id: 0 }] = one().asked;
    one().onmessage?.({ data: { id, learning: { readings: 40, share: 0.2 } } });
    one().onmessage?.({ data: { id: id + 9, learning: { readings: 40, share: 0.9 } } });
    one().answer('told');
    expect(learning.mock.calls).toEqual([[{ readings: 40, share: 0.2 }], [undefined]]);
  });
  it('says so to all who wait where it fails, and doesn’t ask that one again', () => {
    const failed = vi.fn();
    teller.tell('fits', ask).subscribe({ error: failed });
    teller.tell('fits', ask).subscribe({ error: failed });
    one().onerror?.({ message: 'out of memory' });
    expect(failed.mock.calls).toEqual([[new Error('out of memory')], [new Error('out of memory')]]);
    expect(one().isEnded).toBe(true);
    teller.tell('fits', ask).subscribe();
    expect(other().asked).toHaveLength(1);
  });
});

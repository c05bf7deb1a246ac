import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Learning, MatchQuestions } from '@vestigia/core';
import { Subject } from 'rxjs';
import { beforeEach, describe, expect, it } from 'vitest';
import type { MatchAsked } from './ask-match';
import { askMatch } from './ask-match';
import { MatchTeller } from './match-teller';

type Ask = MatchQuestions['strengths']['ask'];
const ask = (stockLotId: string, read: number): Ask =>
  ({ readings: Array(read).fill({ id: 'a reading' }), strengths: [], stockLotIds: [stockLotId] }) as unknown as Ask;
const told = (percent: number) =>
  [{ stockLotId: 'WEL-1', percent }] as unknown as MatchQuestions['strengths']['answer'];

describe('a question that is put for as long as a page is open', () => {
  const about = signal<Ask | undefined>(undefined);
  const learning = new Subject<Learning | undefined>();
  let answers: Subject<unknown>[];
  let asked: MatchAsked<'strengths'>;
  beforeEach(() => {
    about.set(undefined);
    answers = [];
    const tell = () => {
      answers.push(new Subject());
      return answers.at(-1)!;
    };
    TestBed.configureTestingModule({ providers: [{ provide: MatchTeller, useValue: { tell, learning } }] });
    asked = TestBed.runInInjectionContext(() => askMatch('strengths', about));
  });
  const put = (next: Ask | undefined): void => {
    about.set(next);
    TestBed.tick();
  };

  it('keeps what was told while the same is asked of a record that grew: no page goes blank under a hand', () => {
    put(ask('WEL-1', 3));
    expect(asked.answer()).toBeUndefined();
    answers[0]!.next(told(80));
    put(ask('WEL-1', 4));
    expect(answers).toHaveLength(2);
    expect(asked.answer()).toEqual(told(80));
    answers[1]!.next(told(82));
    expect(asked.answer()).toEqual(told(82));
  });
  it('tells nothing of one thing while another is asked about', () => {
    put(ask('WEL-1', 3));
    answers[0]!.next(told(80));
    put(ask('WEL-2', 3));
    expect(asked.answer()).toBeUndefined();
    put(undefined);
    expect(asked.told()).toBeUndefined();
  });
  it('is stopped by whoever would not wait, and asked again when wanted', () => {
    put(ask('WEL-1', 3));
    learning.next({ readings: 2000, share: 0.3 });
    expect(asked.learning()?.share).toBe(0.3);
    asked.stop();
    TestBed.tick();
    expect([asked.isStopped(), answers[0]!.observed]).toEqual([true, false]);
    asked.askAgain();
    TestBed.tick();
    expect(asked.isStopped()).toBe(false);
    answers[1]!.next(told(82));
    expect(asked.answer()).toEqual(told(82));
  });
  it('says so where it could not be worked out, and tells again once it could', () => {
    put(ask('WEL-1', 3));
    answers[0]!.error(new Error('out of memory'));
    expect([asked.isUntold(), asked.answer()]).toEqual([true, undefined]);
    put(ask('WEL-1', 4));
    expect(asked.isUntold()).toBe(false);
    answers[1]!.next(told(82));
    expect(asked.answer()).toEqual(told(82));
  });
});

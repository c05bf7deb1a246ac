import { signal } from '@angular/core';
import type { Topic } from '@vestigia/contract';
import { TestBed } from '@angular/core/testing';
import { Subject } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { ShownProblem } from './api-client';
import { LiveChanges, liveQuery } from './live-query';

describe('a live query', () => {
  const changed = new Subject<readonly Topic[]>();
  const listen = vi.fn(() => changed);
  let replies: Subject<string>[] = [];
  const key = signal('a');

  const query = () =>
    TestBed.runInInjectionContext(() =>
      liveQuery(
        ['lots'],
        () => {
          const reply = new Subject<string>();
          replies.push(reply);
          return reply;
        },
        key,
      ),
    );
  const answer = (text: string): void => {
    replies.at(-1)?.next(text);
    replies.at(-1)?.complete();
  };

  beforeEach(() => {
    replies = [];
    key.set('a');
    listen.mockClear();
    TestBed.configureTestingModule({ providers: [{ provide: LiveChanges, useValue: { listen } }] });
  });

  it('reads once at first, and again when the server says that its topic changed', () => {
    const lots = query();
    TestBed.tick();
    expect(listen).toHaveBeenCalledWith(['lots']);
    expect(lots.value()).toBeUndefined();
    answer('one');
    expect(lots.value()).toBe('one');
    changed.next(['lots']);
    expect(lots.value()).toBe('one');
    answer('two');
    expect(lots.value()).toBe('two');
  });

  it('shows nothing old while another key is being read, and lets an overtaken reply go', () => {
    const lots = query();
    TestBed.tick();
    answer('of a');
    const late = replies.length;
    changed.next(['lots']);
    key.set('b');
    TestBed.tick();
    expect(lots.value()).toBeUndefined();
    replies[late]?.next('of a, too late');
    expect(lots.value()).toBeUndefined();
    answer('of b');
    expect(lots.value()).toBe('of b');
  });

  it('keeps what it showed beside a problem, and forgets the problem with the next answer', () => {
    const lots = query();
    TestBed.tick();
    answer('one');
    lots.reload();
    const problem: ShownProblem = { detail: 'The server can’t be reached.' };
    replies.at(-1)?.error(problem);
    expect([lots.value(), lots.problem()]).toEqual(['one', problem]);
    lots.reload();
    answer('two');
    expect([lots.value(), lots.problem()]).toEqual(['two', undefined]);
  });
});

import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { ReadRunEntry, RunEntryResult } from '@vestigia/contract';
import { IDBFactory } from 'fake-indexeddb';
import 'fake-indexeddb/auto';
import { openDB } from 'idb';
import type { Observable } from 'rxjs';
import { of, throwError } from 'rxjs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { ShownProblem } from './api-client';
import { ApiClient } from './api-client';
import { LiveChanges } from './live-query';
import { Outbox } from './outbox';
import { Session } from './session';

interface Sent {
  readonly drafts: readonly {
    readonly lotId: string;
    readonly entry: ReadRunEntry;
    readonly ageMs: number;
    readonly afterId?: string;
  }[];
}

type Note = Extract<ReadRunEntry, { kind: 'note' }>;
const entry = (id: string, rest: Partial<Note> = {}): ReadRunEntry => ({
  id,
  stepIndex: 1,
  kind: 'note',
  replacesId: null,
  temperatureC: null,
  text: 'seen',
  weighing: null,
  detail: null,
  ...rest,
});
const taken = ({ drafts }: Sent): RunEntryResult[] =>
  drafts.map((d) => ({ id: d.entry.id, ok: true, reason: '', message: '' }));
const unreachable = (): Observable<never> =>
  throwError((): ShownProblem => ({ detail: 'The server can’t be reached.' }));

describe('the outbox', () => {
  const person = signal<{ id: string; name: string } | null>({ id: 'ada', name: 'Ada' });
  const connected = signal(true);
  let answer: (sent: Sent) => Observable<{ results: RunEntryResult[] }>;
  const post = vi.fn((_path: string, body: Sent) => answer(body));
  let uploaded: () => Observable<{ id: string }>;
  const upload = vi.fn(() => uploaded());

  const open = async (): Promise<Outbox> => {
    const outbox = TestBed.inject(Outbox);
    await outbox.ready;
    return outbox;
  };
  const sentIds = (): string[] => post.mock.calls.flatMap(([, body]) => body.drafts.map((d) => d.entry.id));

  beforeEach(() => {
    globalThis.indexedDB = new IDBFactory();
    post.mockClear();
    upload.mockClear();
    person.set({ id: 'ada', name: 'Ada' });
    uploaded = () => of({ id: 'photo' });
    answer = (sent) => of({ results: taken(sent) });
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: { post, upload } },
        { provide: Session, useValue: { person } },
        { provide: LiveChanges, useValue: { connected } },
      ],
    });
  });
  afterEach(() => vi.useRealTimers());

  it('keeps a draft, sends it with its age, and lets go of it when the server has it', async () => {
    const outbox = await open();
    await outbox.add('lot-1', entry('a'), 'Lot 1, note');
    await vi.waitFor(() => expect(outbox.waiting()).toEqual([]));
    expect(sentIds()).toEqual(['a']);
    const [draft] = post.mock.calls[0]?.[1].drafts ?? [];
    expect(draft).toMatchObject({ lotId: 'lot-1' });
    expect(draft?.ageMs).toBeGreaterThanOrEqual(0);
    expect(draft?.ageMs).toBeLessThan(60_000);
    // Shown until what is read from the server holds it.
    expect(outbox.unseen().map((d) => d.entry.id)).toEqual(['a']);
    outbox.seen(new Set(['a']));
    expect(outbox.unseen()).toEqual([]);
  });

  it('says of each entry what this tablet did before it in the same lot', async () => {
    answer = unreachable;
    const outbox = await open();
    await outbox.add('lot-1', entry('a'), 'first');
    await outbox.add('lot-2', entry('b'), 'of another lot');
    await outbox.add('lot-1', entry('c'), 'second');
    await vi.waitFor(() => expect(outbox.reached()).toBe(false));
    answer = (sent) => of({ results: taken(sent) });
    post.mockClear();
    outbox.hurry();
    await vi.waitFor(() => expect(outbox.waiting()).toEqual([]));
    await outbox.add('lot-1', entry('d'), 'after those were sent');
    await vi.waitFor(() => expect(outbox.waiting()).toEqual([]));
    const sent = post.mock.calls.flatMap(([, body]) => body.drafts.map((d) => [d.entry.id, d.afterId]));
    expect(sent).toEqual([
      ['a', undefined],
      ['b', undefined],
      ['c', 'a'],
      ['d', 'c'],
    ]);
  });

  it('keeps what was made without the server, through a reload, and sends it in order once', async () => {
    answer = unreachable;
    const before = await open();
    await before.add('lot-1', entry('a'), 'first');
    await before.add('lot-1', entry('b'), 'second');
    await vi.waitFor(() => expect(before.reached()).toBe(false));
    expect(before.waiting().map((d) => d.label)).toEqual(['first', 'second']);

    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: { post, upload } },
        { provide: Session, useValue: { person } },
        { provide: LiveChanges, useValue: { connected } },
      ],
    });
    answer = (sent) => of({ results: taken(sent) });
    post.mockClear();
    const after = await open();
    await vi.waitFor(() => expect(after.waiting()).toEqual([]));
    expect(sentIds()).toEqual(['a', 'b']);
    expect(after.reached()).toBe(true);
  });

  it('tries again by itself, later each time, until the server is back', async () => {
    answer = unreachable;
    const outbox = await open();
    await outbox.add('lot-1', entry('a'), 'first');
    await vi.waitFor(() => expect(outbox.reached()).toBe(false));
    answer = (sent) => of({ results: taken(sent) });
    await vi.advanceTimersByTimeAsync(5000);
    await vi.waitFor(() => expect(outbox.waiting()).toEqual([]));
    expect(outbox.reached()).toBe(true);
  });

  it('keeps what the server refuses, with its reason, until somebody has read it', async () => {
    answer = ({ drafts }) =>
      of({
        results: drafts.map((d) => ({
          id: d.entry.id,
          ok: d.entry.id !== 'bad',
          reason: '',
          message: d.entry.id === 'bad' ? 'That lot is closed.' : '',
        })),
      });
    const outbox = await open();
    await outbox.add('lot-1', entry('bad'), 'too late');
    await outbox.add('lot-1', entry('good'), 'in time');
    await vi.waitFor(() => expect(outbox.waiting()).toEqual([]));
    expect(outbox.refused().map((d) => [d.label, d.refused])).toEqual([['too late', 'That lot is closed.']]);
    await outbox.forget(outbox.refused()[0]?.key ?? -1);
    expect(outbox.refused()).toEqual([]);
  });

  it('finds the one draft that can’t be read, and the others go on', async () => {
    answer = unreachable;
    const outbox = await open();
    for (const id of ['a', 'b', 'odd', 'c']) await outbox.add('lot-1', entry(id), id);
    await vi.waitFor(() => expect(outbox.reached()).toBe(false));
    post.mockClear();
    answer = (sent) =>
      sent.drafts.some((d) => d.entry.id === 'odd')
        ? throwError((): ShownProblem => ({ detail: 'That can’t be read.', code: 'invalid', status: 400 }))
        : of({ results: taken(sent) });
    outbox.hurry();
    await vi.waitFor(() => expect(outbox.waiting()).toEqual([]));
    expect(outbox.refused().map((d) => d.label)).toEqual(['odd']);
    expect(outbox.unseen().map((d) => d.entry.id)).toEqual(['a', 'b', 'c']);
  });

  it('waits out a session that ended, a busy server and a clock that is behind, and loses nothing', async () => {
    for (const status of [401, 403, 409, 429, 503, 507]) {
      answer = () => throwError((): ShownProblem => ({ detail: 'Not now.', status }));
      const outbox = await open();
      await outbox.add('lot-1', entry(`at ${status}`), 'kept');
      await vi.waitFor(() => expect(outbox.reached()).toBe(false));
      expect(outbox.waiting().map((d) => d.label)).toEqual(['kept']);
      answer = (sent) => of({ results: taken(sent) });
      outbox.hurry();
      await vi.waitFor(() => expect(outbox.waiting()).toEqual([]));
    }
  });

  it('shows what somebody may not do here, and keeps it until a person has read it', async () => {
    answer = () => throwError((): ShownProblem => ({ detail: 'For a helper.', status: 403, code: 'notAllowed' }));
    const outbox = await open();
    await outbox.add('lot-1', entry('a guest’s'), 'not theirs');
    await vi.waitFor(() => expect(outbox.refused().map((d) => d.label)).toEqual(['not theirs']));
  });

  it('an entry that the server breaks on holds its own lot up, and no other', async () => {
    answer = unreachable;
    const outbox = await open();
    await outbox.add('lot-1', entry('a'), 'a');
    await outbox.add('lot-2', entry('breaks'), 'breaks');
    await outbox.add('lot-2', entry('behind it'), 'behind it');
    await outbox.add('lot-3', entry('c'), 'c');
    await vi.waitFor(() => expect(outbox.reached()).toBe(false));
    answer = (sent) =>
      sent.drafts.some((d) => d.entry.id === 'breaks')
        ? throwError((): ShownProblem => ({ detail: 'Something broke.', code: 'broken', status: 500 }))
        : of({ results: taken(sent) });
    outbox.hurry();
    await vi.waitFor(() => expect(outbox.waiting().map((d) => d.label)).toEqual(['breaks', 'behind it']));
    expect(outbox.refused()).toEqual([]);
    answer = (sent) => of({ results: taken(sent) });
    await vi.advanceTimersByTimeAsync(5000);
    await vi.waitFor(() => expect(outbox.waiting()).toEqual([]));
  });

  it('a refused entry is put right and sent again as the same entry', async () => {
    answer = ({ drafts }) =>
      of({
        results: drafts.map((d) => ({
          id: d.entry.id,
          ok: d.entry.text === 'no gas',
          reason: '',
          message: d.entry.text === 'no gas' ? '' : 'Say why the step is skipped.',
        })),
      });
    const outbox = await open();
    await outbox.add('lot-1', entry('skip', { text: null }), 'skipped');
    await vi.waitFor(() => expect(outbox.refused().map((d) => d.refused)).toEqual(['Say why the step is skipped.']));
    await outbox.mend(outbox.refused()[0]?.key ?? -1, { text: 'no gas' });
    await vi.waitFor(() => expect([outbox.refused(), outbox.waiting()]).toEqual([[], []]));
    expect(sentIds()).toEqual(['skip', 'skip']);
  });

  it.each([
    [413, 'refused'],
    [401, 'waits'],
    [429, 'waits'],
    [500, 'waits'],
  ])('a photograph answered with %i %s and is kept', async (status, fate) => {
    uploaded = () => throwError((): ShownProblem => ({ detail: 'That photograph is too large.', status }));
    const outbox = await open();
    await outbox.add('lot-1', entry('a'), 'note');
    await outbox.addPhoto('lot-1', 'a', new File(['x'], 'pot.jpg', { type: 'image/jpeg' }));
    await vi.waitFor(() => expect(upload).toHaveBeenCalled());
    await vi.waitFor(() =>
      expect([outbox.refusedPhotos().length, outbox.waitingPhotos()]).toEqual(fate === 'refused' ? [1, 0] : [0, 1]),
    );
    upload.mockClear();
    uploaded = () => of({ id: 'photo' });
    if (fate === 'refused') {
      expect(outbox.refusedPhotos()[0]?.refused).toContain('too large');
      await outbox.retryPhoto(outbox.refusedPhotos()[0]?.id ?? '');
    } else await vi.advanceTimersByTimeAsync(5000);
    await vi.waitFor(() => expect([outbox.refusedPhotos().length, outbox.waitingPhotos()]).toEqual([0, 0]));
    expect(upload).toHaveBeenCalled();
  });

  it('sends only what the person who is in has made', async () => {
    answer = unreachable;
    const outbox = await open();
    await outbox.add('lot-1', entry('of ada'), 'Ada’s');
    await vi.waitFor(() => expect(outbox.reached()).toBe(false));
    person.set({ id: 'ben', name: 'Ben' });
    expect(outbox.ofOthers()).toBe(1);
    answer = (sent) => of({ results: taken(sent) });
    post.mockClear();
    await outbox.add('lot-1', entry('of ben'), 'Ben’s');
    await vi.waitFor(() => expect(outbox.waiting().map((d) => d.label)).toEqual(['Ada’s']));
    expect(sentIds()).toEqual(['of ben']);
  });

  it('sends a photograph after the entry it belongs to', async () => {
    const outbox = await open();
    await outbox.add('lot-1', entry('a'), 'note');
    await outbox.addPhoto('lot-1', 'a', new File(['x'], 'pot.jpg', { type: 'image/jpeg' }));
    await vi.waitFor(() => expect(upload).toHaveBeenCalled());
    const [path, , , options] = upload.mock.calls[0] as unknown as unknown[];
    expect([path, options]).toEqual([
      '/api/lots/{id}/photos',
      { id: 'lot-1', query: { id: expect.any(String) as string, entry: 'a', name: 'pot.jpg' } },
    ]);
    expect(post.mock.invocationCallOrder[0]).toBeLessThan(upload.mock.invocationCallOrder[0] ?? 0);
  });

  it('sends what an earlier version left behind, under today’s names', async () => {
    const first = await openDB('vestigia-bench', 1, {
      upgrade: (db) => {
        db.createObjectStore('touches', { keyPath: 'key', autoIncrement: true });
        db.createObjectStore('photos', { keyPath: 'id' });
      },
    });
    const kept = { personId: 'ada', wallMs: Date.now() - 5000, steadyMs: 0, page: 'gone' };
    const weighing = { batch: 1, materialId: 'alum', stockLotId: 'A1', movementId: 'm' };
    await first.add('touches', {
      ...kept,
      lotId: 'lot-1',
      words: 'Lot 1, alum weighed',
      entry: { ...entry('old'), kind: 'weigh', weighing: { ...weighing, written: '15 g' } },
    });
    await first.add('touches', { ...kept, lotId: 'lot-1', words: 'Lot 1, note', entry: entry('note') });
    first.close();

    const outbox = await open();
    await vi.waitFor(() => expect(outbox.waiting()).toEqual([]));
    const drafts = post.mock.calls.flatMap(([, body]) => body.drafts);
    expect(drafts.map((d) => d.entry.id)).toEqual(['old', 'note']);
    expect(drafts[0]?.entry.weighing).toEqual({ ...weighing, quantityText: '15 g' });
    expect(drafts[0]?.ageMs).toBeGreaterThanOrEqual(5000);
    expect(outbox.unseen().map((d) => d.label)).toEqual(['Lot 1, alum weighed', 'Lot 1, note']);
  });
});

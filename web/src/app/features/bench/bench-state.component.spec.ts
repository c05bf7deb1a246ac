import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { ReadRunEntry } from '@vestigia/contract';
import { of, throwError } from 'rxjs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import type { StoredDraft } from '../../api/bench-shelf';
import { Outbox } from '../../api/outbox';
import { ServerClock } from '../../api/server-clock';
import { Session } from '../../api/session';
import { NOW, benchFixture, lotFixture, runEntry } from '../../testing/lot.fixture';
import { BenchState } from './bench-state';
import type { EntryContent } from './entry-content';

describe('the bench as this screen shows it', () => {
  const unseen = signal<readonly StoredDraft[]>([]);
  const added: { lotId: string; entry: ReadRunEntry; label: string }[] = [];
  const outbox = {
    unseen,
    seen: vi.fn(),
    atOf: () => NOW,
    add: (lotId: string, entry: ReadRunEntry, label: string) => {
      added.push({ lotId, entry, label });
      unseen.update((all) => [...all, { lotId, entry, label } as StoredDraft]);
      return Promise.resolve();
    },
  };
  const post = vi.fn();
  const get = vi.fn();
  let state: BenchState;

  beforeEach(() => {
    unseen.set([]);
    added.length = 0;
    post.mockReset();
    get.mockReset();
    TestBed.configureTestingModule({
      providers: [
        BenchState,
        { provide: ApiClient, useValue: { post, get } },
        { provide: Outbox, useValue: outbox },
        { provide: ServerClock, useValue: { set: () => undefined, now: () => Date.parse(NOW) } },
        { provide: Session, useValue: { person: signal({ id: 'p', name: 'Ada' }) } },
      ],
    });
    state = TestBed.inject(BenchState);
    state.take(benchFixture(lotFixture()));
  });
  afterEach(() => state.stop());

  const weigh = (materialId: string, stockLotId: string, quantityText: string): EntryContent => ({
    kind: 'weigh',
    weighing: { batch: 1, materialId, stockLotId, quantityText, movementId: 'm' },
  });

  it('shows a step as begun the moment it is touched, with nothing told by the server yet', async () => {
    expect(state.acts().map((a) => [a.kind, a.step.index])).toEqual([['begin', 0]]);
    expect(await state.record('lot-1', 0, { kind: 'start' })).toBeUndefined();
    expect(added.map((a) => [a.lotId, a.entry.kind, a.label])).toEqual([
      ['lot-1', 'start', expect.stringContaining('Lot 1, Weigh the fibre dry')],
    ]);
    expect(state.lotOf('lot-1')?.summary.state).toBe('inWork');
    expect(state.acts()[0]?.kind).toBe('weigh');
  });

  it('says by the server’s own rule why an entry can’t be, and keeps nothing of it', async () => {
    expect(await state.record('lot-1', 0, { kind: 'finish' })).toMatch(/^[A-Z“].*\.$/);
    expect(await state.record('lot-9', 0, { kind: 'start' })).toBe('That lot is not on this bench. Open it again.');
    expect(added).toEqual([]);
  });

  it('names the right jar when the wrong one is taken', async () => {
    await state.record('lot-1', 0, { kind: 'start' });
    expect(await state.record('lot-1', 0, weigh('hanks', 'ALU-1', '400 g'))).toBe(
      'Wrong jar: ALU-1 does not hold hanks. Put it back and take RUG-1, Loft.',
    );
    expect(added.map((a) => a.entry.kind)).toEqual(['start']);
  });

  it('tells what a weighing off its target does, and asks no more once it is within', async () => {
    await state.record('lot-1', 0, { kind: 'start' });
    await state.record('lot-1', 0, weigh('hanks', 'RUG-1', '440 g'));
    expect(state.off()?.off.factor).toBeCloseTo(1.1, 5);
    const entry = added.at(-1)?.entry;
    await state.record('lot-1', 0, { ...weigh('hanks', 'RUG-1', '400 g'), replacesId: entry?.id ?? null });
    expect(state.off()).toBeUndefined();
  });

  it('lays nothing over twice: what the server has told of counts once', async () => {
    await state.record('lot-1', 0, { kind: 'start' });
    const id = added[0]?.entry.id ?? '';
    state.take(benchFixture(lotFixture([runEntry(id, { kind: 'start' })])));
    TestBed.tick();
    expect(state.lotOf('lot-1')?.entries.map((e) => e.id)).toEqual([id]);
    expect(outbox.seen).toHaveBeenCalled();
  });

  it('closes nothing by itself: a lot called off shows as called off, one released stays released', async () => {
    await state.record('lot-1', 0, { kind: 'cancel', text: 'moths' });
    expect(state.lotOf('lot-1')?.summary.state).toBe('cancelled');
    expect(state.acts()).toEqual([]);
  });

  describe('in a rehearsal', () => {
    const rehearsal = () => ({
      id: 'r',
      speed: 60,
      startedAt: NOW,
      now: NOW,
      bench: benchFixture(lotFixture()),
    });
    beforeEach(() => state.takeRehearsal(rehearsal() as never));

    it('asks the rehearsal and leaves the tablet’s outbox alone', async () => {
      post.mockReturnValue(of({ results: [{ ok: true, message: '' }] }));
      get.mockReturnValue(of(rehearsal()));
      expect(await state.record('lot-1', 0, { kind: 'start' })).toBeUndefined();
      expect(post.mock.calls[0]?.[0]).toBe('/api/rehearsals/{id}/run-entries');
      expect(added).toEqual([]);
      expect([state.isRehearsal(), state.speed()]).toEqual([true, 60]);
    });

    it('takes an entry back that the server would not have, and says why', async () => {
      post.mockReturnValue(of({ results: [{ ok: false, message: 'The rehearsal is over.' }] }));
      expect(await state.record('lot-1', 0, { kind: 'start' })).toBe('The rehearsal is over.');
      expect(state.lotOf('lot-1')?.entries).toEqual([]);
      post.mockReturnValue(throwError(() => ({ detail: 'The server can’t be reached.' })));
      expect(await state.record('lot-1', 0, { kind: 'start' })).toBe('The server can’t be reached.');
      expect(state.lotOf('lot-1')?.entries).toEqual([]);
    });
  });
});

import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { GoodsRow, OrderLine } from '@vestigia/contract';
import { of, throwError } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { Session } from '../../api/session';
import { LinePieces } from './line-pieces';

const row = (tag: string, colourwayId: string, onShelf: number): GoodsRow => ({
  lot: { id: tag, tag },
  group: null,
  label: '',
  base: 'Rug wool',
  colourway: { id: colourwayId, name: colourwayId },
  lab: null,
  apart: null,
  inLot: 10,
  came: 10,
  onShelf,
  setAside: 0,
  handedOver: 10 - onShelf,
  gone: 0,
});
const LINE: OrderLine = {
  id: 'line',
  what: 'hanks',
  pieces: 6,
  pieceWeightG: null,
  colourwayId: 'marram',
  matchLotId: 'Lot 2',
  brought: null,
  broughtNote: '',
  setOf: 3,
  priceMinor: null,
  care: '',
  colourway: { id: 'marram', name: 'Marram', lab: null },
  matchLot: { id: 'Lot 2', tag: 'Lot 2', lab: null },
  standing: { state: 'toDye', handedOver: 0, setAside: 2, onShelf: 0, inWork: 0, toDye: 4 },
  lots: [],
  held: [{ lot: { id: 'Lot 2', tag: 'Lot 2' }, group: null, label: '', set: 1, setAside: 2, handedOver: 0 }],
  sets: [{ set: 1, pieces: 2, isFull: false, caution: null }],
  tagged: null,
};

describe('pieces of a line', () => {
  const api = { post: vi.fn((_path: string, body: object) => of(body)) };
  let fixture: ComponentFixture<LinePieces>;
  const host = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const value = (name: string): string =>
    (host().querySelector(`[name="${name}"]`) as HTMLInputElement | null)?.value ?? 'not there';
  const options = (): string[] => [...host().querySelectorAll('option')].map((o) => o.textContent?.trim() ?? '');
  const press = async (label: string): Promise<void> => {
    [...host().querySelectorAll('button')].find((b) => b.textContent?.trim() === label)?.click();
    await fixture.whenStable();
  };
  const show = async (line: OrderLine, goods: GoodsRow[], isOpen = true): Promise<void> => {
    fixture = TestBed.createComponent(LinePieces);
    fixture.componentRef.setInput('line', line);
    fixture.componentRef.setInput('goods', goods);
    fixture.componentRef.setInput('isOpen', isOpen);
    await fixture.whenStable();
  };
  beforeEach(() => {
    api.post.mockClear();
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        { provide: ApiClient, useValue: api },
        { provide: Session, useValue: { person: signal(null), may: () => true } },
      ],
    });
  });

  it('are offered of the lot they must match first, then of its colourway, as many as fill the set begun', async () => {
    await show(LINE, [row('Lot 9', 'sluice', 5), row('Lot 3', 'marram', 5), row('Lot 2', 'marram', 4)]);
    expect(options()).toEqual(['Lot 2, marram, 4 left', 'Lot 3, marram, 5 left', 'Lot 9, sluice, 5 left']);
    expect([value('pieces'), value('set')]).toEqual(['1', '1']);
    await press('Set them aside');
    expect(api.post.mock.calls[0]?.[1]).toMatchObject({
      kind: 'setAside',
      lotId: 'Lot 2',
      lineId: 'line',
      pieces: 1,
      set: 1,
    });
  });
  it('begin another set where all are full', async () => {
    await show({ ...LINE, sets: [{ set: 1, pieces: 3, isFull: true, caution: null }] }, [row('Lot 2', 'marram', 9)]);
    expect([value('pieces'), value('set')]).toEqual(['3', '2']);
  });
  it('go out as they lie in their set', async () => {
    await show(LINE, []);
    await press('Hand over');
    expect(api.post.mock.calls[0]?.[1]).toMatchObject({ kind: 'handOver', pieces: 2, set: 1, lineId: 'line' });
  });
  it('go out some at a time, where another number is written, which is kept until it went', async () => {
    await show(LINE, []);
    const many = host().querySelector('.few input') as HTMLInputElement;
    expect(many.value).toBe('2');
    const write = async (text: string): Promise<void> => {
      many.value = text;
      many.dispatchEvent(new Event('input'));
      await fixture.whenStable();
    };
    const handOver = (): HTMLButtonElement => host().querySelector('[aria-label^="Hand over"]') as HTMLButtonElement;
    await write('a few');
    expect([handOver().disabled, many.value]).toEqual([true, 'a few']);
    await write('');
    expect([handOver().disabled, many.value]).toEqual([true, '']);
    await write('1');
    expect(handOver().getAttribute('aria-label')).toBe('Hand over 1 of Lot 2');
    api.post.mockReturnValueOnce(throwError(() => ({ detail: 'The server can’t be reached.' })));
    await press('Hand over');
    expect(many.value).toBe('1');
    await press('Hand over');
    expect(api.post.mock.calls.map((c) => (c[1] as { pieces: number }).pieces)).toEqual([1, 1]);
    fixture.componentRef.setInput('line', {
      ...LINE,
      held: LINE.held.map((h) => ({ ...h, setAside: 1, handedOver: 1 })),
    });
    await fixture.whenStable();
    expect(host().querySelector('.few')).toBeNull();
    await press('Put back');
    expect(api.post.mock.calls[2]?.[1]).toMatchObject({ kind: 'putBack', pieces: 1 });
  });
  it('only go back where the order was called off', async () => {
    await show(LINE, [row('Lot 2', 'marram', 4)], false);
    const labels = [...host().querySelectorAll('button')].map((b) => b.textContent?.trim());
    expect(labels).toEqual(['Put back']);
  });
  it('say why they can’t move, and send the same move again when it is tried once more', async () => {
    api.post.mockReturnValueOnce(throwError(() => ({ detail: 'Of Lot 2 there are 0 left on the shelf.' })));
    await show(LINE, [row('Lot 2', 'marram', 4)]);
    await press('Set them aside');
    expect(host().textContent).toContain('there are 0 left on the shelf');
    await press('Set them aside');
    const ids = api.post.mock.calls.map((c) => (c[1] as { id: string }).id);
    expect(ids[0]).toBe(ids[1]);
  });
});

import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { MatInputHarness } from '@angular/material/input/testing';
import type { LotDetail, ReadingView } from '@vestigia/contract';
import { sortIntoSets } from '@vestigia/core';
import { EMPTY, of, throwError } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { lotFixture } from '../../testing/lot.fixture';
import { SetSorter } from './set-sorter';
import { SetsOfLot } from './sets-of-lot';
import type { SetsAsk } from './sets.worker';

const read = (piece: string | null, L: number, rest: Partial<ReadingView> = {}): ReadingView =>
  ({
    id: `${piece}-${L}`,
    batch: 1,
    group: null,
    zone: null,
    piece,
    state: 'dry',
    lab: { L, a: 5, b: 20 },
    illuminant: 'D65',
    observer: '10',
    taken: null,
    note: '',
    at: '2026-06-01T09:00:00.000Z',
    by: { id: 'ada', name: 'Ada' },
    replacesId: null,
    ...rest,
  }) as ReadingView;

describe('pieces of a lot in sets', () => {
  const sort = vi.fn();
  const postForFile = vi.fn(() => of(new Blob(['%PDF-'])));
  const get = vi.fn();
  let shelf: readonly object[] = [];
  let fixture: ComponentFixture<SetsOfLot>;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const text = (): string => page().textContent?.replaceAll(/\s+/g, ' ') ?? '';
  const settle = async (): Promise<void> => {
    await fixture.whenStable();
    fixture.detectChanges();
  };
  const show = async (readings: ReadingView[]): Promise<void> => {
    const lot: LotDetail = { ...lotFixture(), readings };
    fixture.componentRef.setInput('lot', lot);
    fixture.detectChanges();
    await settle();
  };
  const size = async (value: string): Promise<void> => {
    await (await TestbedHarnessEnvironment.loader(fixture).getHarness(MatInputHarness)).setValue(value);
    await settle();
  };
  const submit = async (): Promise<void> => {
    page().querySelector<HTMLButtonElement>('button[type=submit]')?.click();
    await settle();
  };

  beforeEach(() => {
    sort
      .mockReset()
      .mockImplementation(({ labs, size: n }: SetsAsk) =>
        Promise.resolve(sortIntoSets(labs.length, n, (x, y) => Math.abs((labs[x]?.L ?? 0) - (labs[y]?.L ?? 0)))),
      );
    shelf = [];
    get
      .mockReset()
      .mockImplementation((path: string) => of(path.endsWith('/pieces') ? shelf : { care: ['Wash it cool.'] }));
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: { get, postForFile } },
        { provide: LiveChanges, useValue: { listen: () => EMPTY, connected: signal(true) } },
      ],
    });
    TestBed.overrideComponent(SetsOfLot, { set: { providers: [{ provide: SetSorter, useValue: { sort } }] } });
    fixture = TestBed.createComponent(SetsOfLot);
  });

  it('waits for pieces that were read by themselves: the lot as a whole, or wet, is none', async () => {
    await show([read(null, 60), read('1', 60, { state: 'wet' })]);
    expect(text()).toContain('So far 0 pieces are read by themselves.');
    expect(page().querySelector('button')).toBeNull();
  });

  it('puts alike to alike, each piece by its newest reading, and names what is left over', async () => {
    await show([read('1', 80), read('2', 61), read('3', 70), read('4', 71), read('5', 40), read('1', 60)]);
    await size('2');
    await submit();
    const sets = [...page().querySelectorAll('[role=group]')].map((g) =>
      [...g.querySelectorAll('figcaption')].map((c) => c.textContent?.trim()),
    );
    expect(sets.map((s) => s.sort()).sort()).toEqual([
      ['1', '2'],
      ['3', '4'],
    ]);
    expect(text()).toContain('2 sets; the worst pair in any lies ΔE00 1.00 apart.');
    expect(text()).toContain('Left over: piece 5.');
    await show([read('1', 60), read('2', 61), read('3', 70)]);
    expect(text()).toContain('Pieces were read since: sort again.');
  });

  it('says what can’t be a set, and what to do where sorting fails', async () => {
    await show([read('1', 60), read('2', 61)]);
    await size('1');
    expect(text()).toContain('A set has two pieces or more.');
    await size('5');
    expect(text()).toContain('Only 2 are read');
    await size('2');
    sort.mockRejectedValueOnce(new Error('gone'));
    await submit();
    expect(text()).toContain('They could not be sorted here.');
  });

  it('are sorted with those of other lots on the shelf, but for what was sold', async () => {
    const under = (L: number) => ({ L, a: 5, b: 20, illuminant: 'D65', observer: '10' });
    const other = (lotId: string, onShelfG: number) => ({
      lotId,
      tag: lotId,
      onShelfG,
      pieces: [
        { mark: '1', lab: under(60.5) },
        { mark: '2', lab: under(80.5) },
        { mark: '3', lab: { ...under(60), illuminant: 'A' } },
      ],
    });
    shelf = [other('Lot 7', 150), other('Lot 8', 0)];
    await show([read('1', 60), read('2', 80)]);
    expect(text()).toContain('Lot 7: 3 pieces read, 150 g on the shelf');
    expect(text()).not.toContain('Lot 8');
    page().querySelector<HTMLInputElement>('[name="with-Lot 7"]')?.click();
    await settle();
    await size('2');
    await submit();
    const sets = [...page().querySelectorAll('[role=group][aria-label^=set] figcaption')].map((c) =>
      c.textContent?.trim(),
    );
    expect([...sets].sort()).toEqual(['Lot 1 · 1', 'Lot 1 · 2', 'Lot 7 · 1', 'Lot 7 · 2']);
    page().querySelector<HTMLInputElement>('[name="piece-Lot 7 · 2"]')?.click();
    await settle();
    expect(text()).toContain('Sort 3 pieces into sets');
  });

  it('get a tag each, with how they are cared for where that may be told', async () => {
    URL.createObjectURL = () => 'blob:x';
    URL.revokeObjectURL = () => undefined;
    await show([read('1', 50), read('2', 70), read('3', 50.5), read('4', 70.5)]);
    await size('2');
    await submit();
    const print = (): void => {
      [...page().querySelectorAll('button')].find((b) => b.textContent?.includes('Print a tag'))?.click();
    };
    print();
    await settle();
    const asked = {
      lotTag: 'Lot 1',
      colourway: 'Marram',
      sets: [
        ['1', '3'],
        ['2', '4'],
      ],
      care: ['Wash it cool.'],
    };
    expect(postForFile).toHaveBeenLastCalledWith('/api/set-tags.pdf', asked);
    get.mockImplementation(() => throwError(() => ({ detail: 'not there' })));
    print();
    await settle();
    expect(postForFile).toHaveBeenLastCalledWith('/api/set-tags.pdf', { ...asked, care: [] });
  });
});

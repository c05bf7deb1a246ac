import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { MatFormFieldHarness } from '@angular/material/form-field/testing';
import { MatInputHarness } from '@angular/material/input/testing';
import { provideRouter } from '@angular/router';
import type { Swatch } from '@vestigia/contract';
import { WHOLE } from '@vestigia/core';
import { EMPTY, of, throwError } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { PalettePage } from './palette';
import { SwatchBookPage } from './swatch-book';

const D65 = { illuminant: 'D65', observer: '10' } as const;
const snippet = (page: number, slot: number, name: string, dyestuff: string, L: number): Swatch => ({
  id: `${page}-${slot}`,
  version: 1,
  name,
  page,
  slot,
  lot: { id: 'l', tag: 'Lot 7', colourway: name },
  of: WHOLE,
  lab: { L, a: 2, b: 40, ...D65 },
  madeWith: {
    base: 'Silk ribbon',
    fibre: 'silk',
    dyestuffs: [dyestuff],
    mordants: ['alum'],
    modifiers: [],
    part: '',
    dip: 2,
    minutes: 60,
    materialIds: [],
  },
  note: '',
  at: '2026-06-01T10:00:00.000Z',
  by: { id: 'ada', name: 'Ada' },
});
const BOOK = [
  snippet(1, 1, 'Marram', 'Weld', 70),
  snippet(1, 2, 'Sluice', 'Alder', 40),
  snippet(3, 5, 'Ebb', 'Weld', 80),
];
const colour = (title: string, L: number, a: number) => ({
  kind: 'lot',
  id: title,
  title,
  detail: 'on silk',
  lab: { L, a, b: 30, ...D65 },
});
const COLOURS = [colour('Lot 1', 70, 2), colour('Lot 2', 40, 20), colour('Lot 3', 71, 2)];

const get = vi.fn((path: string) => of(path === '/api/swatches' ? BOOK : COLOURS.map((c) => ({ ...c, deltaE: 1 }))));
const put = vi.fn();
const post = vi.fn(() => of({ id: 'x', page: 2, slot: 1 }));
const postForFile = vi.fn(() => of(new Blob(['%PDF-'])));

function open<T>(page: new () => T): ComponentFixture<T> {
  TestBed.configureTestingModule({
    providers: [
      provideRouter([]),
      { provide: ApiClient, useValue: { get, put, post, postForFile } },
      { provide: LiveChanges, useValue: { listen: () => EMPTY, connected: signal(true) } },
    ],
  });
  return TestBed.createComponent(page);
}
const hand = (fixture: () => ComponentFixture<unknown>) => {
  const page = (): HTMLElement => fixture().nativeElement as HTMLElement;
  return {
    page,
    text: (selector = ':scope > *'): string =>
      [...page().querySelectorAll(selector)].map((e) => e.textContent?.replace(/\s+/g, ' ')).join(' | '),
    settle: async (): Promise<void> => {
      fixture().detectChanges();
      await fixture().whenStable();
      fixture().detectChanges();
    },
    press: async (name: string, nth = 0): Promise<void> => {
      const buttons = [...page().querySelectorAll('button')].filter((b) => b.textContent?.trim() === name);
      if (!buttons[nth]) throw new Error(`there is no “${name}”, only ${page().textContent}`);
      buttons[nth].click();
      fixture().detectChanges();
      await fixture().whenStable();
      fixture().detectChanges();
    },
    write: async (label: string, value: string): Promise<void> => {
      const field = await TestbedHarnessEnvironment.loader(fixture()).getHarness(
        MatFormFieldHarness.with({ floatingLabelText: label }),
      );
      await ((await field.getControl(MatInputHarness)) as MatInputHarness).setValue(value);
    },
  };
};

describe('the swatch book', () => {
  let fixture: ComponentFixture<SwatchBookPage>;
  const { page, text, settle, press, write } = hand(() => fixture);
  beforeEach(async () => {
    for (const mock of [get, put, post]) mock.mockClear();
    fixture = open(SwatchBookPage);
    await settle();
  });

  it('is leafed through page by page, each place with its snippet or free', async () => {
    expect(text('h2')).toBe('Page 1 of 3');
    expect([text('li strong'), page().querySelectorAll('li').length]).toEqual(['Marram | Sluice', 12]);
    await press('Next page');
    expect(text('li strong')).toBe('');
    await press('Next page');
    expect(text('li strong')).toBe('Ebb');
    expect(page().querySelector('a[href*="page.pdf?page=3"]')).not.toBeNull();
  });

  it('is searched by all words at once: dyestuff, fibre, dip, colour', async () => {
    await write('Find by words', 'weld dip 2');
    await settle();
    expect(text('.mounts figcaption')).toMatch(/Marram.*\|.*Ebb/);
    await write('Find by words', 'weld linen');
    await settle();
    expect(text('h2')).toContain('Nothing in the book fits');
  });

  it('finds what is nearest to a snippet', async () => {
    await press('Nearest to it', 1);
    expect(get.mock.lastCall).toEqual(['/api/colours/nearest', { query: { L: '40', a: '2', b: '40', count: '12' } }]);
    expect(text('h2')).toContain('Nearest to L* 40, a* 2, b* 40');
    expect(text('.mounts figcaption')).toContain('ΔE00 1.0');
  });

  it('keeps what was typed when a place is taken', async () => {
    put.mockReturnValueOnce(throwError(() => ({ detail: 'On page 1, place 2 there is Sluice already.' })));
    await press('Change');
    await write('Place', '2');
    await press('Keep the swatch');
    expect(put.mock.lastCall?.[1]).toEqual({ version: 1, page: 1, slot: 2, note: '' });
    expect(text('form')).toContain('there is Sluice already');
    put.mockReturnValueOnce(of({ id: '1-1' }));
    await press('Keep the swatch');
    expect(text('li form')).toBe('');
  });
});

describe('a palette', () => {
  let fixture: ComponentFixture<PalettePage>;
  const { page, text, settle, press } = hand(() => fixture);
  beforeEach(async () => {
    localStorage.clear();
    postForFile.mockClear();
    fixture = open(PalettePage);
    await settle();
  });
  const laid = (): string => text('.lay figcaption a');

  it('is laid colour by colour, reordered, and warns of two that sit too near', async () => {
    for (const name of ['Lay Lot 2', 'Lay Lot 1', 'Lay Lot 3']) await press(name);
    expect(laid()).toBe('Lot 2 | Lot 1 | Lot 3');
    expect(text('p')).toContain('Lot 1 and Lot 3');
    await press('Later');
    expect(laid()).toBe('Lot 1 | Lot 2 | Lot 3');
    const order = page().querySelector<HTMLSelectElement>('[name=order]');
    order!.selectedIndex = 1;
    order!.dispatchEvent(new Event('change'));
    await settle();
    expect(laid()).toBe('Lot 3 | Lot 1 | Lot 2');
    await press('Leave out');
    expect([laid(), text('p')]).toEqual(['Lot 1 | Lot 2', expect.stringContaining('No two sit closer')]);
  });

  it('is there again when the page is opened anew, and becomes a sheet', async () => {
    await press('Lay Lot 2');
    fixture = TestBed.createComponent(PalettePage);
    await settle();
    expect(laid()).toBe('Lot 2');
    URL.createObjectURL = () => 'blob:x';
    URL.revokeObjectURL = () => undefined;
    await press('As a sheet to print (PDF)');
    expect(postForFile).toHaveBeenCalledWith('/api/palette.pdf', {
      title: 'Palette',
      colours: [{ name: 'Lot 2', detail: 'on silk', lab: COLOURS[1]?.lab }],
    });
  });
});

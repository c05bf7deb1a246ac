import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { MatFormFieldHarness } from '@angular/material/form-field/testing';
import { MatInputHarness } from '@angular/material/input/testing';
import type { PhotoMeasure } from '@vestigia/core';
import { CARD_PATCHES, MEASURED_CARD_DELTA_E00, UNMEASURED_CARD_DELTA_E00, takenBy } from '@vestigia/core';
import { EMPTY, of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { lotFixture } from '../../testing/lot.fixture';
import { PhotoDesk } from './photo-desk';
import { PhotoMeasurer } from './photo-measurer';
import { PhotoReading } from './photo-reading';

const MEASURED = {
  ok: true,
  light: {},
  areas: [
    {
      name: 'piece A',
      lab: { L: 74, a: -4, b: 52 },
      deltaE00Within80: 1.2,
      evenness: { meanDeltaE00: 0.3, maxDeltaE00: 0.7 },
      map: { across: 2, deltaE00: [0.3, 0.7, 0.1, 0.1] },
      drift: 6.2,
    },
  ],
} as unknown as PhotoMeasure;

describe('a reading from a photograph', () => {
  const post = vi.fn(() => of({ id: 'x' }));
  const open = vi.fn();
  const measure = vi.fn();
  const forget = vi.fn();
  const opened = (card: object): object => ({ width: 1000, height: 500, preview: { width: 1000, height: 500 }, card });
  const get = vi.fn();
  let fixture: ComponentFixture<PhotoReading>;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const text = (): string => page().textContent?.replaceAll(/\s+/g, ' ') ?? '';
  const settle = async (): Promise<void> => {
    await fixture.whenStable();
    fixture.detectChanges();
  };
  const press = async (name: string): Promise<void> => {
    const button = [...page().querySelectorAll('button')].find((b) => b.textContent?.trim() === name);
    if (!button) throw new Error(`there is no “${name}”, only ${text()}`);
    button.click();
    await settle();
  };
  const take = async (...names: string[]): Promise<void> => {
    const file = page().querySelector<HTMLInputElement>('input[type=file]')!;
    const value = (names.length === 0 ? ['hank.jpg'] : names).map((name) => new File(['x'], name));
    Object.defineProperty(file, 'files', { value, configurable: true });
    file.dispatchEvent(new Event('change'));
    await vi.waitFor(async () => {
      await settle();
      const laid = page().querySelectorAll('[aria-label="Which photograph"] button').length;
      if (!page().querySelector('.frame, vs-refusal p') || (names.length > 1 && laid < names.length))
        throw new Error('not laid out yet');
    });
  };

  beforeEach(() => {
    post.mockClear();
    open.mockReset().mockResolvedValue(opened({ ok: false, reason: 'notFound' }));
    measure.mockReset().mockResolvedValue(MEASURED);
    get.mockReset().mockReturnValue(of(null));
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: { post, get } },
        { provide: LiveChanges, useValue: { listen: () => EMPTY, connected: signal(true) } },
      ],
    });
    TestBed.overrideComponent(PhotoReading, {
      set: { providers: [PhotoDesk, { provide: PhotoMeasurer, useValue: { open, measure, forget } }] },
    });
    fixture = TestBed.createComponent(PhotoReading);
    fixture.componentRef.setInput('lot', lotFixture());
    // As the page gives it: a master with its own colour.
    fixture.componentRef.setInput('conditions', { L: 40, a: 17, b: 22, illuminant: 'D65', observer: '2' });
    fixture.detectChanges();
  });

  it('asks for the card and a piece before it measures, and says what is missing', async () => {
    await take();
    expect(text()).toContain('Mark the grey card first');
    await press('Mark it by figures');
    expect(text()).toContain('Mark a piece: drag');
    await press('Mark it by figures');
    await press('Measure them');
    expect(measure).toHaveBeenCalledWith(
      expect.objectContaining({
        known: [{ rect: { x: 400, y: 200, width: 200, height: 100 }, lab: { L: 49.5, a: 0, b: 0 } }],
        wanted: [{ rect: { x: 400, y: 200, width: 200, height: 100 }, name: 'piece A' }],
      }),
    );
    expect(text()).toMatch(/piece A.*from a photograph, within ΔE00 1.2 four times in five, even/);
    expect(text()).toContain('least sure of strong yellows');
    expect(text()).toContain('turns steadily from one edge to the other (by 6.2');
  });

  it('is kept with how it was taken, of the piece that is named', async () => {
    await take();
    await press('Mark it by figures');
    await press('Mark it by figures');
    await press('Measure them');
    const [field] = await TestbedHarnessEnvironment.loader(fixture).getAllHarnesses(
      MatFormFieldHarness.with({ floatingLabelText: 'One piece' }),
    );
    await ((await field?.getControl(MatInputHarness)) as MatInputHarness).setValue('3');
    await press('Keep piece A as a reading');
    expect(post).toHaveBeenCalledWith(
      '/api/lots/{id}/readings',
      expect.objectContaining({
        piece: '3',
        state: 'dry',
        lab: { L: 74, a: -4, b: 52 },
        illuminant: 'D65',
        observer: '2',
        taken: takenBy('photo', { within80: 1.2, evenness: { meanDeltaE00: 0.3, maxDeltaE00: 0.7 } }),
      }),
      'lot-1',
    );
    expect(text()).toContain('Kept.');
  });

  it('a picture that can’t be opened or measured says what to do, and what was marked stays', async () => {
    open.mockRejectedValueOnce(new Error('no picture'));
    await take();
    expect(text()).toContain('can’t be opened. Save it as JPEG or PNG');
    await take();
    await press('Mark it by figures');
    await press('Mark it by figures');
    measure.mockResolvedValueOnce({ ok: false, refusal: { code: 'tooDark', name: 'piece A' } });
    await press('Measure them');
    expect(text()).toContain('“piece A” is too dark to be measured');
    measure.mockRejectedValueOnce(new Error('out of memory'));
    await press('Measure them');
    expect(text()).toContain('Take a smaller one');
    expect(page().querySelectorAll('.area')).toHaveLength(2);
  });

  it('the printed card is found by itself; measured it counts as it was read, else as the printer made it', async () => {
    const patches = CARD_PATCHES.map((_, i) => ({ x: i * 40, y: 10, width: 30, height: 30 }));
    open.mockResolvedValue(opened({ ok: true, patches }));
    await take();
    expect(text()).toContain('nobody has measured it yet');
    await press('Mark it by figures');
    await press('Measure them');
    expect(measure.mock.lastCall?.[0]).toMatchObject({
      knownWithin: UNMEASURED_CARD_DELTA_E00,
      known: CARD_PATCHES.map(({ lab }, i) => ({ rect: patches[i], lab })),
    });
    const labs = CARD_PATCHES.map(({ lab }) => ({ ...lab, L: lab.L - 1 }));
    get.mockReturnValue(of({ labs, note: '', at: '2026-06-01T10:00:00.000Z', by: { id: 'a', name: 'Ada' } }));
    fixture = TestBed.createComponent(PhotoReading);
    fixture.componentRef.setInput('lot', lotFixture());
    fixture.componentRef.setInput('conditions', { illuminant: 'D65', observer: '2' });
    await settle();
    await take();
    await press('Mark it by figures');
    await press('Measure them');
    const [asked] = measure.mock.lastCall as [{ knownWithin: number; known: { lab: unknown }[] }];
    expect([asked.knownWithin, asked.known.map((k) => k.lab)]).toEqual([MEASURED_CARD_DELTA_E00, labs]);
    expect(page().querySelectorAll('.map span')).toHaveLength(4);
  });

  it('says that a card lies on the slant', async () => {
    open.mockResolvedValue(opened({ ok: false, reason: 'slanted' }));
    await take();
    expect(text()).toContain('too much on the slant');
  });

  it('many photographs are measured together, and one that can’t be keeps the others from nothing', async () => {
    await take('one.jpg', 'two.jpg');
    expect(text()).toContain('Mark the grey card in one.jpg and two.jpg');
    await press('Mark it by figures');
    await press('Mark it by figures');
    await press('two.jpg');
    await press('Mark it by figures');
    await press('Mark it by figures');
    measure.mockResolvedValueOnce({ ok: false, refusal: { code: 'tooDark', name: 'piece A' } });
    await press('Measure them');
    expect(measure.mock.calls.map(([ask]) => (ask as { wanted: { name: string }[] }).wanted[0]?.name)).toEqual([
      'piece A',
      'piece B',
    ]);
    expect(text()).toContain('one.jpg: “piece A” is too dark');
    expect(page().querySelectorAll('.found')).toHaveLength(1);
    expect(text()).toContain('two.jpg');
  });
});

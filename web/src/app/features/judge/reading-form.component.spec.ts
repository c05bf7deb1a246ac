import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { MatFormFieldHarness } from '@angular/material/form-field/testing';
import { MatInputHarness, MatNativeSelectHarness } from '@angular/material/input/testing';
import { LADDER_QUESTIONS, LADDER_WITHIN80, PAPER_WITHIN80, WHOLE } from '@vestigia/core';
import { EMPTY, of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { lotFixture } from '../../testing/lot.fixture';
import { ReadingForm } from './reading-form';

const OFFSET = { lab: { L: 1, a: -0.5, b: 0.5 }, leftDeltaE00: 0.1 };
const READERS = [
  { name: 'House', readings: 9, repeatabilityDeltaE00: 0.1, offset: null, sharedSwatches: 0 },
  { name: 'Borrowed', readings: 4, repeatabilityDeltaE00: null, offset: OFFSET, sharedSwatches: 4 },
];

interface Sent {
  readonly lab: { L: number; a: number; b: number };
  readonly state: string;
  readonly taken: {
    way: string;
    reader: string;
    spots: unknown[];
    evenness: unknown;
    offset: unknown;
    within80: unknown;
  };
}

describe('a new reading', () => {
  const post = vi.fn((_path: string, _body: Sent) => of({ id: 'r' }));
  let fixture: ComponentFixture<ReadingForm>;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const text = (): string => page().textContent?.replace(/\s+/g, ' ') ?? '';
  const settle = async (): Promise<void> => {
    fixture.detectChanges();
    await fixture.whenStable();
    fixture.detectChanges();
  };
  const press = async (name: string): Promise<void> => {
    const button = [...page().querySelectorAll('button')].find((b) => b.textContent?.trim() === name);
    if (!button) throw new Error(`there is no “${name}”, only ${text()}`);
    button.click();
    await settle();
  };
  const field = (label: string): Promise<MatFormFieldHarness> =>
    TestbedHarnessEnvironment.loader(fixture).getHarness(MatFormFieldHarness.with({ floatingLabelText: label }));
  const write = async (label: string, value: string): Promise<void> =>
    ((await (await field(label)).getControl(MatInputHarness)) as MatInputHarness).setValue(value);
  const spot = async (L: string, a: string, b: string): Promise<void> => {
    await write('L*', L);
    await write('a*', a);
    await write('b*', b);
  };
  const sent = (): Sent => post.mock.lastCall?.[1] as Sent;

  beforeEach(async () => {
    post.mockClear();
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: { post, get: () => of(READERS) } },
        { provide: LiveChanges, useValue: { listen: () => EMPTY, connected: signal(true) } },
      ],
    });
    fixture = TestBed.createComponent(ReadingForm);
    fixture.componentRef.setInput('lot', lotFixture());
    fixture.componentRef.setInput('under', { illuminant: 'D65', observer: '10' });
    fixture.componentRef.setInput('shade', WHOLE);
    await settle();
  });

  it('of one spot is typed, in the state it was in', async () => {
    const select = (await (await field('The piece is')).getControl(MatNativeSelectHarness)) as MatNativeSelectHarness;
    await select.selectOptions({ text: 'damp' });
    await spot('60', '5', '30');
    await press('Keep the reading');
    expect(sent()).toMatchObject({ lab: { L: 60, a: 5, b: 30 }, state: 'damp', taken: { way: 'typed', spots: [] } });
    expect(sent().taken.evenness).toBeNull();
  });

  it('much darker than before, in the same hue: a dark table is asked about', async () => {
    const before = { ...WHOLE, id: 'r0', state: 'dry', lab: { L: 70, a: 4, b: 40 }, illuminant: 'D65', observer: '10' };
    fixture.componentRef.setInput('lot', { ...lotFixture(), readings: [{ ...before, replacesId: null }] });
    await settle();
    await spot('62', '3.6', '36');
    await settle();
    expect(text()).toContain('Darker by L* 8.0 than it was read before, in the same hue');
    await spot('69', '4', '40');
    await settle();
    expect(text()).not.toContain('Darker by');
  });

  it('is bracketed on a printed ladder by three numbers, and said to be unsure', async () => {
    page().querySelector<HTMLInputElement>('[name=onPaper]')?.click();
    await settle();
    for (const axis of ['As light as', 'Leaning as', 'As clear as']) {
      const strip = page().querySelector(`[aria-label="${axis}"]`);
      [...(strip?.querySelectorAll('button') ?? [])][axis === 'As light as' ? 0 : 4]?.click();
      await settle();
    }
    expect(text()).toContain('the piece may lie beyond');
    await press('Take this as the reading');
    await press('Keep the reading');
    const start = lotFixture().summary.master ?? lotFixture().summary.undyed;
    expect(sent()).toMatchObject({ taken: { way: 'ladder', within80: PAPER_WITHIN80 } });
    expect(sent().lab.L).toBeCloseTo(start.L - 16, 1);
  });

  it('of several spots is their mean, with how even it is; one can be left out again', async () => {
    for (const L of ['60', '62', '90']) {
      await spot(L, '5', '30');
      await press('Put this spot by, and read another');
    }
    page().querySelectorAll<HTMLButtonElement>('p button')[2]?.click();
    await settle();
    await spot('61', '5', '30');
    expect(text()).toContain('The mean of 3 spots: L* 61.00, a* 5.00, b* 30.00, even');
    await press('Keep the reading');
    expect(sent().lab).toEqual({ L: 61, a: 5, b: 30 });
    expect(sent().taken.spots).toHaveLength(3);
    expect(sent().taken.evenness).not.toBeNull();
    expect(text()).not.toContain('Spot 1');
  });

  it('with another reader is put right for how that reads beside the first, if wished', async () => {
    await write('Which reader', 'Borrowed');
    await settle();
    expect(text()).toContain('Put right for how it reads beside the first');
    page().querySelector<HTMLInputElement>('[name=putRight]')?.click();
    await settle();
    await spot('61', '4.5', '30.5');
    await press('Keep the reading');
    expect(sent()).toMatchObject({
      lab: { L: 60, a: 5, b: 30 },
      taken: { way: 'reader', reader: 'Borrowed', offset: OFFSET.lab },
    });
  });

  it('by eye on a ladder is bracketed in a few presses, and its error is said to be large', async () => {
    for (let i = 0; i < LADDER_QUESTIONS; i++) {
      page().querySelectorAll<HTMLButtonElement>('.rungs button')[i === 0 ? 3 : 2]?.click();
      await settle();
    }
    await press('Take this as the reading');
    await press('Keep the reading');
    expect(sent().lab.L).toBe(83);
    expect(sent().taken).toMatchObject({ way: 'ladder', within80: LADDER_WITHIN80 });
  });
});

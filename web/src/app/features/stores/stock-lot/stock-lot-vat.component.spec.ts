import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { MatFormFieldHarness } from '@angular/material/form-field/testing';
import { MatInputHarness, MatNativeSelectHarness } from '@angular/material/input/testing';
import type { StockLot } from '@vestigia/contract';
import { NEVER, of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../../api/api-client';
import { LiveChanges } from '../../../api/live-query';
import { ServerClock } from '../../../api/server-clock';
import { StockLotVat } from './stock-lot-vat';

const NOW = '2026-06-01T12:00:00.000Z';
const vatOf = (look: string | null, at = NOW): StockLot =>
  ({
    row: { id: 'vat-1', onHand: 30_000_000 },
    liquor: { vat: { kind: 'fruit', look, ph: 10.4, temperatureC: 45, at } },
    liquorNow: [
      { materialId: 'lime', name: 'Lime', grams: 80, drawn: false },
      { materialId: 'indigo', name: 'Indigo', grams: 24, drawn: true },
    ],
  }) as unknown as StockLot;

describe('a vat', () => {
  const post = vi.fn(() => of({ id: 'x' }));
  let fixture: ComponentFixture<StockLotVat>;
  const page = (): string => (fixture.nativeElement as HTMLElement).textContent?.replaceAll(/\s+/g, ' ') ?? '';
  const show = (vat: StockLot): void => {
    fixture.componentRef.setInput('stockLot', vat);
    fixture.detectChanges();
  };
  const control = async <T extends MatInputHarness | MatNativeSelectHarness>(
    label: RegExp,
    type: new (...args: never[]) => T,
  ): Promise<T> => {
    const field = await TestbedHarnessEnvironment.loader(fixture).getHarness(
      MatFormFieldHarness.with({ floatingLabelText: label }),
    );
    return (await field.getControl(type as never)) as unknown as T;
  };
  const press = (name: string): void => {
    const buttons = [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')];
    buttons.find((b) => b.textContent?.trim() === name)?.click();
  };

  beforeEach(() => {
    post.mockClear();
    const shelf = [
      { id: 'IND-1', tag: 'IND-1', material: 'Indigo', measure: 'weight', free: 500_000, kind: 'dyestuff' },
    ];
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: { get: () => of(shelf), post } },
        { provide: LiveChanges, useValue: { listen: () => NEVER } },
        { provide: ServerClock, useValue: { now: () => Date.parse(NOW) } },
      ],
    });
    fixture = TestBed.createComponent(StockLotVat);
  });

  it('says whether it is ready, and what is wrong where it is not', () => {
    show(vatOf('yellow'));
    expect(page()).toContain('Ready for a dip.');
    show(vatOf('blue'));
    expect(page()).toContain('not reduced');
    expect(page()).not.toContain('Ready for a dip.');
    show(vatOf(null));
    expect(page()).toContain('Nobody has looked');
    show(vatOf('yellow', '2026-05-29T12:00:00.000Z'));
    expect(page()).toContain('3 days ago');
  });

  it('says what to feed it for the strength wanted, by the dyestuff that is in it', () => {
    show(vatOf('yellow'));
    expect(page()).toMatch(/Dyestuff 36 g.*fructose 108 g.*hydrated lime 72 g/);
  });

  it('writes down what was seen, and what was fed from which jar', async () => {
    show(vatOf(null));
    await (await control(/white cup/, MatNativeSelectHarness)).selectOptions({ text: 'green' });
    await (await control(/^pH/, MatInputHarness)).setValue('10,2');
    press('Keep the look');
    expect(post).toHaveBeenCalledWith(
      '/api/stock-lots/{id}/liquor',
      expect.objectContaining({ kind: 'vat', look: 'green', ph: 10.2, temperatureC: null }),
      'vat-1',
    );
    await (await control(/From the jar/, MatNativeSelectHarness)).selectOptions({ text: 'IND-1 · Indigo' });
    await (await control(/^Fed/, MatInputHarness)).setValue('36 g');
    press('Keep the feeding');
    expect(post).toHaveBeenLastCalledWith(
      '/api/stock-lots/{id}/liquor',
      expect.objectContaining({
        kind: 'feed',
        parts: [{ stockLotId: 'IND-1', quantityText: '36 g', movementId: expect.any(String) as string }],
      }),
      'vat-1',
    );
  });

  it('says how many dips bring a depth, and that a weak vat never does', async () => {
    show(vatOf('yellow'));
    await (await control(/Dry fibre/, MatInputHarness)).setValue('200 g');
    expect(page()).toMatch(/\d+ dips, by estimate\..*% WOF.*leave/);
    await (await control(/wanted on it/, MatInputHarness)).setValue('20');
    expect(page()).toContain('does not hold enough');
  });
});

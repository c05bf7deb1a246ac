import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { MatInputHarness } from '@angular/material/input/testing';
import type { LotDetail } from '@vestigia/contract';
import { of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../api/api-client';
import { lotFixture, runEntry } from '../testing/lot.fixture';
import { PourBack } from './pour-back';

/** A lot into whose bath 8 l of WEL-1, a kept liquor, were poured. */
function poured({ finished = true, net = 8_000_000, state = 'inWork' } = {}): LotDetail {
  const lot = lotFixture();
  const stepIndex = lot.plan.steps.findIndex((s) => s.usesBath);
  const step = lot.plan.steps[stepIndex];
  if (!step) throw new Error('no bath in the fixture');
  const contents = [{ materialId: 'weld', name: 'Weld', grams: 60, drawn: true }];
  const entries = [
    runEntry('start', { stepIndex, kind: 'start' }),
    runEntry('pour', {
      stepIndex,
      kind: 'weigh',
      weighing: { batch: 1, materialId: 'weld', stockLotId: 'WEL-1', amount: 8_000_000 },
      detail: { contents },
    } as Parameters<typeof runEntry>[1]),
    ...(finished ? [runEntry('end', { stepIndex, kind: 'finish' })] : []),
  ];
  const taken = { stockLotId: 'WEL-1', tag: 'WEL-1', materialId: 'weld', material: 'Weld', measure: 'volume' as const };
  const steps = lot.plan.steps.map((s) => (s === step ? { ...s, liquor: 'of the vat' } : { ...s, liquor: '' }));
  return {
    ...lot,
    plan: { ...lot.plan, steps },
    entries,
    madeFrom: [{ ...taken, amount: net }],
    summary: { ...lot.summary, state: state as 'inWork' },
  };
}

describe('pouring a kept liquor back', () => {
  const post = vi.fn(() => of({ id: 'x' }));
  let fixture: ComponentFixture<PourBack>;
  const page = (): string => (fixture.nativeElement as HTMLElement).textContent ?? '';
  const show = (lot: LotDetail): void => {
    fixture.componentRef.setInput('lot', lot);
    fixture.detectChanges();
  };

  beforeEach(() => {
    post.mockClear();
    TestBed.configureTestingModule({ providers: [{ provide: ApiClient, useValue: { post } }] });
    fixture = TestBed.createComponent(PourBack);
  });

  it('offers what is left, by estimate, and takes what was measured instead', async () => {
    show(poured());
    const field = await TestbedHarnessEnvironment.loader(fixture).getHarness(MatInputHarness);
    await field.setValue('7,5 l');
    (fixture.nativeElement as HTMLElement).querySelector('button')?.click();
    expect(post).toHaveBeenCalledWith(
      '/api/lots/{id}/returned-liquor',
      expect.objectContaining({ stockLotId: 'WEL-1', batch: 1, quantityText: '7,5 l' }),
      'lot-1',
    );
  });

  it('offers nothing while pieces are in it, once it is back, or when the lot is closed', () => {
    for (const lot of [poured({ finished: false }), poured({ net: 500_000 }), poured({ state: 'released' })]) {
      show(lot);
      expect(page()).not.toContain('Back into');
    }
  });
});

import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import type { LotCost, OrderLine } from '@vestigia/contract';
import { Subject, of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { LineCost } from './line-cost';

const effort = { heatKwh: 4, heatMinor: 100, waterL: 60, waterMinor: null, handsMin: 90, handsMinor: 300 };
const COST: LotCost = {
  currency: 'EUR',
  pieces: 4,
  fifoMinor: 900,
  averageMinor: 1000,
  plannedMinor: 800,
  planned: effort,
  real: { ...effort, handsMinor: 700 },
  rows: [],
};
const lot = (id: string, state: OrderLine['lots'][number]['state']) => ({ id, tag: `Lot ${id}`, state, pieces: 4 });

describe('what a piece of a line costs', () => {
  const api = { get: vi.fn((_path: string, _ids: object) => of(COST)) };
  let fixture: ComponentFixture<LineCost>;
  const show = async (lots: OrderLine['lots'], priceMinor: number | null): Promise<string> => {
    fixture = TestBed.createComponent(LineCost);
    fixture.componentRef.setInput('lots', lots);
    fixture.componentRef.setInput('priceMinor', priceMinor);
    await fixture.whenStable();
    return ((fixture.nativeElement as HTMLElement).textContent ?? '').replace(/\s+/g, ' ').trim();
  };
  beforeEach(() => {
    api.get.mockClear();
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: api },
        { provide: LiveChanges, useValue: { listen: () => new Subject() } },
      ],
    });
  });

  it('is what its plan says until nothing more goes in, and what is left of the price', async () => {
    // (800 + 100 + 300) / 4.
    expect(await show([lot('7', 'inWork')], 500)).toMatch(
      /^A piece of Lot 7 is planned at .*3\.00.*, which leaves .*2\.00/,
    );
  });
  it('is what really went in afterwards, more than it is sold for too', async () => {
    // (1000 + 100 + 700) / 4.
    expect(await show([lot('7', 'released')], 400)).toMatch(
      /^A piece of Lot 7 cost .*4\.50.*, .*0\.50 more than it is sold/,
    );
  });
  it('is told of each lot, and by itself where there is no price', async () => {
    const said = await show([lot('7', 'released'), lot('8', 'cancelled'), lot('9', 'planned')], null);
    expect(said).toMatch(/Lot 7 cost .*4\.50\S*\. A piece of Lot 9 is planned at .*3\.00\S*\.$/);
    expect(api.get).toHaveBeenCalledWith('/api/lots/{id}/cost', { id: '9' });
  });
});

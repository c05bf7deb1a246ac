import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { MatFormFieldHarness } from '@angular/material/form-field/testing';
import { MatInputHarness, MatNativeSelectHarness } from '@angular/material/input/testing';
import type { LotDetail } from '@vestigia/contract';
import type { BenchAct } from '@vestigia/core';
import { benchActs } from '@vestigia/core';
import { of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { Instruments } from '../../api/instruments';
import { NOW, benchFixture, lotFixture, runEntry } from '../../testing/lot.fixture';
import { ActWeigh } from './act-weigh';
import { BenchState } from './bench-state';

type WeighAct = Extract<BenchAct, { kind: 'weigh' }>;

interface PanNow {
  readonly state: string;
  readonly weightG: number | null;
  readonly label: string;
  readonly empty: boolean;
}

describe('weighing out', () => {
  const pan = signal<PanNow | undefined>(undefined);
  const taken = signal(false);
  const record = vi.fn();
  const markTaken = vi.fn();
  let source = 'simulated';
  let lot: LotDetail;
  let fixture: ComponentFixture<ActWeigh>;

  const actOf = (detail: LotDetail): WeighAct => {
    const [act] = benchActs([{ lotId: 'lot-1', plan: detail.plan, entries: detail.entries }], Date.parse(NOW));
    if (act?.kind !== 'weigh') throw new Error('nothing to weigh');
    return act;
  };
  const steady = (weightG: number): PanNow => ({ state: 'steady', weightG, label: 'steady', empty: false });
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const main = (): HTMLButtonElement => page().querySelector('button.main') as HTMLButtonElement;
  const press = async (name: string): Promise<void> => {
    const button = [...page().querySelectorAll('button')].find((b) => b.textContent?.trim() === name);
    if (!button) throw new Error(`there is no “${name}”, only ${page().textContent}`);
    button.click();
    await fixture.whenStable();
  };
  const field = async (label: string): Promise<MatInputHarness> => {
    const harness = await TestbedHarnessEnvironment.loader(fixture).getHarness(
      MatFormFieldHarness.with({ floatingLabelText: label }),
    );
    return (await harness.getControl(MatInputHarness)) as MatInputHarness;
  };

  beforeEach(() => {
    pan.set(undefined);
    taken.set(false);
    source = 'simulated';
    record.mockReset().mockResolvedValue(undefined);
    markTaken.mockReset();
    lot = lotFixture([runEntry('e', { kind: 'start' })]);
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: { get: vi.fn(), post: vi.fn(() => of({ id: 'x' })) } },
        {
          provide: Instruments,
          useValue: { pan, taken, markTaken, sourceOf: () => source, order: () => of({ ok: true }) },
        },
        {
          provide: BenchState,
          useValue: {
            record,
            around: signal(benchFixture(lot)),
            wrongStockLot: (_lot: unknown, _weighing: unknown, tag: string) => `Wrong jar: ${tag}.`,
          },
        },
      ],
    });
    fixture = TestBed.createComponent(ActWeigh);
    fixture.componentRef.setInput('lot', lot);
    fixture.componentRef.setInput('act', actOf(lot));
    fixture.detectChanges();
  });

  it('asks for one thing, how much of it, how near, and from which jar', async () => {
    expect(page().querySelector('h1')?.textContent).toBe('hanks');
    expect(page().querySelector('.target')?.textContent?.replaceAll(/\s+/g, ' ')).toMatch(/^ ?400 g ?± /);
    const select = await TestbedHarnessEnvironment.loader(fixture).getHarness(MatNativeSelectHarness);
    expect(await Promise.all((await select.getOptions()).map((o) => o.getText()))).toEqual([
      expect.stringMatching(/^RUG-1 · Loft · 9 kg$/),
    ]);
    expect(await (await select.host()).getProperty<string>('value')).toBe('RUG-1');
  });

  it('writes down what was typed, by hand, from the jar chosen', async () => {
    await (await field('What the balance shows')).setValue('402 g');
    await press('Weighed');
    expect(record).toHaveBeenCalledWith('lot-1', 0, {
      kind: 'weigh',
      weighing: {
        batch: 1,
        materialId: 'hanks',
        stockLotId: 'RUG-1',
        quantityText: '402 g',
        movementId: expect.any(String) as string,
      },
      detail: { readBy: 'hand' },
    });
  });

  it('takes what the balance shows once it stands still, and says so on the button', async () => {
    pan.set(steady(401));
    await fixture.whenStable();
    expect(main().textContent?.trim()).toBe('Take 401.0 g');
    main().click();
    await fixture.whenStable();
    expect(record.mock.calls[0]?.[2]).toMatchObject({
      weighing: { quantityText: '401 g' },
      detail: { readBy: 'simulated' },
    });
    expect(markTaken).toHaveBeenCalled();
  });

  it('waits for a pan that moves, and takes it by itself when it rests', async () => {
    pan.set({ state: 'moving', weightG: 380, label: 'moving', empty: false });
    await fixture.whenStable();
    main().click();
    await fixture.whenStable();
    expect(record).not.toHaveBeenCalled();
    expect(page().textContent).toContain('It is taken as soon as it stands still.');
    pan.set(steady(400));
    await fixture.whenStable();
    expect(record.mock.calls[0]?.[2]).toMatchObject({ weighing: { quantityText: '400 g' } });
  });

  it('does not write the same load down twice', async () => {
    pan.set(steady(400));
    taken.set(true);
    await fixture.whenStable();
    main().click();
    await fixture.whenStable();
    expect(record).not.toHaveBeenCalled();
    expect(page().textContent).toContain('That was written down already.');
  });

  it('takes the container off', async () => {
    pan.set(steady(600));
    await fixture.whenStable();
    const container = await TestbedHarnessEnvironment.loader(fixture).getHarness(
      MatNativeSelectHarness.with({ selector: '[name="container"]' }),
    );
    await container.selectOptions({ text: /Blue bowl/ });
    expect(main().textContent?.trim()).toBe('Take 400.0 g');
    expect(page().querySelector('[role="status"]')?.textContent).toBe('Within the tolerance.');
  });

  it('offers a portion while there is more to come, and marks it as one', async () => {
    await (await field('What the balance shows')).setValue('150 g');
    await press('A portion: more to come');
    expect(record.mock.calls[0]?.[2]).toMatchObject({ detail: { readBy: 'hand', more: true } });
  });

  it.each([
    ['410 g', '10 g more than planned. It is recorded as it is.'],
    ['390 g', '10 g less than planned. It is recorded as it is.'],
    ['400.5 g', 'Within the tolerance.'],
    ['a handful', expect.stringMatching(/^[A-Z“].*[.?]$/)],
  ])('says of %s what it means', async (typed, said) => {
    await (await field('What the balance shows')).setValue(typed);
    expect(page().querySelector('[role="status"]')?.textContent?.trim()).toEqual(said);
  });

  it('tells a wrong jar by its tag, and the right one too', async () => {
    const tag = await field('Scan or type its tag');
    await tag.setValue('alu-1');
    await tag.blur();
    (page().querySelector('[name="tag"]') as HTMLInputElement).dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(page().textContent).toContain('Wrong jar: ALU-1.');
    await tag.setValue('rug-1');
    (page().querySelector('[name="tag"]') as HTMLInputElement).dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(page().textContent).toContain('RUG-1: the right jar.');
  });

  it('shows why it was not taken, and keeps what was typed', async () => {
    record.mockResolvedValue('The jar does not hold that much any more.');
    const shown = await field('What the balance shows');
    await shown.setValue('402 g');
    await press('Weighed');
    expect(page().textContent).toContain('The jar does not hold that much any more.');
    expect(await shown.getValue()).toBe('402 g');
  });

  it('goes on without what can’t be weighed by saying why: that weighing is left out, not the step', async () => {
    await press('Can’t be weighed');
    await (await field('Why is it left out?')).setValue('balance broke');
    await press('Go on without it');
    expect(record).toHaveBeenCalledWith('lot-1', 0, {
      kind: 'leaveOut',
      text: 'balance broke',
      detail: { batch: 1, materialId: expect.any(String) as string },
    });
  });

  describe('of which the dose is too small for the balance', () => {
    const small = (jars: LotDetail['stockLots']): void => {
      const act = actOf(lot);
      const solution = { dissolveG: 5, inMl: 500, takeMl: 30 };
      fixture.componentRef.setInput('lot', { ...lot, stockLots: jars });
      fixture.componentRef.setInput('act', { ...act, weighing: { ...act.weighing, solution }, target: 300 });
      fixture.detectChanges();
    };
    const crystals = (): LotDetail['stockLots'] => lot.stockLots.filter((j) => j.id === 'RUG-1');

    it('one press makes the solution and takes the dose from it', async () => {
      small(crystals());
      await press('Made it: 5.0 g in 500 ml, 30 ml taken');
      expect(record).toHaveBeenCalledWith('lot-1', 0, {
        kind: 'weigh',
        weighing: expect.objectContaining({ materialId: 'hanks', quantityText: '30 ml' }) as object,
        detail: {
          readBy: 'hand',
          solution: {
            stockLotId: expect.any(String) as string,
            takenMl: 30,
            gPerL: 10,
            made: { fromStockLotId: 'RUG-1', dissolvedG: 5, madeUpMl: 500 },
          },
        },
      });
    });

    it('offers a solution that stands instead of making another', async () => {
      const [jar] = crystals();
      if (!jar) throw new Error('no jar in the fixture');
      small([
        jar,
        {
          ...jar,
          id: 'SOL-1',
          tag: 'SOL-1',
          materialId: 'solution',
          measure: 'volume',
          onHand: 200_000,
          solutionOf: { materialId: 'hanks', gPerL: 20 },
        },
      ]);
      expect(page().textContent).not.toContain('Made it');
      await press('Take 15 ml of SOL-1, 20 g/l');
      expect(record).toHaveBeenCalledWith('lot-1', 0, {
        kind: 'weigh',
        weighing: expect.objectContaining({ stockLotId: 'SOL-1' }) as object,
        detail: { readBy: 'hand', solution: { stockLotId: 'SOL-1', takenMl: 15, gPerL: 20 } },
      });
    });
  });
});

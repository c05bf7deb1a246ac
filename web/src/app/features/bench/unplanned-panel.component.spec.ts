import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { MatFormFieldHarness } from '@angular/material/form-field/testing';
import { MatInputHarness, MatNativeSelectHarness } from '@angular/material/input/testing';
import type { LotDetail, ShelfRow } from '@vestigia/contract';
import type { BenchAct } from '@vestigia/core';
import { benchActs } from '@vestigia/core';
import { EMPTY, of, throwError } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { NOW, benchFixture, lotFixture, runEntry } from '../../testing/lot.fixture';
import { BenchState } from './bench-state';
import type { EntryContent } from './entry-content';
import { UnplannedPanel } from './unplanned-panel';

const jar = (tag: string, material: string, rest: Partial<ShelfRow> = {}): ShelfRow =>
  ({
    id: tag,
    tag,
    materialId: tag,
    material,
    measure: 'weight',
    onHand: 90_000,
    kind: 'dyestuff',
    hazards: [],
    ...rest,
  }) as ShelfRow;

describe('what was not planned', () => {
  const get = vi.fn();
  const told = vi.fn<(content: EntryContent) => void>();
  let lot: LotDetail;
  let fixture: ComponentFixture<UnplannedPanel>;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const settle = async (): Promise<void> => {
    fixture.detectChanges();
    await fixture.whenStable();
    fixture.detectChanges();
  };
  const press = async (name: string): Promise<void> => {
    [...page().querySelectorAll('button')].find((b) => b.textContent?.trim() === name)?.click();
    await settle();
  };
  const field = (label: string): Promise<MatFormFieldHarness> =>
    TestbedHarnessEnvironment.loader(fixture).getHarness(MatFormFieldHarness.with({ floatingLabelText: label }));
  const write = async (label: string, text: string): Promise<void> =>
    ((await (await field(label)).getControl(MatInputHarness)) as MatInputHarness).setValue(text);
  const choose = async (label: string, text: string): Promise<void> =>
    ((await (await field(label)).getControl(MatNativeSelectHarness)) as MatNativeSelectHarness).selectOptions({ text });

  beforeEach(async () => {
    get.mockReset().mockReturnValue(of([jar('OLD-1', 'An old dyestuff')]));
    told.mockReset();
    lot = lotFixture([runEntry('e', { kind: 'start' })]);
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: { get } },
        { provide: LiveChanges, useValue: { listen: () => EMPTY, connected: signal(true) } },
        {
          provide: BenchState,
          useValue: {
            lots: signal([lot]),
            around: signal({ ...benchFixture(lot), vessels: [{ id: 'tub', name: 'Tub', metal: 'plastic' }] }),
          },
        },
      ],
    });
    fixture = TestBed.createComponent(UnplannedPanel);
    const [act] = benchActs([{ lotId: 'lot-1', plan: lot.plan, entries: lot.entries }], Date.parse(NOW));
    fixture.componentRef.setInput('act', act as BenchAct);
    fixture.componentRef.setInput('lot', lot);
    fixture.componentInstance.recorded.subscribe(told);
    await settle();
  });

  it('went in out of a jar, or out of none, with its amount or a guess', async () => {
    await press('Something else went in');
    await write('What went in', 'old-1');
    await write('How much', '20 g');
    await settle();
    expect(page().textContent).toContain('An old dyestuff out of OLD-1');
    await press('Keep it in the record');
    expect(told).toHaveBeenCalledWith(
      expect.objectContaining({
        kind: 'add',
        weighing: expect.objectContaining({ stockLotId: 'OLD-1', quantityText: '20 g' }) as unknown,
      }),
    );
    await write('What went in', 'vinegar');
    await write('How much', 'a splash');
    await settle();
    expect(page().textContent).toContain('From no jar on the shelf.');
    await press('Keep it in the record');
    expect(told).toHaveBeenLastCalledWith(
      expect.objectContaining({
        weighing: null,
        detail: expect.objectContaining({ name: 'vinegar', quantityText: 'a splash' }) as unknown,
      }),
    );
  });

  it('without the server it offers the jars of the lots at the bench, and says what nobody could check', async () => {
    get.mockReturnValue(throwError(() => ({ detail: 'no network' })));
    await press('Something else went in');
    const tags = [...page().querySelectorAll<HTMLOptionElement>('#added-jars option')].map((o) => o.value);
    expect(tags).toEqual(['ALU-1', 'WEL-1']);
    await write('What went in', 'WEL-1');
    await settle();
    expect(page().textContent).toContain('Without the server nobody can say what it must not meet');
  });

  it('moved into another pot, pieces out, strained, or a step of its own: each as the fact it is', async () => {
    await press('Another pot or water');
    await choose('Into which pot', 'Tub · plastic');
    await press('Keep it in the record');
    expect(told).toHaveBeenLastCalledWith(
      expect.objectContaining({
        kind: 'moved',
        detail: { vessels: [{ batch: 1, vesselId: 'tub', vesselName: 'Tub' }] },
      }),
    );
    await press('Pieces put in or taken out');
    await choose('Pieces', 'taken out');
    await write('How many', '2');
    await press('Keep it in the record');
    expect(told).toHaveBeenLastCalledWith(
      expect.objectContaining({ kind: 'pieces', detail: { batch: 1, change: -2 } }),
    );
    await press('A step the chain doesn’t have');
    await write('What was done', 'rinsed in the sea');
    await write('How long', '5');
    await press('Keep it in the record');
    expect(told).toHaveBeenLastCalledWith(
      expect.objectContaining({
        kind: 'extra',
        detail: { title: 'rinsed in the sea', stepKind: 'rinse', minutes: 5 },
      }),
    );
  });
});

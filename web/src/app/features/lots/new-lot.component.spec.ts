import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { MatFormFieldHarness } from '@angular/material/form-field/testing';
import { MatInputHarness, MatNativeSelectHarness } from '@angular/material/input/testing';
import { By } from '@angular/platform-browser';
import { Router, provideRouter } from '@angular/router';
import type { Proposal, ProposalAsk } from '@vestigia/contract';
import type { Observable } from 'rxjs';
import { NEVER, of, throwError } from 'rxjs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { ContextPanel } from '../../services/context-panel';
import { lotFixture } from '../../testing/lot.fixture';
import { NewLotPage } from './new-lot';
import { ReorderLetter } from './reorder-letter';
import { NOT_CORRECTED } from './taken-correction';

const LIGHT = { illuminant: 'D65' as const, observer: '10' as const };
const MARRAM = {
  id: 'marram',
  name: 'Marram',
  master: { L: 74, a: -4, b: 50, ...LIGHT },
  base: { id: 'hanks', name: 'Rug wool' },
  recipe: { versionId: 'v2', name: 'Weld on alum', number: 2 },
  lastWaterId: null,
};
const pot = (id: string, name: string) => ({ id, name, metal: 'stainless', workingMl: 30_000 });
const STUDIO = {
  vessels: [pot('steel', 'Steel pan'), pot('big', 'Big kettle')],
  waters: [{ id: 'tap', name: 'Tap', ph: 7.2 }],
  practice: {},
  currency: 'GBP',
};

function proposal(change: Partial<Proposal> = {}): Proposal {
  const lot = lotFixture();
  return {
    understoodAs: '4 hanks of 100 g',
    recipe: { versionId: 'v2', name: 'Weld on alum', number: 2, status: 'proven' },
    plan: { ...lot.plan, cautions: [{ code: 'short', materialName: 'Weld', amount: 20_000, measure: 'weight' }] },
    stockLots: [],
    factors: [],
    then: null,
    checks: [],
    schools: [],
    unfolds: [],
    alternatives: [],
    effort: { handsMin: 90, heatKwh: 2.4, throughMin: 1500 },
    ranges: [],
    shades: [],
    digest: 'digest-1',
    ...change,
  } as unknown as Proposal;
}
const caution = {
  key: 'unproven: trial',
  code: 'unproven',
  severity: 'caution' as const,
  protection: false,
  message: 'Weld on alum, version 2 is a trial, not proven.',
  why: 'Nothing says yet that it repeats.',
  cites: 'Weld on alum',
};

describe('a new lot', () => {
  let answer: (ask: ProposalAsk) => Observable<unknown>;
  const asked: ProposalAsk[] = [];
  const agreed = vi.fn<(body: unknown) => Observable<unknown>>();
  let fixture: ComponentFixture<NewLotPage>;

  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const text = (): string => page().textContent.replaceAll(/\s+/g, ' ');
  const control = async <T extends typeof MatInputHarness | typeof MatNativeSelectHarness>(
    label: string | RegExp,
    kind: T,
  ): Promise<InstanceType<T>> => {
    const field = await TestbedHarnessEnvironment.loader(fixture).getHarness(
      MatFormFieldHarness.with({ floatingLabelText: label }),
    );
    return (await field.getControl(kind as never)) as InstanceType<T>;
  };
  /** The pause after typing passes, by the clock of the test. */
  const typed = async (): Promise<void> => {
    await fixture.whenStable();
    vi.advanceTimersByTime(1000);
    await fixture.whenStable();
  };
  const say = async (quantity: string): Promise<void> => {
    await (await control('Colourway', MatNativeSelectHarness)).selectOptions({ text: 'Marram' });
    await (await control('How many, of what dry weight', MatInputHarness)).setValue(quantity);
    await typed();
  };
  const button = (name: RegExp): HTMLButtonElement | undefined =>
    [...page().querySelectorAll('button')].find((b) => name.test(b.textContent.trim()));

  beforeEach(async () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'Date'] });
    localStorage.clear();
    asked.length = 0;
    agreed.mockReset().mockReturnValue(of({ id: 'lot-9' }));
    answer = () => of(proposal());
    const replies: Record<string, unknown> = {
      '/api/colourways': [MARRAM],
      '/api/studio': STUDIO,
      '/api/materials': [],
    };
    TestBed.configureTestingModule({
      providers: [
        provideRouter([{ path: '**', children: [] }]),
        { provide: LiveChanges, useValue: { listen: () => NEVER } },
        {
          provide: ApiClient,
          useValue: {
            get: (path: string) => of(replies[path]),
            post: (path: string, body: ProposalAsk) => {
              if (path === '/api/lots') return agreed(body);
              asked.push(body);
              return answer(body);
            },
          },
        },
      ],
    });
    fixture = TestBed.createComponent(NewLotPage);
    await fixture.whenStable();
  });
  afterEach(() => vi.useRealTimers());

  it('asks for nothing until there is a colourway and a size', async () => {
    await typed();
    expect(asked).toEqual([]);
    await say('  ');
    expect(asked).toEqual([]);
  });

  it('proposes what was written, as it was written, and says how it was understood', async () => {
    await say('4 x 100 g');
    expect(asked).toEqual([
      {
        colourwayId: 'marram',
        quantityText: '4 x 100 g',
        waterId: null,
        reorderOfId: null,
        also: [],
        ownGoods: [],
        intake: { flags: [], syntheticPercent: null, marks: [] },
        doses: [],
        corrected: [],
        added: [],
        outOf: [],
        strikeOff: false,
        dyeTimeShare: 1,
        pullMinutes: [],
        schools: [],
        recipeVersionId: 'v2',
      },
    ]);
    expect(text()).toContain('4 hanks of 100 g');
    expect(text()).toContain('Weld on alum, version 2');
  });

  it('keeps the hand where it was: at what is said in place of the button that was pressed', async () => {
    await say('4 x 100 g');
    const letter = fixture.debugElement.query(By.directive(ReorderLetter)).componentInstance as ReorderLetter;
    const held = (): string => document.activeElement?.textContent?.trim() ?? '';
    letter.struckOff.emit({ ...NOT_CORRECTED, waterId: null });
    await typed();
    await vi.waitFor(() => expect(held()).toMatch(/^A strike-off:/));
    expect(asked.at(-1)).toMatchObject({ quantityText: '20 g', strikeOff: true });
    button(/^Plan the whole lot without one$/)?.click();
    await typed();
    await vi.waitFor(() => expect(document.activeElement?.tagName).toBe('VS-REORDER-LETTER'));
    expect(asked.at(-1)).toMatchObject({ quantityText: '4 x 100 g', strikeOff: false });
  });

  it('waits for the end of the typing: one question, not one a letter', async () => {
    await (await control('Colourway', MatNativeSelectHarness)).selectOptions({ text: 'Marram' });
    const size = await control('How many, of what dry weight', MatInputHarness);
    for (const part of ['1', '12', '12 hanks']) await size.setValue(part);
    await typed();
    expect(asked.map((a) => a.quantityText)).toEqual(['12 hanks']);
  });

  it('puts the plan’s cautions into the context panel', async () => {
    await say('4 x 100 g');
    expect(TestBed.inject(ContextPanel).notes()).toEqual([
      { title: 'Before you agree', lines: ['Weld is short by 20 g.'] },
    ]);
  });

  it('leaves a pot out, and asks anew with those that are left', async () => {
    await say('4 x 100 g');
    const [, big] = page().querySelectorAll<HTMLInputElement>('fieldset input[type="checkbox"]');
    big?.click();
    await typed();
    expect(asked.at(-1)?.vesselIds).toEqual(['steel']);
    expect(page().querySelector('summary')?.textContent).toContain('1 of 2');
  });

  it('says why it can’t be, and offers the ways out to press', async () => {
    answer = (ask) =>
      ask.fills === 2
        ? of(proposal())
        : throwError(() => ({
            detail: '24 hanks are more than the vessels hold together.',
            ways: [{ code: 'fills', fills: 2, message: 'In two runs it fits.' }],
          }));
    await say('24 x 100 g');
    expect(text()).toContain('24 hanks are more than the vessels hold together.');
    button(/^Plan two runs$/)?.click();
    await typed();
    expect(asked.at(-1)).toMatchObject({ quantityText: '24 x 100 g', fills: 2 });
    expect(text()).toContain('Planned in two runs.');
    button(/^Plan it as the recipe says$/)?.click();
    await typed();
    expect(asked.at(-1)?.fills).toBeUndefined();
  });

  it('asks how much of a dose that the recipe leaves open, and plans with what was chosen', async () => {
    const range = {
      stepKey: 'dye',
      stepTitle: 'Dye',
      materialId: 'weld',
      material: 'Weld',
      fromPercentOwf: 25,
      toPercentOwf: 50,
    };
    answer = (ask) => of(proposal({ ranges: [{ ...range, percentOwf: ask.doses?.[0]?.percentOwf ?? 25 }] }));
    await say('4 x 100 g');
    const field = await control(/^Weld, 25 to 50 % of\s+fibre$/, MatInputHarness);
    expect(await field.getValue()).toBe('25');
    await field.setValue('40');
    await typed();
    expect(asked.at(-1)?.doses).toEqual([{ stepKey: 'dye', materialId: 'weld', percentOwf: 40 }]);
  });

  it('lays even ways beside unlike batches, with what each costs, and plans the one that is pressed', async () => {
    const batches = [6, 6].map((pieces) => ({ vesselName: 'Big kettle', pieces, wofG: pieces * 100 }));
    const effort = { handsMin: 180, heatKwh: 4.8, throughMin: 3000 };
    const alternatives = [{ code: 'oneVessel' as const, vesselIds: ['big'], fills: 2, batches, effort }];
    answer = () => of(proposal({ alternatives }));
    await say('12 x 100 g');
    expect(text()).toContain('1 h 30 min of hands, 2.4 kWh of heat');
    expect([...page().querySelectorAll('tbody tr > *')].map((cell) => cell.textContent.trim())).toEqual(
      expect.arrayContaining([
        expect.stringContaining('Big kettle, filled twice') as string,
        '6 + 6',
        '3 h',
        '4.8 kWh',
      ]),
    );
    button(/^Plan it so$/)?.click();
    await typed();
    expect(asked.at(-1)).toMatchObject({ vesselIds: ['big'], fills: 2 });
  });

  it('unfolds a shade that came from what another lot left', async () => {
    const unfolds = [{ lotId: 'lot-1', tag: 'L-0001', colourway: 'Marram', material: 'Madder bath' }];
    answer = () => of(proposal({ unfolds }));
    await say('4 x 100 g');
    expect(text()).toContain('Madder bath is what L-0001 left, and there is too little of it now.');
    expect([...page().querySelectorAll('a')].map((a) => a.getAttribute('href'))).toContain('/lots/new?again=lot-1');
  });

  it('agrees to exactly what was shown, and goes to the lot', async () => {
    answer = () => of(proposal({ plan: { ...proposal().plan, materials: [] } }));
    await say('4 x 100 g');
    button(/^Plan the lot/)?.click();
    await fixture.whenStable();
    expect(agreed.mock.calls[0]?.[0]).toMatchObject({
      digest: 'digest-1',
      ask: { colourwayId: 'marram', quantityText: '4 x 100 g' },
      acknowledged: [],
    });
    expect(TestBed.inject(Router).url).toBe('/lots/lot-9');
  });

  it('does not let a caution be passed without a reason', async () => {
    answer = () => of(proposal({ checks: [caution], plan: { ...proposal().plan, materials: [] } }));
    await say('4 x 100 g');
    expect(text()).toContain('is a trial, not proven.');
    expect(button(/^Plan the lot/)?.disabled).toBe(true);
  });

  it('keeps what was written when agreeing is refused, and says why', async () => {
    answer = () => of(proposal({ plan: { ...proposal().plan, materials: [] } }));
    agreed.mockReturnValue(throwError(() => ({ detail: 'Someone took that stock a moment ago.' })));
    await say('4 x 100 g');
    button(/^Plan the lot/)?.click();
    await fixture.whenStable();
    expect(text()).toContain('Someone took that stock a moment ago.');
    expect(await (await control('How many, of what dry weight', MatInputHarness)).getValue()).toBe('4 x 100 g');
  });
});

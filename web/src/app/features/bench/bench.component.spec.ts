import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { MatFormFieldHarness } from '@angular/material/form-field/testing';
import { MatInputHarness } from '@angular/material/input/testing';
import { provideRouter } from '@angular/router';
import type { LotDetail, ReadRunEntry } from '@vestigia/contract';
import { EMPTY, of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import type { StoredDraft } from '../../api/bench-shelf';
import { Instruments } from '../../api/instruments';
import { LiveChanges } from '../../api/live-query';
import { Outbox } from '../../api/outbox';
import { ServerClock } from '../../api/server-clock';
import { Session } from '../../api/session';
import { NOW, benchFixture, lotFixture, runEntry } from '../../testing/lot.fixture';
import { BenchPage } from './bench';
import { BenchState } from './bench-state';
import { ProbeReadings } from './probe-readings';

const ONIONS = {
  id: 'ONI-1',
  tag: 'ONI-1',
  materialId: 'onion',
  material: 'Onion skins',
  kind: 'dyestuff',
  measure: 'weight',
  hazards: [],
  onHand: 200_000,
};

/** The page over its real state and rules; only what reaches out of it is stood in for. */
describe('the bench page', () => {
  const unseen = signal<readonly StoredDraft[]>([]);
  const added: ReadRunEntry[] = [];
  const addPhoto = vi.fn();
  let fixture: ComponentFixture<BenchPage>;

  /** How long the tablet takes to put an entry by. */
  let stored = Promise.resolve();

  const outbox = {
    unseen,
    seen: vi.fn(),
    atOf: () => NOW,
    add: (lotId: string, entry: ReadRunEntry, label: string) => {
      added.push(entry);
      unseen.update((all) => [...all, { lotId, entry, label } as StoredDraft]);
      return stored;
    },
    addPhoto,
  };
  const instruments = {
    start: vi.fn(),
    stop: vi.fn(),
    sourceOf: () => 'hand',
    hanging: signal(undefined),
    connected: signal(false),
    pan: signal(undefined),
    ph: signal(undefined),
    colour: signal(undefined),
    taken: signal(false),
  };
  let mayRecord = true;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const text = (selector: string): string => page().querySelector(selector)?.textContent?.replace(/\s+/g, ' ') ?? '';
  const press = async (name: string): Promise<void> => {
    const button = [...page().querySelectorAll('button')].find((b) => b.textContent?.trim() === name);
    if (!button) throw new Error(`there is no “${name}”, only ${page().textContent}`);
    button.click();
    await fixture.whenStable();
  };
  const write = async (label: string, value: string): Promise<void> => {
    const field = await TestbedHarnessEnvironment.loader(fixture).getHarness(
      MatFormFieldHarness.with({ floatingLabelText: label }),
    );
    await ((await field.getControl(MatInputHarness)) as MatInputHarness).setValue(value);
  };
  const key = async (name: string, on: Element = document.body): Promise<void> => {
    on.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true }));
    await fixture.whenStable();
  };
  const open = async (...lots: LotDetail[]): Promise<void> => {
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        {
          provide: ApiClient,
          useValue: {
            get: (path: string) => of(path === '/api/stores' ? [ONIONS] : benchFixture(...lots)),
            post: vi.fn(),
          },
        },
        { provide: LiveChanges, useValue: { listen: () => EMPTY, connected: signal(true) } },
        { provide: Outbox, useValue: outbox },
        { provide: ServerClock, useValue: { set: () => undefined, now: () => Date.parse(NOW) } },
        {
          provide: Session,
          useValue: { may: () => mayRecord, person: signal({ id: 'p', name: 'Ada' }), zone: signal('Europe/London') },
        },
      ],
    });
    TestBed.overrideComponent(BenchPage, {
      add: {
        providers: [
          { provide: Instruments, useValue: instruments },
          {
            provide: ProbeReadings,
            useValue: { of: () => ({ all: [], drawn: [] }), fetch: vi.fn(), stop: vi.fn(), hang: vi.fn() },
          },
        ],
      },
    });
    fixture = TestBed.createComponent(BenchPage);
    await fixture.whenStable();
  };
  const begun = (...kinds: readonly ('start' | 'weigh')[]): LotDetail => {
    const lot = lotFixture(
      kinds.map((kind, i) =>
        runEntry(
          `e${i}`,
          kind === 'start'
            ? { kind }
            : { kind, weighing: { batch: 1, materialId: 'hanks', stockLotId: 'RUG-1', amount: 400_000 } },
        ),
      ),
    );
    return { ...lot, summary: { ...lot.summary, state: 'inWork' } };
  };

  beforeEach(() => {
    mayRecord = true;
    unseen.set([]);
    added.length = 0;
    addPhoto.mockReset();
    stored = Promise.resolve();
    Element.prototype.scrollIntoView = () => undefined;
  });

  it('a guest sees what is at the bench and is offered nothing to press', async () => {
    mayRecord = false;
    await open(begun('start'));
    expect(text('section.one')).toContain('You look on here');
    expect([...page().querySelectorAll('button')].map((b) => b.textContent?.trim())).not.toContain('Take back');
    await key(' ');
    expect(page().querySelector('vs-act-now')).toBeNull();
    expect(added).toEqual([]);
  });

  it('keeps a panel, and what is written there, that was opened while an entry was still being put by', async () => {
    await open(begun('start'));
    let putBy: (() => void) | undefined;
    stored = new Promise((done) => {
      putBy = done;
    });
    await press('Pause');
    await press('More …');
    await write('Why', 'spilt half of it');
    putBy?.();
    await new Promise((done) => {
      setTimeout(done);
    });
    await fixture.whenStable();
    expect(added.map((e) => e.kind)).toEqual(['pause']);
    expect(page().querySelector<HTMLInputElement>('vs-more-actions-panel [name=text]')?.value).toBe('spilt half of it');
  });

  it('leaves the cursor where somebody writes when a weighing comes up, and puts it there otherwise', async () => {
    await open(lotFixture());
    await press('Note');
    const field = page().querySelector<HTMLInputElement>('vs-step-facts-panel [name=text]');
    field?.focus();
    const told = fixture.debugElement.injector.get(BenchState);
    told.take(benchFixture(begun('start')));
    await fixture.whenStable();
    expect(page().querySelector('[name=shown]')).not.toBeNull();
    expect(document.activeElement).toBe(field);
    field?.blur();
    told.take(benchFixture(lotFixture()));
    await fixture.whenStable();
    told.take(benchFixture(begun('start')));
    await fixture.whenStable();
    expect(document.activeElement).toBe(page().querySelector('[name=shown]'));
  });

  it('asks for one thing, does it on its button, and asks for the next at once', async () => {
    await open(lotFixture());
    expect(text('h1')).toBe('Weigh the fibre dry');
    await press('Begin');
    expect(added.map((e) => [e.kind, e.stepIndex])).toEqual([['start', 0]]);
    expect(text('.target')).toContain('400 g');
  });

  it('does the one thing on Space, but not while somebody writes or stands on a button', async () => {
    await open(lotFixture());
    await press('Note');
    await key(' ', page().querySelector('input') as Element);
    await key(' ', page().querySelector('.actions button') as Element);
    expect(added).toEqual([]);
    await key(' ');
    expect(added.map((e) => e.kind)).toEqual(['start']);
  });

  it('writes a note, closes its panel, and says nothing it was not told', async () => {
    await open(begun('start'));
    await press('Note');
    await write('What you saw', '');
    await press('Keep the note');
    expect(text('.refusal')).toBe('The note is empty. Write what you saw.');
    await write('What you saw', 'smells of sheep');
    await press('Keep the note');
    expect(added).toMatchObject([{ kind: 'note', text: 'smells of sheep', detail: null }]);
    expect(page().querySelector('section.aside')).toBeNull();
  });

  it('says a departure as one, with a tap', async () => {
    await open(begun('start'));
    await press('Went otherwise');
    await press('Fibre went in dry: expect patches');
    expect(added).toMatchObject([{ kind: 'note', detail: { deviation: true } }]);
  });

  it('keeps what went in beside the plan as a fact, out of its jar or from none', async () => {
    await open(begun('start', 'weigh'));
    await press('Went otherwise');
    await press('Something else went in');
    await write('How much', '20 g');
    await press('Keep it in the record');
    expect(text('.refusal')).toBe('Say what went in, and how much; “a handful” will do where it came from no jar.');
    await write('What went in', 'oni-1');
    expect(page().textContent).toContain('Onion skins out of ONI-1');
    await press('Keep it in the record');
    await press('Went otherwise');
    await press('Something else went in');
    await write('What went in', 'dock root');
    await write('How much', 'a handful');
    await press('Keep it in the record');
    expect(added).toMatchObject([
      {
        kind: 'add',
        weighing: { materialId: 'onion', stockLotId: 'ONI-1', quantityText: '20 g' },
        detail: { name: 'Onion skins', batch: 1 },
      },
      { kind: 'add', weighing: null, detail: { name: 'dock root', quantityText: 'a handful' } },
    ]);
  });

  it('asks once before a step with long to go is done, and a slip is taken back', async () => {
    const lot = begun('start', 'weigh');
    const [first, ...rest] = lot.plan.steps;
    const slow = { ...first!, attended: false, durationMin: 300 };
    await open({ ...lot, plan: { ...lot.plan, steps: [slow, ...rest] } });
    await press('Done early');
    expect(added).toEqual([]);
    await press('Not yet');
    await press('Done early');
    await press('It is done');
    expect(added.map((e) => e.kind)).toEqual(['finish']);
    await press('Take that back');
    expect(added[1]).toMatchObject({ kind: 'takeBack', replacesId: added[0]?.id, stepIndex: 0 });
    expect(page().textContent).toContain('Done early');
  });

  it('weighs as asked by one press', async () => {
    await open(begun('start'));
    await press('As asked: 400 g');
    expect(added).toMatchObject([{ kind: 'weigh', weighing: { quantityText: '400 g' } }]);
  });

  it('leaves a step chosen under More as it was chosen, however the clock runs', async () => {
    await open(begun('start', 'weigh'));
    await press('More …');
    const select = page().querySelector('select[name=step]') as HTMLSelectElement;
    select.selectedIndex = 1;
    select.dispatchEvent(new Event('change'));
    // Twice a second everything is reckoned anew, and after each word from the server.
    fixture.debugElement.injector.get(BenchState).take(benchFixture(begun('start', 'weigh')));
    await fixture.whenStable();
    expect((page().querySelector('select[name=step]') as HTMLSelectElement).selectedIndex).toBe(1);
  });

  it('refuses a temperature no bath has, keeps what was typed, and takes one with a comma', async () => {
    await open(begun('start'));
    await press('Temperature');
    await write('Temperature, °C', '400');
    await press('Keep the temperature');
    expect(text('.refusal')).toContain('400 °C is no temperature of a dye bath.');
    await write('Temperature, °C', '62,5');
    await press('Keep the temperature');
    expect(added).toMatchObject([{ kind: 'temperature', temperatureC: 62.5 }]);
  });

  it('pauses, and then only goes on', async () => {
    await open(begun('start', 'weigh'));
    await press('Pause');
    expect(text('h1')).toBe('Paused');
    await press('Go on');
    expect(added.map((e) => e.kind)).toEqual(['pause', 'resume']);
  });

  it('corrects beside what was, and strikes the wrong one', async () => {
    await open(begun('start', 'weigh'));
    await press('Correct');
    await write('What was really weighed', '380 g');
    await press('Keep the correction');
    expect(added).toMatchObject([
      { kind: 'weigh', replacesId: 'e1', weighing: { batch: 1, stockLotId: 'RUG-1', quantityText: '380 g' } },
    ]);
    expect(text('tr.struck')).toContain('400 g');
  });

  it('offers to rescale what follows when the fibre weighs otherwise', async () => {
    await open(begun('start'));
    await write('What the balance shows', '440 g');
    await press('Weighed');
    const offer = page().querySelector<HTMLButtonElement>('.offered .act');
    offer?.click();
    await fixture.whenStable();
    const rescaled = added.at(-1);
    expect(rescaled?.kind).toBe('rescale');
    expect(
      rescaled?.kind === 'rescale' && rescaled.detail?.rescale?.every((r) => Math.abs(r.factor - 1.1) < 1e-9),
    ).toBe(true);
    expect(page().querySelector('.offered')).toBeNull();
  });

  it('says which pot still holds another lot’s bath, and begins there only with a reason', async () => {
    const inWork = (lot: LotDetail, id: string, tag: string): LotDetail => ({
      ...lot,
      summary: { ...lot.summary, id, tag, state: 'inWork' },
    });
    const skipped = runEntry('skip', { kind: 'skip', text: 'weighed before' });
    const [alum] = lotFixture().plan.steps[1]?.weighings ?? [];
    const other = lotFixture([
      { ...skipped, id: 'skip 2' },
      runEntry('start 2', { kind: 'start', stepIndex: 1, at: '2026-06-01T11:50:00.000Z' }),
      runEntry('weigh 2', {
        kind: 'weigh',
        stepIndex: 1,
        weighing: { batch: 1, materialId: 'alum', stockLotId: 'ALU-1', amount: (alum?.target.value ?? 0) * 1000 },
      }),
    ]);
    await open(inWork(lotFixture([skipped]), 'lot-1', 'Lot 1'), inWork(other, 'lot-2', 'Lot 2'));
    expect(text('h1')).toBe('mordant');
    expect(text('.say.warn')).toMatch(/(kettle|pan) still holds “mordant” of Lot 2\. Finish that first/);
    await press('Begin all the same');
    expect(added).toEqual([]);
    expect(text('.refusal')).toContain('still holds “mordant” of Lot 2');
    await write('Why it is begun there all the same', 'poured into the tub');
    await press('Begin all the same');
    expect(added).toMatchObject([{ kind: 'start', stepIndex: 1, text: 'poured into the tub' }]);
  });

  it('keeps a photograph with the note it belongs to', async () => {
    await open(begun('start'));
    await press('Note');
    const input = page().querySelector<HTMLInputElement>('input[type=file]') as HTMLInputElement;
    const file = new File(['x'], 'pot.png', { type: 'image/png' });
    Object.defineProperty(input, 'files', { value: [file] });
    input.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(added).toMatchObject([{ kind: 'note', text: 'photograph' }]);
    expect(addPhoto).toHaveBeenCalledWith('lot-1', added[0]?.id, file);
  });

  it('says so where there is nothing to work on', async () => {
    await open();
    expect(text('h1')).toBe('Bench');
    expect(text('.empty')).toContain('There is none to work on.');
  });

  it('leads placed colour: the zone in its liquor is timed, what ran over is written with it', async () => {
    const lot = begun('start');
    const zone = {
      zone: 0,
      title: 'Weak end',
      way: 'dip' as const,
      order: 1,
      fromCm: 0,
      toCm: 20,
      pointsCm: [],
      minutes: 5,
      waitMin: 0,
      mlPerPiece: null,
      gPerPiece: null,
      materialName: null,
      pieces: 4,
      pieceByPiece: false,
    };
    const steps = lot.plan.steps.map((s, n) => (n === 0 ? { ...s, weighings: [], zones: [zone] } : s));
    await open({ ...lot, plan: { ...lot.plan, steps } });
    expect(text('h1').trim()).toBe('Weak end');
    await press('It is in');
    expect(added.at(-1)).toMatchObject({ kind: 'zone', detail: { zone: 0, did: 'in' } });
    expect(text('h1').trim()).toBe('5:00');
    await press('Otherwise …');
    await write('What went otherwise there', 'crept over the tie');
    await press('It is out already');
    expect(added.at(-1)).toMatchObject({
      kind: 'zone',
      text: 'crept over the tie',
      detail: { zone: 0, did: 'done' },
    });
    expect(text('h1')).toBe('Weigh the fibre dry');
  });
});
